import { itemAt } from '#core/collections/itemAt.ts';
import Flatbush from 'flatbush';
import { boundPoints, encloses } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside, signedAreaMm2 } from '#core/geometry/polygon.ts';

/** A line to be drawn as a polyline; a closed one ends on its first point and may start at any vertex. */
export interface Toolpath {
  readonly contourId: number;
  readonly points: readonly PointMm[];
  readonly isClosed: boolean;
}

/**
 * For each route the indices of those that lie inside it; empty for open ones.
 *
 * @example findInner([{ contourId: 1, points: loop, isClosed: true }, { contourId: 2, points: [{ x: 4, y: 4 }, { x: 6, y: 4 }, { x: 4, y: 6 }, { x: 4, y: 4 }], isClosed: true }]) // [[1], []]
 */
export function findInner(routes: readonly Toolpath[]): readonly (readonly number[])[] {
  if (routes.length === 0) return [];
  const boxes = routes.map((route) => boundPoints(route.points));
  const areas = routes.map((route) => (route.isClosed ? Math.abs(signedAreaMm2(route.points)) : 0));
  const tree = new Flatbush(routes.length);
  for (const { minX, minY, maxX, maxY } of boxes) tree.add(minX, minY, maxX, maxY);
  tree.finish();
  return routes.map((outer, index) => {
    if (!outer.isClosed) return [];
    const { minX, minY, maxX, maxY } = itemAt(boxes, index);
    return tree.search(minX, minY, maxX, maxY).filter((inner) => {
      if (inner === index || itemAt(areas, index) <= itemAt(areas, inner)) return false;
      if (!encloses(itemAt(boxes, index), itemAt(boxes, inner))) return false;
      return isInside(itemAt(routes, inner).points[0] as PointMm, outer.points);
    });
  });
}
