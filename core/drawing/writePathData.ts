import { segmentsOf, startOf, type Contour } from '#core/geometry/contour.ts';
import type { Rings } from '#core/geometry/clip.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** SVG path data of a contour, in mm to 0.001. @example writePathData(squareContour) // 'M0 0L10 0L10 10L0 10L0 0Z' */
export function writePathData(contour: Contour): string {
  const parts = [`M${at(startOf(contour))}`];
  for (const segment of segmentsOf(contour)) {
    parts.push(
      segment.kind === 'line'
        ? `L${at(segment.to)}`
        : `C${at(segment.control1)} ${at(segment.control2)} ${at(segment.to)}`,
    );
  }
  return parts.join('') + (contour.isClosed ? 'Z' : '');
}

/**
 * SVG path data of a polyline.
 *
 * @example writePolylineData(triangle) // 'M20 0L30 0L20 10'
 */
export function writePolylineData(points: readonly PointMm[]): string {
  return points.map((point, index) => `${index === 0 ? 'M' : 'L'}${at(point)}`).join('');
}

/**
 * SVG path data of rings, holes among them.
 *
 * @example writeRingsData([triangle]) // 'M20 0L30 0L20 10Z'
 */
export function writeRingsData(rings: Rings): string {
  return rings.map((ring) => `${writePolylineData(ring)}Z`).join('');
}

function at({ x, y }: PointMm): string {
  return `${Number(x.toFixed(3))} ${Number(y.toFixed(3))}`;
}
