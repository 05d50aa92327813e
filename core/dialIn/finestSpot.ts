import type { SpotShape } from '#core/dialIn/testPiece.ts';
import { areaOfBox, boundPoints, cornersOf, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { clipLines } from '#core/geometry/clip.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/** Edge of the window that is looked through, mm: as large as the other test pieces. */
const SPOT_MM = 10;
/** Edge of the cells that detail is counted in, mm. */
const CELL_MM = 1;
/** So much line counts like a turn of one radian, mm: a fine part has many turns and much line close together. */
const LINE_PER_RADIAN_MM = 2;
/** Lines keep this far from the frame, mm, so that the frame can be lifted. */
const FRAME_MM = 1;

/**
 * The part of a drawing, 10 mm square, where the most turning and the most line lie close together, with a frame
 * around it: what tears first when the setting is wrong.
 *
 * @param lines every line that is cut, in mm; a closed one ends on its first point
 * @param name of the job
 * @returns `null` for a drawing without lines
 * @example drawFinestSpot([[{ x: 0, y: 0 }, { x: 6, y: 0 }]], 'badge')?.widthMm // 8
 */
export function drawFinestSpot(lines: readonly (readonly PointMm[])[], name: string): SpotShape | null {
  const drawn = lines.filter((points) => points.length > 1);
  if (drawn.length === 0) return null;
  const corner = findDensest(drawn);
  const window = { minX: corner.x, minY: corner.y, maxX: corner.x + SPOT_MM, maxY: corner.y + SPOT_MM };
  const inside = clipLines(drawn, window).filter((points) => points.length > 1);
  const box = joinBoxes(inside.map(boundPoints));
  const shift = ({ x, y }: PointMm) => ({ x: x - box.minX + FRAME_MM, y: y - box.minY + FRAME_MM });
  const size = {
    widthMm: box.maxX - box.minX + 2 * FRAME_MM,
    heightMm: box.maxY - box.minY + 2 * FRAME_MM,
  };
  const frame = cornersOf({ minX: 0, minY: 0, maxX: size.widthMm, maxY: size.heightMm });
  const sorted = inside.toSorted((a, b) => areaOfBox(boundPoints(a)) - areaOfBox(boundPoints(b)));
  return {
    name,
    ...size,
    lines: [...sorted.map((points) => points.map(shift)), [...frame, ...frame.slice(0, 1)]],
  };
}

/** Upper left corner of the window with the most detail, by sums over a table of cells (Crow 1984). */
function findDensest(lines: readonly (readonly PointMm[])[]): PointMm {
  const box = joinBoxes(lines.map(boundPoints));
  const columns = cellsOver(box.maxX - box.minX);
  const rows = cellsOver(box.maxY - box.minY);
  const sums = sumTable(countDetail(lines, box, columns, rows), columns, rows);
  const span = SPOT_MM / CELL_MM;
  let best = { detail: -1, column: 0, row: 0 };
  for (let row = 0; row <= Math.max(0, rows - span); row++) {
    for (let column = 0; column <= Math.max(0, columns - span); column++) {
      const right = Math.min(columns, column + span);
      const bottom = Math.min(rows, row + span);
      const at = (x: number, y: number) => sums[y * (columns + 1) + x] as number;
      const detail = at(right, bottom) - at(column, bottom) - at(right, row) + at(column, row);
      if (detail > best.detail) best = { detail, column, row };
    }
  }
  return { x: box.minX + best.column * CELL_MM, y: box.minY + best.row * CELL_MM };
}

/** No drawing is looked at in more cells than this along an edge. */
const MOST_CELLS = 2000;

function cellsOver(lengthMm: number): number {
  return Math.min(MOST_CELLS, Math.max(1, Math.ceil(lengthMm / CELL_MM)));
}

/** Turning in radians and length over {@link LINE_PER_RADIAN_MM}, cell by cell. */
function countDetail(
  lines: readonly (readonly PointMm[])[],
  { minX, minY }: BoxMm,
  columns: number,
  rows: number,
): Float64Array {
  const cells = new Float64Array(columns * rows);
  const add = ({ x, y }: PointMm, detail: number) => {
    const column = Math.floor((x - minX) / CELL_MM);
    const row = Math.floor((y - minY) / CELL_MM);
    if (column >= 0 && column < columns && row >= 0 && row < rows) {
      cells[row * columns + column] = (cells[row * columns + column] as number) + detail;
    }
  };
  for (const points of lines) {
    for (let index = 1; index < points.length; index++) {
      const from = points[index - 1] as PointMm;
      const to = points[index] as PointMm;
      const steps = Math.max(1, Math.ceil(distanceMm(from, to) / CELL_MM));
      const share = distanceMm(from, to) / LINE_PER_RADIAN_MM / steps;
      for (let step = 0; step < steps; step++) add(between(from, to, (step + 0.5) / steps), share);
      const after = points[index + 1];
      if (after) add(to, turnAt(from, to, after));
    }
  }
  return cells;
}

function between(from: PointMm, to: PointMm, share: number): PointMm {
  return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
}

/** How far the way turns at a point, 0 to pi. */
function turnAt(before: PointMm, here: PointMm, after: PointMm): number {
  const [ax, ay, bx, by] = [here.x - before.x, here.y - before.y, after.x - here.x, after.y - here.y];
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
}

/** Sums of all cells above and to the left, with a row and a column of zeros before them. */
function sumTable(cells: Float64Array, columns: number, rows: number): Float64Array {
  const sums = new Float64Array((columns + 1) * (rows + 1));
  for (let row = 0; row < rows; row++) {
    let inRow = 0;
    for (let column = 0; column < columns; column++) {
      inRow += cells[row * columns + column] as number;
      const above = sums[row * (columns + 1) + column + 1] as number;
      sums[(row + 1) * (columns + 1) + column + 1] = above + inRow;
    }
  }
  return sums;
}
