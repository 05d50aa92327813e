import { useState } from 'react';
import { QuantityInput, unitOf, type QuantityKind } from '#web/islands/shared/QuantityInput.tsx';

interface FieldProps {
  readonly label: string;
  readonly name: string;
  readonly type?: 'text' | 'number';
  readonly value: string | number;
}

/** A field that the form reads when it is sent. */
export function Field({ label, name, type = 'text', value }: FieldProps) {
  return (
    <label>
      <span className="block text-sm text-muted">{label}</span>
      <input
        name={name}
        type={type}
        {...(type === 'number' ? { step: 'any' } : {})}
        className={`field ${type === 'number' ? 'figure' : ''}`}
        defaultValue={value}
      />
    </label>
  );
}

interface QuantityProps {
  readonly label: string;
  readonly name: string;
  readonly kind?: QuantityKind;
  /** mm or m; empty where nothing is known. */
  readonly value: number | '';
}

/** A quantity in the units of the bench; the form reads mm, or m of travel. */
export function Quantity({ label, name, kind = 'length', value }: QuantityProps) {
  const [kept, setKept] = useState(value === '' ? Number.NaN : value);
  return (
    <label>
      <span className="block text-sm text-muted">
        {label}, {unitOf(kind)}
      </span>
      <QuantityInput kind={kind} kept={kept} onKept={setKept} />
      <input type="hidden" data-number="" name={name} value={Number.isNaN(kept) ? '' : kept} />
    </label>
  );
}
