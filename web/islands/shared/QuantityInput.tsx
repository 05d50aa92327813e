import { useState, type ComponentProps } from 'react';
import { FEET_PER_METRE, MM_PER_INCH } from '#core/units/length.ts';
import { parseLength } from '#core/units/parseLength.ts';
import { plainNumber } from '#web/islands/shared/plainNumber.ts';
import { currentSystem, sayPlain } from '#web/islands/shared/units.ts';

/** What is typed in metric units or in inches and feet. */
export type QuantityKind = 'length' | 'speed' | 'acceleration' | 'travel';

const UNITS: Readonly<Record<QuantityKind, { readonly metric: string; readonly inch: string }>> = {
  length: { metric: 'mm', inch: 'in' },
  speed: { metric: 'mm/s', inch: 'in/s' },
  acceleration: { metric: 'mm/s²', inch: 'in/s²' },
  travel: { metric: 'm', inch: 'ft' },
};

/** What a quantity is typed in at this bench. */
export function unitOf(kind: QuantityKind): string {
  return UNITS[kind][currentSystem()];
}

/** From what is kept (mm, mm/s, mm/s², m) to what is shown. */
function perKept(kind: QuantityKind): number {
  if (currentSystem() === 'metric') return 1;
  return kind === 'travel' ? FEET_PER_METRE : 1 / MM_PER_INCH;
}

/** A quantity as it stands in a field. @param kept mm, mm/s, mm/s² or m */
function showKept(kind: QuantityKind, kept: number): string {
  if (!Number.isFinite(kept)) return '';
  const digits = currentSystem() === 'metric' ? 4 : kind === 'length' ? 4 : 2;
  return sayPlain(kept * perKept(kind), digits);
}

/** What was typed, as it is kept. @returns `null` for what is no quantity */
function readTyped(kind: QuantityKind, text: string): number | null {
  if (kind === 'length') return parseLength(text, currentSystem());
  const value = plainNumber(text);
  return value === null ? null : value / perKept(kind);
}

interface Props extends Omit<ComponentProps<'input'>, 'value' | 'onChange' | 'type'> {
  readonly kind: QuantityKind;
  /** mm, mm/s, mm/s² or m; not a number for an empty field. */
  readonly kept: number;
  /** Told with every key; not a number for what cannot be read. */
  readonly onKept: (kept: number) => void;
}

/** A field for a quantity in the units of the bench: what is typed stays as it was typed until the field is left. */
export function QuantityInput({ kind, kept, onKept, className = 'field figure', onBlur, ...rest }: Props) {
  const [text, setText] = useState<string | null>(null);
  const isOdd = text !== null && text.trim() !== '' && readTyped(kind, text) === null;
  return (
    <input
      {...rest}
      className={className}
      inputMode="decimal"
      autoComplete="off"
      aria-invalid={rest['aria-invalid'] === true || isOdd}
      value={text ?? showKept(kind, kept)}
      onChange={(event) => {
        setText(event.target.value);
        onKept(readTyped(kind, event.target.value) ?? Number.NaN);
      }}
      onBlur={(event) => {
        if (!isOdd) setText(null);
        onBlur?.(event);
      }}
    />
  );
}
