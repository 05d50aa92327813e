import type { Drawing } from '#core/drawing/drawing.ts';
import { boundDrawing, type Placement } from '#core/sheet/placeDrawing.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';

/**
 * The smallest usual sheet that takes a drawing on a machine, with the drawing in its upper left usable corner, so
 * that the rest of the sheet stays in one piece. When none takes it, the largest that the bed takes.
 */
export function chooseSheet(
  drawing: Drawing,
  bed: { readonly bedWidthMm: number; readonly bedLengthMm: number; readonly marginMm: number },
): { readonly sheet: Sheet; readonly placement: Placement } {
  const box = boundDrawing(drawing);
  const margins = 2 * bed.marginMm;
  const onBed = SHEET_SIZES.filter(
    (size) => size.widthMm <= bed.bedWidthMm && size.heightMm <= bed.bedLengthMm,
  );
  const sizes = [...onBed].sort((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm);
  const fits = (size: Pick<Sheet, 'widthMm' | 'heightMm'>) =>
    size.widthMm - margins >= box.maxX - box.minX && size.heightMm - margins >= box.maxY - box.minY;
  const own = { name: 'bed', widthMm: bed.bedWidthMm, heightMm: Math.min(bed.bedLengthMm, 1000) };
  const chosen = sizes.find(fits) ?? sizes.at(-1) ?? own;
  return {
    sheet: { ...chosen, marginMm: bed.marginMm },
    placement: { xMm: bed.marginMm, yMm: bed.marginMm },
  };
}
