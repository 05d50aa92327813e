import type { PointMm } from '#core/geometry/point.ts';

/**
 * One unbroken line in mm, packed into plain numbers: where it starts (x, y), then for each segment either
 * `LINE, x, y` or `CUBIC, x1, y1, x2, y2, x, y` with the two control points of a cubic Bézier before its end. At least
 * one segment. A large drawing is read, kept and handed to another thread without an object for every point.
 *
 * @example { path: [0, 0, LINE, 10, 0, LINE, 10, 5], isClosed: false } // an angle of 10 mm and 5 mm
 */
export interface Contour {
  readonly path: readonly number[];
  readonly isClosed: boolean;
}

/** Marks a straight segment in a packed path: its end follows. */
export const LINE = 0;
/** Marks a cubic segment in a packed path: two control points and its end follow. */
export const CUBIC = 1;
/** Numbers that a straight segment takes in a packed path, its mark included. */
export const LINE_STEP = 3;
/** Numbers that a cubic segment takes in a packed path, its mark included. */
export const CUBIC_STEP = 7;

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

/**
 * The segments of a contour one by one: each starts where the one before ended.
 *
 * @example segmentsOf(packSegments([{ kind: 'line', from: { x: 0, y: 0 }, to: { x: 1, y: 0 } }], false)).length // 1
 */
export function segmentsOf({ path }: Contour): readonly Segment[] {
  const segments: Segment[] = [];
  let from = pointIn(path, 0);
  for (let at = 2; at < path.length;) {
    if (path[at] === LINE) {
      const to = pointIn(path, at + 1);
      segments.push({ kind: 'line', from, to });
      from = to;
      at += LINE_STEP;
    } else {
      const to = pointIn(path, at + 5);
      segments.push({
        kind: 'cubic',
        from,
        control1: pointIn(path, at + 1),
        control2: pointIn(path, at + 3),
        to,
      });
      from = to;
      at += CUBIC_STEP;
    }
  }
  return segments;
}

/**
 * Packs segments, at least one, that follow each other.
 *
 * @example packSegments([{ kind: 'line', from: { x: 0, y: 0 }, to: { x: 1, y: 0 } }], false).isClosed // false
 */
export function packSegments(segments: readonly Segment[], isClosed: boolean): Contour {
  const { x, y } = (segments[0] as Segment).from;
  const path = [x, y];
  for (const segment of segments) {
    if (segment.kind === 'line') path.push(LINE, segment.to.x, segment.to.y);
    else {
      const { control1, control2, to } = segment;
      path.push(CUBIC, control1.x, control1.y, control2.x, control2.y, to.x, to.y);
    }
  }
  return { path, isClosed };
}

/**
 * Where a contour begins.
 *
 * @example startOf({ path: [1, 2, 0, 5, 6], isClosed: false }) // { x: 1, y: 2 }
 */
export function startOf({ path }: Contour): PointMm {
  return pointIn(path, 0);
}

/**
 * Where a contour ends: its last segment ends there, whether it is closed or not.
 *
 * @example endOf({ path: [1, 2, 0, 5, 6], isClosed: false }) // { x: 5, y: 6 }
 */
export function endOf({ path }: Contour): PointMm {
  return pointIn(path, path.length - 2);
}

/**
 * The point whose x stands at a place of a packed path.
 *
 * @example pointIn([1, 2, 3, 4], 2) // { x: 3, y: 4 }
 */
export function pointIn(path: readonly number[], at: number): PointMm {
  return { x: path[at] as number, y: path[at + 1] as number };
}

/**
 * The point at parameter t in [0, 1] of a segment.
 *
 * @example pointAt({ kind: 'line', from: { x: 0, y: 0 }, to: { x: 10, y: 0 } }, 0.25) // { x: 2.5, y: 0 }
 */
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
