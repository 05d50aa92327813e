import { itemAt } from '#core/collections/itemAt.ts';
import { distanceMm, mixPoints, type PointMm } from '#core/geometry/point.ts';

/**
 * A closed polyline drawn on past its start, so that the corner where it began closes.
 *
 * @param ring ends on its first point
 * @param overcutMm how far past the start, 0 or more; never more than once around
 * @example extendOvercut(loop, 2).at(-1) // { x: 2, y: 0 }
 */
export function extendOvercut(ring: readonly PointMm[], overcutMm: number): readonly PointMm[] {
  const extended = [...ring];
  let left = overcutMm;
  for (let index = 1; index < ring.length && left > 0; index++) {
    const from = itemAt(ring, index - 1);
    const to = itemAt(ring, index);
    const length = distanceMm(from, to);
    extended.push(length <= left ? to : mixPoints(from, to, left / length));
    left -= length;
  }
  return extended;
}
