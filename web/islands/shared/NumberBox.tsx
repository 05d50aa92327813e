import { useId, useState } from 'react';
import { Hint } from '#web/islands/shared/Term.tsx';
import { plainNumber } from '#web/islands/shared/plainNumber.ts';
import { sayPlain } from '#web/islands/shared/units.ts';

interface Props {
  readonly label: string;
  readonly value: number;
  /** Said behind the label; nothing for a count. */
  readonly unit?: string;
  /** Digits after the point that are shown. */
  readonly digits?: number;
  readonly disabled?: boolean;
  /** Said to those who cannot see that it stands beside its words. */
  readonly isLabelHidden?: boolean;
  /** What is understood of what was typed; `null` for nothing. */
  readonly parse?: (text: string) => number | null;
  /** What it wants, in words, for who typed something else. */
  readonly wants?: string;
  readonly onChange: (value: number) => void;
}

/** A number that is taken when the field is left or Enter is pressed. What cannot be read stays, and is said. */
export function NumberBox({
  label,
  value,
  unit = '',
  digits = 2,
  disabled = false,
  isLabelHidden = false,
  parse = plainNumber,
  wants = 'a number',
  onChange,
}: Props) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const plain = sayPlain(value, digits);
  const shown = text ?? plain;
  const isOdd = text !== null && text.trim() !== '' && parse(text) === null;
  const take = () => {
    if (isOdd) return;
    setText(null);
    const typed = parse(shown);
    if (typed !== null && shown !== plain) onChange(typed);
  };
  return (
    <div className="text-sm text-muted">
      <div className={isLabelHidden ? 'sr-only' : 'flex gap-1'}>
        <label htmlFor={`${id}-box`}>
          {label}
          {unit && !isLabelHidden ? `, ${unit}` : ''}
        </label>
        {isLabelHidden ? null : <Hint label={label} />}
      </div>
      <input
        id={`${id}-box`}
        className="field figure text-base text-ink"
        inputMode="decimal"
        autoComplete="off"
        value={shown}
        disabled={disabled}
        aria-invalid={isOdd}
        aria-describedby={isOdd ? id : undefined}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {isOdd ? (
        <span id={id} className="block text-ember">
          This wants {wants}.
        </span>
      ) : null}
    </div>
  );
}
