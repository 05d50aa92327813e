import type { Remnant } from '#core/stack/materialDetails.ts';
import { remnantSheet, startedSheet, type OfferedSheet } from '#core/sheet/offerSheets.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly sheet: Sheet;
  readonly remnants: readonly Remnant[];
  readonly onChange: (change: JobChange) => void;
}

/** What lies on the shelf first: started sheets, then remnants; then the usual sizes. */
export function SizeSelect({ sheet, remnants, onChange }: Props) {
  const sizes: readonly OfferedSheet[] = [
    ...remnants.filter(({ takenMm }) => takenMm !== undefined).map(startedSheet),
    ...remnants.filter(({ takenMm }) => takenMm === undefined).map(remnantSheet),
    ...SHEET_SIZES,
  ];
  const choose = (name: string) => {
    const size = sizes.find((one) => one.name === name);
    if (size) onChange({ sheet: { ...size, marginMm: sheet.marginMm } });
  };
  return (
    <>
      <label className="block mt-2 text-sm text-muted" htmlFor="sheet-size">
        Size
      </label>
      <select
        id="sheet-size"
        className="field"
        value={sheet.name}
        onChange={(event) => choose(event.target.value)}
      >
        {sizes.map((size) => (
          <option key={size.name} value={size.name}>
            {say(
              size.name.includes('mm')
                ? size.name
                : `${size.name}, ${Math.round(size.widthMm)} × ${Math.round(size.heightMm)} mm`,
            )}
          </option>
        ))}
        {sizes.some((size) => size.name === sheet.name) ? null : (
          <option value={sheet.name}>{say(sheet.name)}</option>
        )}
      </select>
    </>
  );
}
