import type { BoxMm } from '#core/geometry/box.ts';
import type { Layout } from '#core/sheet/layout.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';

/** What a layout begins with. Pieces 2 mm apart: common practice, no source. */
export const PLAIN_LAYOUT: Omit<Layout, 'placements'> = {
  isWhole: true,
  copies: 1,
  quantities: {},
  turns: 'quarter',
  spacingMm: 2,
};

/**
 * The smallest usual sheet that takes a drawing on a machine, with the drawing in its upper left usable corner, so
 * that the rest of the sheet stays in one piece. When none takes it, the largest that the bed takes.
 *
 * @example chooseSheet({ minX: 0, minY: 0, maxX: 100, maxY: 100 }, machine).sheet.name // 'half Letter'
 */
export function chooseSheet(
  box: BoxMm,
  bed: { readonly bedWidthMm: number; readonly bedLengthMm: number; readonly marginMm: number },
): { readonly sheet: Sheet; readonly layout: Layout } {
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const margins = 2 * bed.marginMm;
  const onBed = SHEET_SIZES.filter(
    (size) => size.widthMm <= bed.bedWidthMm && size.heightMm <= bed.bedLengthMm,
  );
  const sizes = [...onBed].sort((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm);
  const fits = (size: Pick<Sheet, 'widthMm' | 'heightMm'>) =>
    size.widthMm - margins >= width && size.heightMm - margins >= height;
  const own = { name: 'bed', widthMm: bed.bedWidthMm, heightMm: Math.min(bed.bedLengthMm, 1000) };
  const chosen = sizes.find(fits) ?? sizes.at(-1) ?? own;
  const corner = { xMm: bed.marginMm + width / 2, yMm: bed.marginMm + height / 2 };
  return {
    sheet: { ...chosen, marginMm: bed.marginMm },
    layout: { ...PLAIN_LAYOUT, placements: [{ piece: 0, sheet: 0, ...corner, turnDeg: 0 }] },
  };
}
