import { itemAt } from '#core/collections/itemAt.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import { boundPoints } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { findInner, type Toolpath } from '#core/passes/findInner.ts';
import { orderTravel, type TravelStop } from '#core/passes/orderTravel.ts';

export interface OrderOptions {
  /** Far rows of the sheet first, so that what is freed does not pass back under the rollers. */
  readonly isFarFirst: boolean;
  /** Where the head goes afterwards, or `null`. */
  readonly end: PointMm | null;
  readonly kicks: number;
}

/** Rows that are finished one after the other where the far end goes first, mm. Common practice, no source. */
const ROW_MM = 90;

/**
 * Orders routes so that what lies inside another is drawn before it and the travel between them is short.
 *
 * @param start where the head stands before
 * @returns every route once, closed ones turned to their entry, open ones reversed where that is nearer
 * @example orderToolpaths([{ contourId: 1, points: loop, isClosed: true }], { x: 0, y: 0 }, { isFarFirst: false, end: null, kicks: 0 }).length // 1
 */
export function orderToolpaths(
  routes: readonly Toolpath[],
  start: PointMm,
  { isFarFirst, end, kicks }: OrderOptions,
): readonly Toolpath[] {
  const rows = isFarFirst ? splitRows(routes) : [routes];
  const ordered: Toolpath[] = [];
  let at = start;
  rows.forEach((row, index) => {
    const last = index === rows.length - 1;
    const steps = orderTravel(
      row.map(({ isClosed, points }): TravelStop => ({
        isClosed,
        points: isClosed ? points.slice(0, -1) : points,
      })),
      at,
      { end: last ? end : null, before: findInner(row), kicks },
    );
    for (const { stop, entry } of steps) {
      const entered = enterAt(itemAt(row, stop), entry);
      ordered.push(entered);
      at = entered.points.at(-1) as PointMm;
    }
  });
  return ordered;
}

/** Rows from the far end (small y) on; what lies within another stays in its row. */
function splitRows(routes: readonly Toolpath[]): readonly (readonly Toolpath[])[] {
  const inner = findInner(routes);
  const rowOf = new Map<number, number>();
  routes.forEach((route, index) => {
    const box = boundPoints(route.points);
    const row = rowOf.get(index) ?? Math.floor(box.maxY / ROW_MM);
    rowOf.set(index, row);
    for (const one of itemAt(inner, index)) rowOf.set(one, Math.max(row, rowOf.get(one) ?? 0));
  });
  const rows = groupBy(routes.keys(), (index) => rowOf.get(index) as number);
  return [...rows]
    .sort(([a], [b]) => a - b)
    .map(([, indices]) => indices.map((index) => itemAt(routes, index)));
}

function enterAt(route: Toolpath, entry: number): Toolpath {
  if (entry === 0) return route;
  if (!route.isClosed) return { ...route, points: [...route.points].reverse() };
  const ring = route.points.slice(0, -1);
  const turned = [...ring.slice(entry), ...ring.slice(0, entry)];
  return { ...route, points: [...turned, itemAt(turned, 0)] };
}
