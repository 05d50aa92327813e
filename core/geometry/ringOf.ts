import type { Contour } from '#core/geometry/contour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { turnAlike } from '#core/geometry/polygon.ts';

/**
 * A closed contour as a ring to clip with: its first point is not repeated, and it turns as all others do, so that two
 * that lie over each other cover what either covers, however they were drawn.
 *
 * @param toleranceMm greatest distance between curve and ring; that of a cut line when it is left out
 * @example ringOf(squareContour).length // 4
 */
export function ringOf(contour: Contour, toleranceMm?: number): readonly PointMm[] {
  return turnAlike(flattenContour(contour, toleranceMm).slice(0, -1));
}
