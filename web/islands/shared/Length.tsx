import { inchToMm, mmToInch, type UnitSystem } from '#core/units/length.ts';
import { Millimetres } from '#web/islands/shared/Millimetres.tsx';

interface Props {
  readonly label: string;
  readonly mm: number;
  readonly system: UnitSystem;
  readonly disabled?: boolean;
  /** @param mm whatever it was typed in */
  readonly onChange: (mm: number) => void;
}

/** A length in the units of the bench; it is kept in mm. */
export function Length({ label, mm, system, disabled = false, onChange }: Props) {
  const isInch = system === 'inch';
  return (
    <Millimetres
      label={label}
      unit={isInch ? 'in' : 'mm'}
      value={isInch ? mmToInch(mm) : mm}
      disabled={disabled}
      onChange={(value) => onChange(isInch ? inchToMm(value) : value)}
    />
  );
}
