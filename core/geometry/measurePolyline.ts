import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/**
 * Length of a polyline in mm; 0 for fewer than two points.
 *
 * @example measurePolyline(loop) // 40
 */
export function measurePolyline(points: readonly PointMm[]): number {
  return points.slice(1).reduce((sum, point, index) => sum + distanceMm(points[index] as PointMm, point), 0);
}
