import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import { areaOfBox, type BoxMm } from '#core/geometry/box.ts';
import type { Mark } from '#core/sheet/marks/marks.ts';
import { usableBox, type Sheet } from '#core/sheet/sheetSize.ts';
import { ROUNDING } from '#core/units/rounding.ts';

/** A length and a width, mm. */
export interface SizeMm {
  readonly widthMm: number;
  readonly heightMm: number;
}

/**
 * How many times larger than its file a drawing is.
 *
 * @example sizeFactorOf([{ kind: 'scale', factor: 2 }]) // 2
 */
export function sizeFactorOf(edits: readonly DrawingEdit[]): number {
  return edits.reduce((factor, edit) => (edit.kind === 'scale' ? factor * edit.factor : factor), 1);
}

/**
 * Mends with a drawing of another size. The size comes first: borders, frames and bars keep their millimetres.
 *
 * @param factor how many times larger than its file the drawing is
 * @example withSizeFactor([{ kind: 'dropDuplicates' }], 0.5).map(({ kind }) => kind) // ['scale', 'dropDuplicates']
 */
export function withSizeFactor(edits: readonly DrawingEdit[], factor: number): readonly DrawingEdit[] {
  const others = edits.filter(({ kind }) => kind !== 'scale');
  return Math.abs(factor - 1) < ROUNDING ? others : [{ kind: 'scale', factor }, ...others];
}

/** The largest size that fits, as a factor of the size now, and whether it is turned by a quarter for it. */
export interface LargestFit {
  readonly factor: number;
  readonly isTurned: boolean;
}

/**
 * How large something may be in a room, turned or not.
 *
 * @example fitLargest({ widthMm: 40, heightMm: 10 }, { widthMm: 50, heightMm: 100 }) // { factor: 2.5, isTurned: true }
 */
export function fitLargest({ widthMm, heightMm }: SizeMm, room: SizeMm): LargestFit {
  const upright = Math.min(room.widthMm / widthMm, room.heightMm / heightMm);
  const turned = Math.min(room.widthMm / heightMm, room.heightMm / widthMm);
  return turned > upright ? { factor: turned, isTurned: true } : { factor: upright, isTurned: false };
}

/**
 * What of a sheet can be used: what the machine prints and cuts, where it says so; else within the margins, and between
 * the marks with what their sensor needs clear, above and below or beside them, whichever leaves more.
 *
 * @example usableRoom({ sheet, printArea: null, marks: [] }) // { minX: 6, minY: 6, maxX: 204, maxY: 291 }
 */
export function usableRoom({
  sheet,
  printArea,
  marks,
}: {
  readonly sheet: Sheet;
  readonly printArea: BoxMm | null;
  readonly marks: readonly Mark[];
}): BoxMm {
  const { widthMm, heightMm } = sheet;
  const within = usableBox(sheet);
  if (printArea) return printArea;
  if (marks.length === 0) return within;
  const clear = marks.map(({ keepOut }) => keepOut);
  const most = (values: readonly number[], rest: number) => Math.max(rest, ...values);
  const least = (values: readonly number[], rest: number) => Math.min(rest, ...values);
  const middle = { x: widthMm / 2, y: heightMm / 2 };
  const between: BoxMm = {
    ...within,
    minY: most(
      clear.filter(({ maxY }) => maxY <= middle.y).map(({ maxY }) => maxY),
      within.minY,
    ),
    maxY: least(
      clear.filter(({ minY }) => minY >= middle.y).map(({ minY }) => minY),
      within.maxY,
    ),
  };
  const beside: BoxMm = {
    ...within,
    minX: most(
      clear.filter(({ maxX }) => maxX <= middle.x).map(({ maxX }) => maxX),
      within.minX,
    ),
    maxX: least(
      clear.filter(({ minX }) => minX >= middle.x).map(({ minX }) => minX),
      within.maxX,
    ),
  };
  return areaOfBox(between) >= areaOfBox(beside) ? between : beside;
}
