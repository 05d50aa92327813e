import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { areaOfBox, type BoxMm } from '#core/geometry/box.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';

/** A rest smaller than this is waste, mm. Common practice, no source. */
const LEAST_MM = 50;
/** Strips next to what was cut are trimmed away, mm. Common practice, no source. */
const TRIM_MM = 3;

/**
 * The largest rectangle of a sheet that nothing lies on: what can be kept for the next job.
 *
 * @param taken boxes of what was cut or printed, mm
 * @returns `null` when nothing of at least 50 x 50 mm is left
 * @example findRemnant(sheet, [{ minX: 0, minY: 0, maxX: 210, maxY: 100 }]) // { minX: 0, maxX: 210, minY: 103, maxY: 297 }
 */
export function findRemnant(
  { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>,
  taken: readonly BoxMm[],
): BoxMm | null {
  if (taken.length === 0) return null;
  const grown = taken.map(({ minX, minY, maxX, maxY }) => ({
    minX: minX - TRIM_MM,
    minY: minY - TRIM_MM,
    maxX: maxX + TRIM_MM,
    maxY: maxY + TRIM_MM,
  }));
  const cuts = (low: 'minX' | 'minY', high: 'maxX' | 'maxY', end: number) =>
    [...new Set([0, end, ...grown.flatMap((box) => [box[low], box[high]])])]
      .filter((at) => at >= 0 && at <= end)
      .sort((a, b) => a - b);
  const xs = thin(cuts('minX', 'maxX', widthMm));
  const ys = thin(cuts('minY', 'maxY', heightMm));
  // Heights of free columns above each row of cells, then the largest rectangle under them.
  const heights = new Array<number>(xs.length - 1).fill(0);
  let best: BoxMm | null = null;
  for (let row = 0; row + 1 < ys.length; row++) {
    const [top, bottom] = [itemAt(ys, row), itemAt(ys, row + 1)];
    for (let column = 0; column + 1 < xs.length; column++) {
      const [left, right] = [itemAt(xs, column), itemAt(xs, column + 1)];
      const isTaken = grown.some(
        (box) =>
          box.minX < right - ROUNDING &&
          box.maxX > left + ROUNDING &&
          box.minY < bottom - ROUNDING &&
          box.maxY > top + ROUNDING,
      );
      heights[column] = isTaken ? 0 : itemAt(heights, column) + bottom - top;
    }
    for (let from = 0; from < heights.length; from++) {
      let height = Infinity;
      for (let to = from; to < heights.length; to++) {
        height = Math.min(height, itemAt(heights, to));
        if (height < LEAST_MM) break;
        const box = {
          minX: itemAt(xs, from),
          maxX: itemAt(xs, to + 1),
          minY: bottom - height,
          maxY: bottom,
        };
        if (box.maxX - box.minX >= LEAST_MM && areaOfBox(box) > (best ? areaOfBox(best) : 0)) best = box;
      }
    }
  }
  return best;
}

/** Many pieces give many cuts: the widest grid that stays quick. */
function thin(cuts: readonly number[]): readonly number[] {
  const most = 160;
  if (cuts.length <= most) return cuts;
  const stride = Math.ceil(cuts.length / most);
  return cuts.filter((_, index) => index % stride === 0 || index === cuts.length - 1);
}
