import { itemAt } from '#core/collections/itemAt.ts';
import type { PointMm } from '#core/geometry/point.ts';

/**
 * The smallest convex ring around points.
 *
 * @returns its corners, without the first repeated; the points themselves where there are fewer than three
 * Source: Andrew 1979, "Another efficient algorithm for convex hulls in two dimensions".
 * @example convexHull([...square, { x: 5, y: 5 }]).length // 4
 */
export function convexHull(points: readonly PointMm[]): readonly PointMm[] {
  if (points.length < 3) return points;
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const lower = chain(sorted);
  const upper = chain(sorted.reverse());
  return [...lower.slice(0, -1), ...upper.slice(0, -1)];
}

function chain(sorted: readonly PointMm[]): readonly PointMm[] {
  const kept: PointMm[] = [];
  for (const point of sorted) {
    while (kept.length > 1 && turn(itemAt(kept, kept.length - 2), itemAt(kept, kept.length - 1), point) <= 0)
      kept.pop();
    kept.push(point);
  }
  return kept;
}

function turn(a: PointMm, b: PointMm, c: PointMm): number {
  return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}
