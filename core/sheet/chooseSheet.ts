import type { BoxMm } from '#core/geometry/box.ts';
import type { Layout } from '#core/sheet/layout.ts';
import { EMPTY_SHELF, pickSheet, type OfferedSheet, type Shelf } from '#core/sheet/offerSheets.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** What a layout begins with. Pieces 2 mm apart: common practice, no source. */
export const PLAIN_LAYOUT: Omit<Layout, 'placements'> = {
  isWhole: true,
  copies: 1,
  quantities: {},
  turns: 'quarter',
  spacingMm: 2,
};

/**
 * The first sheet of a shelf that takes a drawing on a machine, see {@link pickSheet}, with the drawing in its upper left
 * usable corner, so that the rest of the sheet stays in one piece.
 *
 * @example chooseSheet({ minX: 0, minY: 0, maxX: 100, maxY: 100 }, machine).sheet.name // 'A5'
 */
export function chooseSheet(
  box: BoxMm,
  bed: { readonly bedWidthMm: number; readonly bedLengthMm: number; readonly marginMm: number },
  shelf: Shelf = EMPTY_SHELF,
): { readonly sheet: Sheet; readonly layout: Layout } {
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const margins = 2 * bed.marginMm;
  const fits = (size: OfferedSheet) => size.widthMm - margins >= width && size.heightMm - margins >= height;
  const own = { name: 'bed', widthMm: bed.bedWidthMm, heightMm: Math.min(bed.bedLengthMm, 1000) };
  const chosen = pickSheet(shelf, bed, fits) ?? own;
  const corner = { xMm: bed.marginMm + width / 2, yMm: bed.marginMm + height / 2 };
  return {
    sheet: { ...chosen, marginMm: bed.marginMm },
    layout: { ...PLAIN_LAYOUT, placements: [{ piece: 0, sheet: 0, ...corner, turnDeg: 0 }] },
  };
}
