import type { Contour, Segment } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** x' = a x + c y + e, y' = b x + d y + f: the six numbers of an SVG matrix, in its order. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Affine = [1, 0, 0, 1, 0, 0];

/** The map that does `inner` first and `outer` after it. */
export function composeAffine(outer: Affine, inner: Affine): Affine {
  const [a, b, c, d, e, f] = outer;
  const [p, q, r, s, t, u] = inner;
  return [a * p + c * q, b * p + d * q, a * r + c * s, b * r + d * s, a * t + c * u + e, b * t + d * u + f];
}

/** The image of a point. */
export function mapPoint([a, b, c, d, e, f]: Affine, point: PointMm): PointMm {
  return { x: a * point.x + c * point.y + e, y: b * point.x + d * point.y + f };
}

/** The image of a contour: exact, since Bézier segments map by their control points. */
export function mapContour(affine: Affine, contour: Contour): Contour {
  return {
    isClosed: contour.isClosed,
    segments: contour.segments.map((segment) => mapSegment(affine, segment)),
  };
}

function mapSegment(affine: Affine, segment: Segment): Segment {
  const from = mapPoint(affine, segment.from);
  const to = mapPoint(affine, segment.to);
  if (segment.kind === 'line') return { kind: 'line', from, to };
  const control1 = mapPoint(affine, segment.control1);
  const control2 = mapPoint(affine, segment.control2);
  return { kind: 'cubic', from, control1, control2, to };
}
