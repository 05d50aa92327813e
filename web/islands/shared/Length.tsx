import { mmToInch } from '#core/units/length.ts';
import { parseLength } from '#core/units/parseLength.ts';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { currentSystem, lengthUnit } from '#web/islands/shared/units.ts';

interface Props {
  readonly label: string;
  readonly mm: number;
  readonly disabled?: boolean;
  /** @param mm whatever it was typed in */
  readonly onChange: (mm: number) => void;
}

/** A length in the units of the bench, typed in any: 12, 3/8 in, 15 mil, 0,4 mm. It is kept in mm. */
export function Length({ label, mm, disabled = false, onChange }: Props) {
  const isInch = currentSystem() === 'inch';
  return (
    <NumberBox
      label={label}
      unit={lengthUnit()}
      // A thousandth of an inch is as fine as a hundredth of a mm.
      digits={isInch ? 3 : 2}
      value={isInch ? mmToInch(mm) : mm}
      disabled={disabled}
      parse={(text) => parseLength(text, currentSystem())}
      wants="a length, as 12, 3/8 in or 0.4 mm"
      onChange={onChange}
    />
  );
}
