import type { Remnant } from '#core/stack/materialDetails.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly sheet: Sheet;
  readonly remnants: readonly Remnant[];
  readonly onChange: (change: JobChange) => void;
}

type Size = Pick<Sheet, 'name' | 'widthMm' | 'heightMm' | 'wholeHeightMm' | 'isStarted'>;

/** What lies on the shelf first: started sheets, then remnants; then the usual sizes. */
export function SizeSelect({ sheet, remnants, onChange }: Props) {
  const sizes: readonly Size[] = [
    ...remnants.filter(({ takenMm }) => takenMm !== undefined).map(startedOf),
    ...remnants.filter(({ takenMm }) => takenMm === undefined).map(remnantOf),
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

/** The other end of a sheet that was used before. */
function startedOf({ widthMm, heightMm, note, takenMm = 0 }: Remnant): Size {
  const leftMm = heightMm - takenMm;
  const name = `started sheet, ${Math.round(leftMm)} of ${Math.round(heightMm)} mm left`;
  return {
    name: (note ? `${name}, ${note}` : name).slice(0, 60),
    widthMm,
    heightMm: leftMm,
    wholeHeightMm: heightMm,
    isStarted: true,
  };
}

function remnantOf({ widthMm, heightMm, note }: Remnant): Size {
  const name = `remnant ${Math.round(widthMm)} × ${Math.round(heightMm)} mm`;
  return { name: (note ? `${name}, ${note}` : name).slice(0, 60), widthMm, heightMm };
}
