import type { PointMm } from '#core/geometry/point.ts';

/** A straight or cubic Bézier segment, in mm. */
export type Segment =
  | { readonly kind: 'line'; readonly from: PointMm; readonly to: PointMm }
  | {
      readonly kind: 'cubic';
      readonly from: PointMm;
      readonly control1: PointMm;
      readonly control2: PointMm;
      readonly to: PointMm;
    };

/** One unbroken line. Each segment starts where the one before ended; at least one segment. */
export interface Contour {
  readonly segments: readonly Segment[];
  readonly isClosed: boolean;
}

/** The point at parameter t in [0, 1] of a segment. */
export function pointAt(segment: Segment, t: number): PointMm {
  const rest = 1 - t;
  if (segment.kind === 'line') {
    return { x: rest * segment.from.x + t * segment.to.x, y: rest * segment.from.y + t * segment.to.y };
  }
  const { from, control1, control2, to } = segment;
  const a = rest * rest * rest;
  const b = 3 * rest * rest * t;
  const c = 3 * rest * t * t;
  const d = t * t * t;
  return {
    x: a * from.x + b * control1.x + c * control2.x + d * to.x,
    y: a * from.y + b * control1.y + c * control2.y + d * to.y,
  };
}
