import type { BoxMm } from '#core/geometry/box.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';
import type { PrintAndCutArea } from '#core/station/machine.ts';

/** Sheets this near in size are one, mm: makers round. */
const SAME_MM = 1.5;
/** Cut lines over the area by less than this are on its edge, mm. */
const EDGE_MM = 0.05;

/**
 * What a machine prints and then cuts of a sheet, in its middle: found by the size of the sheet, whatever it is called,
 * and turned with it. An area of a sheet whose size nobody knows is found by its name.
 *
 * @returns `null` where the machine says nothing of such a sheet
 * @example findPrintArea({ name: 'my letter', widthMm: 279.4, heightMm: 215.9 }, [{ sheet: 'Letter', widthMm: 171, heightMm: 235 }])?.minY // 22.45
 */
export function findPrintArea(
  { name, widthMm, heightMm }: Pick<Sheet, 'name' | 'widthMm' | 'heightMm'>,
  areas: readonly PrintAndCutArea[],
): BoxMm | null {
  const near = (one: number, other: number) => Math.abs(one - other) <= SAME_MM;
  for (const area of areas) {
    const size = SHEET_SIZES.find((known) => known.name.toLowerCase() === area.sheet.trim().toLowerCase());
    const isUpright = size
      ? near(size.widthMm, widthMm) && near(size.heightMm, heightMm)
      : name.startsWith(area.sheet);
    if (isUpright) return inMiddle(widthMm, heightMm, area.widthMm, area.heightMm);
    if (size && near(size.widthMm, heightMm) && near(size.heightMm, widthMm)) {
      return inMiddle(widthMm, heightMm, area.heightMm, area.widthMm);
    }
  }
  return null;
}

function inMiddle(sheetWidth: number, sheetHeight: number, width: number, height: number): BoxMm {
  const [minX, minY] = [(sheetWidth - width) / 2, (sheetHeight - height) / 2];
  return { minX, minY, maxX: minX + width, maxY: minY + height };
}

/**
 * By how many mm what is cut reaches over an area; 0 where it fits, or where there is none to keep to.
 *
 * @example overPrintArea({ minX: 0, minY: 0, maxX: 50, maxY: 20 }, { minX: 10, minY: 0, maxX: 100, maxY: 100 }) // 10
 */
export function overPrintArea(box: BoxMm | null, area: BoxMm | null): number {
  if (!box || !area) return 0;
  const over = Math.max(
    area.minX - box.minX,
    area.minY - box.minY,
    box.maxX - area.maxX,
    box.maxY - area.maxY,
  );
  return over > EDGE_MM ? over : 0;
}
