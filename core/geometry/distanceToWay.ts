import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/**
 * Distance of a point from a polyline, mm.
 *
 * @example distanceToWay({ x: 5, y: 3 }, [{ x: 0, y: 0 }, { x: 10, y: 0 }]) // 3
 */
export function distanceToWay(point: PointMm, way: readonly PointMm[]): number {
  let least = Infinity;
  for (let index = 1; index < way.length; index++) {
    const [a, b] = [way[index - 1] as PointMm, way[index] as PointMm];
    const length = distanceMm(a, b);
    const share =
      length === 0
        ? 0
        : Math.max(
            0,
            Math.min(1, ((point.x - a.x) * (b.x - a.x) + (point.y - a.y) * (b.y - a.y)) / length ** 2),
          );
    least = Math.min(
      least,
      Math.hypot(a.x + share * (b.x - a.x) - point.x, a.y + share * (b.y - a.y) - point.y),
    );
  }
  return least;
}
