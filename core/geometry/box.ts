import { NOTHING } from '#core/units/rounding.ts';
import { pointAt, segmentsOf, type Contour, type Segment } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** An upright rectangle in mm. */
export interface BoxMm {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/**
 * The exact bounding box: curve extremes are found as roots of the derivative, not by sampling.
 *
 * @example boundContour(drawing.contours[1].contour) // { minX: 15, minY: 15, maxX: 25, maxY: 25 }
 */
export function boundContour(contour: Contour): BoxMm {
  return boundPoints(segmentsOf(contour).flatMap(extremesOf));
}

/**
 * The box around points, which must be at least one.
 *
 * @example boundPoints([{ x: 1, y: 5 }, { x: 4, y: 2 }]) // { minX: 1, minY: 2, maxX: 4, maxY: 5 }
 */
export function boundPoints(points: readonly PointMm[]): BoxMm {
  let box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const { x, y } of points) {
    box = {
      minX: Math.min(box.minX, x),
      minY: Math.min(box.minY, y),
      maxX: Math.max(box.maxX, x),
      maxY: Math.max(box.maxY, y),
    };
  }
  return box;
}

/**
 * The box around boxes, which must be at least one.
 *
 * @example joinBoxes([{ minX: 0, minY: 0, maxX: 1, maxY: 1 }, { minX: 2, minY: 2, maxX: 3, maxY: 3 }]).maxX // 3
 */
export function joinBoxes(boxes: readonly BoxMm[]): BoxMm {
  return {
    minX: boxes.reduce((least, box) => Math.min(least, box.minX), Infinity),
    minY: boxes.reduce((least, box) => Math.min(least, box.minY), Infinity),
    maxX: boxes.reduce((most, box) => Math.max(most, box.maxX), -Infinity),
    maxY: boxes.reduce((most, box) => Math.max(most, box.maxY), -Infinity),
  };
}

/**
 * Whether one box lies in another, edges included.
 *
 * @example encloses({ minX: 0, minY: 0, maxX: 9, maxY: 9 }, { minX: 1, minY: 1, maxX: 9, maxY: 8 }) // true
 */
export function encloses(outer: BoxMm, inner: BoxMm): boolean {
  return (
    outer.minX <= inner.minX &&
    outer.minY <= inner.minY &&
    outer.maxX >= inner.maxX &&
    outer.maxY >= inner.maxY
  );
}

/**
 * In mm².
 *
 * @example areaOfBox({ minX: 0, minY: 0, maxX: 3, maxY: 4 }) // 12
 */
export function areaOfBox({ minX, minY, maxX, maxY }: BoxMm): number {
  return (maxX - minX) * (maxY - minY);
}

/**
 *
 *
 * @example middleOf({ minX: 0, minY: 0, maxX: 4, maxY: 2 }) // { x: 2, y: 1 }
 */
export function middleOf({ minX, minY, maxX, maxY }: BoxMm): PointMm {
  return { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
}

/**
 * The corners from the upper left one on, clockwise on screen.
 *
 * @example cornersOf({ minX: 0, minY: 0, maxX: 4, maxY: 2 })[2] // { x: 4, y: 2 }
 */
export function cornersOf({ minX, minY, maxX, maxY }: BoxMm): readonly PointMm[] {
  return [
    { x: minX, y: minY },
    { x: maxX, y: minY },
    { x: maxX, y: maxY },
    { x: minX, y: maxY },
  ];
}

/**
 * A box with a rim around it.
 *
 * @example growBox({ minX: 1, minY: 1, maxX: 2, maxY: 2 }, 1) // { minX: 0, minY: 0, maxX: 3, maxY: 3 }
 */
export function growBox({ minX, minY, maxX, maxY }: BoxMm, byMm: number): BoxMm {
  return { minX: minX - byMm, minY: minY - byMm, maxX: maxX + byMm, maxY: maxY + byMm };
}

/**
 * Whether two boxes share a point.
 *
 * @example overlap({ minX: 0, minY: 0, maxX: 1, maxY: 1 }, { minX: 2, minY: 0, maxX: 3, maxY: 1 }) // false
 */
export function overlap(a: BoxMm, b: BoxMm): boolean {
  return a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY;
}

function extremesOf(segment: Segment): readonly PointMm[] {
  if (segment.kind === 'line') return [segment.from, segment.to];
  const { from, control1, control2, to } = segment;
  const turns = [
    ...derivativeRoots(from.x, control1.x, control2.x, to.x),
    ...derivativeRoots(from.y, control1.y, control2.y, to.y),
  ];
  return [from, to, ...turns.map((t) => pointAt(segment, t))];
}

/** Parameters inside (0, 1) where one coordinate of a cubic stands still. */
function derivativeRoots(p0: number, p1: number, p2: number, p3: number): readonly number[] {
  const a = p3 - 3 * p2 + 3 * p1 - p0;
  const b = 2 * (p2 - 2 * p1 + p0);
  const c = p1 - p0;
  return solveQuadratic(a, b, c).filter((t) => t > 0 && t < 1);
}

/** Real roots of a t² + b t + c, by the form that loses no digits when a is small. */
function solveQuadratic(a: number, b: number, c: number): readonly number[] {
  const scale = Math.max(Math.abs(a), Math.abs(b), Math.abs(c));
  if (scale === 0) return [];
  if (Math.abs(a) < NOTHING * scale) return b === 0 ? [] : [-c / b];
  const discriminant = b * b - 4 * a * c;
  if (discriminant < 0) return [];
  const q = -0.5 * (b + (b < 0 ? -1 : 1) * Math.sqrt(discriminant));
  return q === 0 ? [0] : [q / a, c / q];
}
