import { itemAt } from '#core/collections/itemAt.ts';
import type { CubicPoints } from '#core/drawing/splineToCubics.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** Directions at the ends of a curve, where they are given. */
export interface EndTangents {
  readonly start: PointMm | null;
  readonly end: PointMm | null;
}

/**
 * The smooth curve through points: cubics whose slope and bend go on from one to the next, parametrised by the distance
 * between points. Without a direction an end is left unbent.
 *
 * @param isClosed goes on from the last point to the first
 * @returns a cubic for each stretch; empty for fewer than two different points
 * Source: de Boor, A Practical Guide to Splines (1978), chapter IV.
 * @example splineThrough([{ x: 0, y: 0 }, { x: 3, y: 0 }], { start: null, end: null }, false)[0][1].x // 1
 */
export function splineThrough(
  given: readonly PointMm[],
  { start, end }: EndTangents,
  isClosed: boolean,
): readonly CubicPoints[] {
  const apart = given.filter(
    ({ x, y }, index) => index === 0 || x !== given[index - 1]?.x || y !== given[index - 1]?.y,
  );
  const [first] = apart;
  const last = apart.at(-1);
  if (!first || !last) return [];
  const isMet = first.x === last.x && first.y === last.y;
  const points = isClosed && !isMet ? [...apart, first] : apart;
  if (points.length < 2) return [];
  const steps = points
    .slice(1)
    .map(({ x, y }, index) => Math.hypot(x - at(points, index).x, y - at(points, index).y));
  const slopes = (pick: (point: PointMm) => number): readonly number[] => {
    const values = points.map(pick);
    if (isClosed && points.length > 3) return closedSlopes(values, steps);
    return openSlopes(values, steps, start && pick(unit(start)), end && pick(unit(end)));
  };
  const xs = slopes(({ x }) => x);
  const ys = slopes(({ y }) => y);
  return steps.map((step, index): CubicPoints => {
    const [from, to] = [at(points, index), at(points, index + 1)];
    const third = step / 3;
    return [
      from,
      { x: from.x + third * itemAt(xs, index), y: from.y + third * itemAt(ys, index) },
      { x: to.x - third * itemAt(xs, index + 1), y: to.y - third * itemAt(ys, index + 1) },
      to,
    ];
  });
}

/** Slopes at the points, so that the second derivative goes on: a system of three bands. */
function openSlopes(
  values: readonly number[],
  steps: readonly number[],
  start: number | null,
  end: number | null,
): readonly number[] {
  const last = values.length - 1;
  const rise = (index: number) => (itemAt(values, index + 1) - itemAt(values, index)) / itemAt(steps, index);
  const rows = values.map((_, index): Row => {
    if (index === 0) return start === null ? [0, 2, 1, 3 * rise(0)] : [0, 1, 0, start];
    if (index === last) return end === null ? [1, 2, 0, 3 * rise(last - 1)] : [0, 1, 0, end];
    const [before, after] = [itemAt(steps, index - 1), itemAt(steps, index)];
    return [after, 2 * (before + after), before, 3 * (after * rise(index - 1) + before * rise(index))];
  });
  return solveBands(rows);
}

/** What an end does is no longer felt so many points away: it falls to a quarter with each. */
const FAR_POINTS = 30;

/** All around: the ring is laid end to end so often that the middle round does not feel the ends. */
function closedSlopes(values: readonly number[], steps: readonly number[]): readonly number[] {
  const own = values.slice(0, -1);
  const before = Math.ceil(FAR_POINTS / own.length);
  const rounds = Array.from({ length: 2 * before + 1 });
  const laid = [...rounds.flatMap(() => own), itemAt(own, 0)];
  const slopes = openSlopes(
    laid,
    rounds.flatMap(() => steps),
    null,
    null,
  );
  return Array.from({ length: values.length }, (_, index) => itemAt(slopes, before * own.length + index));
}

type Row = readonly [before: number, own: number, after: number, value: number];

/** Source: Thomas algorithm; the rows are diagonally dominant. */
function solveBands(rows: readonly Row[]): readonly number[] {
  const factors: number[] = [];
  const values: number[] = [];
  rows.forEach(([before, own, after, value], index) => {
    const pivot = own - before * (factors[index - 1] ?? 0);
    factors.push(after / pivot);
    values.push((value - before * (values[index - 1] ?? 0)) / pivot);
  });
  const solved = new Array<number>(rows.length).fill(0);
  for (let index = rows.length - 1; index >= 0; index--) {
    solved[index] = itemAt(values, index) - itemAt(factors, index) * (solved[index + 1] ?? 0);
  }
  return solved;
}

function at(points: readonly PointMm[], index: number): PointMm {
  return itemAt(points, index);
}

function unit({ x, y }: PointMm): PointMm {
  const length = Math.hypot(x, y) || 1;
  return { x: x / length, y: y / length };
}
