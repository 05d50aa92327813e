import { distanceMm, mixPoints, type PointMm } from '#core/geometry/point.ts';

/**
 * The point this far along a polyline; beyond its ends the end.
 *
 * @example pointAlong([{ x: 0, y: 0 }, { x: 10, y: 0 }], 4) // { x: 4, y: 0 }
 */
export function pointAlong(points: readonly PointMm[], atMm: number): PointMm {
  let left = Math.max(0, atMm);
  for (let index = 1; index < points.length; index++) {
    const from = points[index - 1] as PointMm;
    const to = points[index] as PointMm;
    const length = distanceMm(from, to);
    if (left <= length) return mixPoints(from, to, length === 0 ? 0 : left / length);
    left -= length;
  }
  return points.at(-1) as PointMm;
}
