import { useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: number;
  readonly unit?: string;
  readonly disabled?: boolean;
  /** Said to those who cannot see that it stands beside its words. */
  readonly isLabelHidden?: boolean;
  readonly onChange: (value: number) => void;
}

/** A number that is taken when the field is left or Enter is pressed. */
export function Millimetres({
  label,
  value,
  unit = 'mm',
  disabled = false,
  isLabelHidden = false,
  onChange,
}: Props) {
  const [text, setText] = useState<string | null>(null);
  // A thousandth of an inch is as fine as a hundredth of a mm is wanted.
  const plain = String(Number(value.toFixed(unit === 'in' ? 3 : 2)));
  const shown = text ?? plain;
  const take = () => {
    const typed = Number(shown);
    setText(null);
    if (shown.trim() !== '' && Number.isFinite(typed) && shown !== plain) onChange(typed);
  };
  return (
    <label className="text-sm text-muted">
      <span className={isLabelHidden ? 'sr-only' : ''}>
        {label}
        {unit && !isLabelHidden ? `, ${unit}` : ''}
      </span>
      <input
        className="field figure text-base text-ink"
        inputMode="decimal"
        value={shown}
        disabled={disabled}
        onChange={(event) => setText(event.target.value.replace(',', '.'))}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
    </label>
  );
}
