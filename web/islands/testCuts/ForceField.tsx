import { useState, type KeyboardEvent } from 'react';
import type { ForceScale } from '#core/units/forceScale.ts';

interface Props {
  readonly id: string;
  readonly force: number;
  readonly scale: ForceScale;
  readonly onChange: (force: number) => void;
}

/**
 * A force to type. What is typed stays as it is until the field is left or Enter is pressed: snapping every key would
 * turn "95" into "105" where the scale begins at 10. Escape gives up what was typed.
 */
export function ForceField({ id, force, scale, onChange }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const settle = () => {
    const typed = Number(draft);
    if (draft !== null && draft.trim() !== '' && Number.isFinite(typed)) onChange(typed);
    setDraft(null);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') settle();
    if (event.key === 'Escape') setDraft(null);
  };
  return (
    <input
      id={id}
      type="number"
      className="figure text-[2.6rem] font-bold w-[3.3ch] text-center leading-none border-b-2 border-edge bg-transparent [appearance:textfield] [&::-webkit-inner-spin-button]:appearance-none"
      value={draft ?? force}
      min={scale.min}
      max={scale.max}
      step={scale.step}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={settle}
      onKeyDown={onKeyDown}
    />
  );
}
