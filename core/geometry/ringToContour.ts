import type { Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { simplifyRing } from '#core/geometry/simplifyRing.ts';

/** A ring of points as a closed contour of lines, without points that lie on the way. */
export function ringToContour(ring: readonly PointMm[]): Contour {
  const points = simplifyRing(ring);
  return {
    isClosed: true,
    segments: points.map((from, index) => ({
      kind: 'line' as const,
      from,
      to: points[(index + 1) % points.length] as PointMm,
    })),
  };
}
