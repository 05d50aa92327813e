import { segmentsOf, type Contour, type Segment } from '#core/geometry/contour.ts';
import { distanceMm } from '#core/geometry/point.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';

/** Nodes and weights of 8-point Gauss-Legendre quadrature on [-1, 1]. Source: Abramowitz and Stegun, table 25.4. */
const GAUSS: readonly (readonly [number, number])[] = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
];
const DEEPEST = 16;

/**
 * Arc length in mm, to 1e-6 mm.
 *
 * @example measureContour(squareContour) // 40
 */
export function measureContour(contour: Contour): number {
  return segmentsOf(contour).reduce((sum, segment) => sum + measureSegment(segment), 0);
}

function measureSegment(segment: Segment): number {
  if (segment.kind === 'line') return distanceMm(segment.from, segment.to);
  return refine(segment, 0, 1, quadrature(segment, 0, 1), 0);
}

/** Halves the interval until both halves agree with the whole: cusps need it, smooth arcs never do. */
function refine(segment: Segment, from: number, to: number, whole: number, depth: number): number {
  const middle = (from + to) / 2;
  const left = quadrature(segment, from, middle);
  const right = quadrature(segment, middle, to);
  if (Math.abs(left + right - whole) < LENGTH_MM * 0.01 || depth === DEEPEST) return left + right;
  return refine(segment, from, middle, left, depth + 1) + refine(segment, middle, to, right, depth + 1);
}

function quadrature(segment: Segment, from: number, to: number): number {
  const half = (to - from) / 2;
  const middle = (from + to) / 2;
  return GAUSS.reduce(
    (sum, [node, weight]) =>
      sum + weight * half * (speedAt(segment, middle - half * node) + speedAt(segment, middle + half * node)),
    0,
  );
}

function speedAt(segment: Segment, t: number): number {
  if (segment.kind === 'line') return distanceMm(segment.from, segment.to);
  const { from, control1, control2, to } = segment;
  const rest = 1 - t;
  const along = (p0: number, p1: number, p2: number, p3: number) =>
    3 * (rest * rest * (p1 - p0) + 2 * rest * t * (p2 - p1) + t * t * (p3 - p2));
  return Math.hypot(along(from.x, control1.x, control2.x, to.x), along(from.y, control1.y, control2.y, to.y));
}
