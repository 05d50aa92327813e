import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceMm, mixPoints, type PointMm } from '#core/geometry/point.ts';

/**
 * Points at even distances along a polyline, the first half a distance from its start: for marks on a line.
 *
 * @param everyMm distance between marks, above 0
 * @returns at least one point for any polyline of two points
 * @example dotsAlong([{ x: 0, y: 0 }, { x: 10, y: 0 }], 5)[0] // { x: 2.5, y: 0 }
 */
export function dotsAlong(points: readonly PointMm[], everyMm: number): readonly PointMm[] {
  const total = measurePolyline(points);
  const count = Math.max(1, Math.round(total / everyMm));
  const spacing = total / count;
  const dots: PointMm[] = [];
  let passed = 0;
  for (let index = 1; index < points.length; index++) {
    const from = points[index - 1] as PointMm;
    const to = points[index] as PointMm;
    const length = distanceMm(from, to);
    while (dots.length < count && (dots.length + 0.5) * spacing <= passed + length) {
      dots.push(mixPoints(from, to, length === 0 ? 0 : ((dots.length + 0.5) * spacing - passed) / length));
    }
    passed += length;
  }
  return dots;
}
