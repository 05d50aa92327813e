import { pointAt, segmentsOf, startOf, type Contour, type Segment } from '#core/geometry/contour.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { FLATTEN_MM, SAME_POINT_MM } from '#core/geometry/tolerances.ts';

/**
 * The polyline that stays within a tolerance of a contour. A closed contour ends on its first point.
 *
 * @param toleranceMm greatest distance between curve and polyline, above 0
 * @returns no two neighbours closer than the same-point tolerance; a single point where the whole contour is smaller
 * @example flattenContour(squareContour).length // 5
 */
export function flattenContour(contour: Contour, toleranceMm: number = FLATTEN_MM): readonly PointMm[] {
  const first = startOf(contour);
  const points: PointMm[] = [first];
  for (const segment of segmentsOf(contour)) {
    const count = stepsFor(segment, toleranceMm);
    for (let step = 1; step <= count; step++) {
      const point = step === count ? segment.to : pointAt(segment, step / count);
      if (distanceMm(points.at(-1) as PointMm, point) >= SAME_POINT_MM) points.push(point);
    }
  }
  return contour.isClosed ? closeRing(points, first) : points;
}

/**
 * How many equal parameter steps keep a cubic within the tolerance: its second derivative is at most
 * 6 max |second difference of control points|, and a chord of length h errs by at most h² / 8 times that.
 * Source: Filip, Magedson and Markot 1986, Surface algorithms using bounds on derivatives.
 */
function stepsFor(segment: Segment, toleranceMm: number): number {
  if (segment.kind === 'line') return 1;
  const { from, control1, control2, to } = segment;
  const bend1 = Math.hypot(from.x - 2 * control1.x + control2.x, from.y - 2 * control1.y + control2.y);
  const bend2 = Math.hypot(control1.x - 2 * control2.x + to.x, control1.y - 2 * control2.y + to.y);
  return Math.max(1, Math.ceil(Math.sqrt((6 * Math.max(bend1, bend2)) / (8 * toleranceMm))));
}

function closeRing(points: PointMm[], first: PointMm): readonly PointMm[] {
  const last = points.at(-1) as PointMm;
  if (last.x === first.x && last.y === first.y) return points;
  if (points.length > 2 && distanceMm(last, first) < SAME_POINT_MM) points.pop();
  return [...points, first];
}
