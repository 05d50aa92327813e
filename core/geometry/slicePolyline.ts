import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceMm, mixPoints, type PointMm } from '#core/geometry/point.ts';

/**
 * The piece of a polyline between two shares of its length.
 *
 * @param from share of the length, 0 to 1
 * @param to share of the length, not below `from`
 * @example slicePolyline(loop, 0, 0.25).at(-1) // { x: 10, y: 0 }
 */
export function slicePolyline(points: readonly PointMm[], from: number, to: number): readonly PointMm[] {
  const total = measurePolyline(points);
  const start = from * total;
  const end = to * total;
  const piece: PointMm[] = [];
  let passed = 0;
  for (let index = 1; index < points.length; index++) {
    const a = points[index - 1] as PointMm;
    const b = points[index] as PointMm;
    const length = distanceMm(a, b);
    if (passed + length >= start && passed <= end && length > 0) {
      const enter = Math.max(0, (start - passed) / length);
      const leave = Math.min(1, (end - passed) / length);
      if (piece.length === 0) piece.push(mixPoints(a, b, enter));
      piece.push(mixPoints(a, b, leave));
    }
    passed += length;
  }
  return piece;
}
