import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/** A place on a contour where tabs do not belong, by its distance from the start. */
export interface ContourCorner {
  readonly atMm: number;
  /** How far the direction turns there, radians, 0 to pi. */
  readonly turnRad: number;
}

/** A turn within this length is one corner or a curve too tight for a tab, mm. */
const WINDOW_MM = 1.5;
/** Directions are compared over this step, mm. */
const STEP_MM = 0.25;

/**
 * Corners and tight curves of a ring: where the direction turns by more than `sharpRad` within 1.5 mm.
 *
 * @param ring ends on its first point
 * @param sharpRad 40 degrees unless said otherwise
 * @returns one entry a corner, at its sharpest place, by distance along the ring
 * @example findCorners(loop).map(({ atMm }) => atMm) // [0, 10, 20, 30]
 */
export function findCorners(
  ring: readonly PointMm[],
  sharpRad = (40 * Math.PI) / 180,
): readonly ContourCorner[] {
  const turns = listTurns(ring);
  const total = turns.lengthMm;
  if (total === 0) return [];
  const cells = Math.max(8, Math.ceil(total / STEP_MM));
  const sums = new Float64Array(cells);
  for (const { atMm, turnRad } of turns.list) {
    const cell = Math.min(cells - 1, Math.round((atMm / total) * cells) % cells);
    sums[cell] = itemAt(sums, cell) + turnRad;
  }
  const half = Math.max(1, Math.round(WINDOW_MM / 2 / (total / cells)));
  const windows = sums.map((_, index) => Math.abs(windowSum(sums, index, half)));
  const corners: ContourCorner[] = [];
  windows.forEach((turn, index) => {
    if (turn < sharpRad) return;
    // Of a run of cells about one corner the middle of the highest stands for all.
    for (let by = 1; by <= half; by++) {
      const [before, after] = [at(windows, index - by), at(windows, index + by)];
      if (before > turn + ROUNDING || after > turn + ROUNDING) return;
    }
    let width = 0;
    while (width < 2 * half && Math.abs(at(windows, index + width + 1) - turn) < ROUNDING) width++;
    if (Math.abs(at(windows, index - 1) - turn) < ROUNDING) return;
    const place = ((index + width / 2) / cells) * total;
    corners.push({ atMm: place % total, turnRad: turn });
  });
  return [...corners].sort((a, b) => a.atMm - b.atMm);
}

function listTurns(ring: readonly PointMm[]) {
  const list: ContourCorner[] = [];
  let atMm = 0;
  const count = ring.length - 1;
  for (let index = 0; index < count; index++) {
    const before = itemAt(ring, (index - 1 + count) % count);
    const here = itemAt(ring, index);
    const after = itemAt(ring, index + 1);
    list.push({ atMm, turnRad: turnAt(before, here, after) });
    atMm += distanceMm(here, after);
  }
  return { list, lengthMm: atMm };
}

/** Signed change of direction, -pi to pi. */
function turnAt(before: PointMm, here: PointMm, after: PointMm): number {
  const [ax, ay] = [here.x - before.x, here.y - before.y];
  const [bx, by] = [after.x - here.x, after.y - here.y];
  return Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
}

function windowSum(sums: Float64Array, index: number, half: number): number {
  let sum = 0;
  for (let by = -half; by <= half; by++) sum += at(sums, index + by);
  return sum;
}

function at(values: Float64Array, index: number): number {
  const count = values.length;
  return itemAt(values, ((index % count) + count) % count);
}
