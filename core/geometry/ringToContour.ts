import { LINE, type Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { simplifyRing } from '#core/geometry/simplifyRing.ts';

/**
 * A ring of points as a closed contour of lines, without points that lie on the way.
 *
 * @example ringToContour(square).isClosed // true
 */
export function ringToContour(ring: readonly PointMm[]): Contour {
  const points = simplifyRing(ring);
  const { x, y } = points[0] as PointMm;
  return {
    isClosed: true,
    path: [x, y, ...[...points.slice(1), { x, y }].flatMap((to) => [LINE, to.x, to.y])],
  };
}
