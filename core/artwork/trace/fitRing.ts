import { CUBIC, LINE, type Contour } from '#core/geometry/contour.ts';
import { RingLine, sharpenCorners, type Direction, type Samples } from '#core/artwork/trace/ringLine.ts';
import { NOTHING } from '#core/units/rounding.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** A ring as curves, and how far its points lie from them at most. */
export interface FittedRing {
  readonly contour: Contour;
  readonly deviation: number;
}

/** How a ring is fitted, in the units of its points. */
export interface FitOptions {
  /** No point of the ring lies further from the curves. */
  readonly tolerance: number;
  /** Directions are read over so long a way: below it lies the noise of pixels. */
  readonly reach: number;
}

/** A curve is brought nearer to its points at most so many times. */
const MOST_ROUNDS = 6;
/** A fit this many times worse than asked is not worth another round. */
const HOPELESS = 16;
/** A straight line is taken where it is nearly as near as a curve may be. */
const STRAIGHT_SHARE = 0.6;
/** A control point nearer to its end than this share of the chord makes a loop. */
const LEAST_ARM_SHARE = 0.001;
/** A curve is looked for by so many points of a stretch, and then measured from all in so many rounds. */
const MOST_SAMPLES = 40;
const CHECK_ROUNDS = 3;
/** The first stretch that is tried, in points. */
const FIRST_STRETCH = 16;

/**
 * A ring of points as few lines and cubic Béziers: cut at its corners, then each stretch as long as one curve stays
 * within the tolerance. Where stretches join without a corner they share their direction.
 *
 * @param ring at least three points; the last is joined to the first
 * @returns a closed contour in the units of the points
 * Source: Schneider 1990, An algorithm for automatically fitting digitized curves, Graphics Gems I.
 * @example fitRing(square, { tolerance: 0.1, reach: 1 }).contour.isClosed // true
 */
export function fitRing(ring: readonly PointMm[], { tolerance, reach }: FitOptions): FittedRing {
  const { line, corners } = sharpenCorners(new RingLine(ring, reach));
  const first = corners[0] ?? line.sharpest();
  const stops = [...(corners.length > 0 ? corners : [first]), first + line.count];
  const path = [line.x(first), line.y(first)];
  const isSmooth = corners.length === 0;
  const deviations = stops
    .slice(1)
    .map((to, index) => fitStretch(line, { from: stops[index] as number, to, isSmooth }, tolerance, path));
  return { contour: { path, isClosed: true }, deviation: Math.max(...deviations) };
}

interface Stretch {
  readonly from: number;
  readonly to: number;
  /** It begins and ends on a smooth ring, not at a corner. */
  readonly isSmooth: boolean;
}

/** Writes the curves of a stretch between two corners. @returns how far its points lie from them at most */
function fitStretch(
  line: RingLine,
  { from, to, isSmooth }: Stretch,
  tolerance: number,
  path: number[],
): number {
  let at = from;
  let deviation = 0;
  let leaving = isSmooth ? line.through(from) : line.leaving(from, to);
  const arriving = isSmooth ? line.through(to) : line.arriving(to, from);
  while (at < to) {
    const curveTo = (end: number): Curve | null => {
      const into = end === to ? arriving : line.through(end);
      return fitCurve(line, at, end, leaving, into, tolerance);
    };
    const { end, curve } = longest(at, to, curveTo);
    if (curve.isStraight) path.push(LINE, line.x(end), line.y(end));
    else path.push(CUBIC, ...curve.controls, line.x(end), line.y(end));
    deviation = Math.max(deviation, curve.off);
    leaving = line.through(end);
    at = end;
  }
  return deviation;
}

interface Curve {
  readonly isStraight: boolean;
  /** How far the points lie from it at most. */
  readonly off: number;
  readonly controls: readonly number[];
}

/** The furthest point up to which one curve does: the whole way, or twice as far until it fails, then halved. */
function longest(
  from: number,
  to: number,
  curveTo: (end: number) => Curve | null,
): { readonly end: number; readonly curve: Curve } {
  const whole = curveTo(to);
  if (whole) return { end: to, curve: whole };
  let good = { end: from + 1, curve: { isStraight: true, off: 0, controls: [] } as Curve };
  let bad = to;
  let step = FIRST_STRETCH;
  while (good.end + step < bad) {
    const end = good.end + step;
    const curve = curveTo(end);
    if (!curve) {
      bad = end;
      break;
    }
    good = { end, curve };
    step *= 2;
  }
  while (bad - good.end > 1) {
    const end = Math.floor((good.end + bad) / 2);
    const curve = curveTo(end);
    if (curve) good = { end, curve };
    else bad = end;
  }
  return good;
}

/** One curve for the points from `from` to `to`, or `null` where none comes near enough. */
function fitCurve(
  line: RingLine,
  from: number,
  to: number,
  leaving: Direction,
  into: Direction,
  tolerance: number,
): Curve | null {
  const bow = line.bowBetween(from, to, STRAIGHT_SHARE * tolerance);
  if (bow <= STRAIGHT_SHARE * tolerance) return { isStraight: true, off: bow, controls: [] };
  // A long stretch is told by some of its points; all of them are asked before the curve is taken.
  const stride = Math.max(1, Math.floor((to - from) / MOST_SAMPLES));
  const few = line.samples(from, to, stride);
  for (let round = 0; ; round++) {
    const controls = solveControls(few, leaving, into);
    const off = bringNearer(few, controls);
    if (off <= tolerance ** 2) {
      const whole = stride === 1 ? off : offOf(line.samples(from, to, 1), controls);
      return whole <= tolerance ** 2 ? { isStraight: false, off: Math.sqrt(whole), controls } : null;
    }
    if (round === MOST_ROUNDS || off > HOPELESS * tolerance ** 2) return null;
  }
}

/** The largest distance² of points from a curve. */
function offOf(points: Samples, controls: readonly number[]): number {
  for (let round = 1; round < CHECK_ROUNDS; round++) bringNearer(points, controls);
  return bringNearer(points, controls);
}

/** The control points along both directions that come nearest to the points, by least squares. */
function solveControls({ xs, ys, places }: Samples, leaving: Direction, into: Direction): readonly number[] {
  const last = places.length - 1;
  const [x0, y0, x3, y3] = [xs[0] as number, ys[0] as number, xs[last] as number, ys[last] as number];
  let [c00, c01, c11, d0, d1] = [0, 0, 0, 0, 0];
  const turn = leaving.x * into.x + leaving.y * into.y;
  for (let k = 0; k <= last; k++) {
    const t = places[k] as number;
    const s = 1 - t;
    const b1 = 3 * t * s * s;
    const b2 = 3 * t * t * s;
    const start = s * s * s + b1;
    const end = t * t * t + b2;
    const dx = (xs[k] as number) - start * x0 - end * x3;
    const dy = (ys[k] as number) - start * y0 - end * y3;
    c00 += b1 * b1;
    c01 -= b1 * b2 * turn;
    c11 += b2 * b2;
    d0 += b1 * (leaving.x * dx + leaving.y * dy);
    d1 -= b2 * (into.x * dx + into.y * dy);
  }
  const det = c00 * c11 - c01 * c01;
  const chord = Math.hypot(x3 - x0, y3 - y0);
  let near = det > NOTHING ? (d0 * c11 - d1 * c01) / det : 0;
  let far = det > NOTHING ? (c00 * d1 - c01 * d0) / det : 0;
  // A control point behind its end makes a loop: a third of the chord is taken instead.
  const least = LEAST_ARM_SHARE * chord;
  if (near < least || far < least) near = far = chord / 3;
  return [x0 + near * leaving.x, y0 + near * leaving.y, x3 - far * into.x, y3 - far * into.y];
}

/** Moves each place to where the curve is nearest to its point (one Newton step). @returns the largest distance², before */
function bringNearer({ xs, ys, places }: Samples, controls: readonly number[]): number {
  const last = places.length - 1;
  const [ax, ay, dx, dy] = [xs[0] as number, ys[0] as number, xs[last] as number, ys[last] as number];
  const [bx, by, cx, cy] = controls as readonly [number, number, number, number];
  let most = 0;
  for (let k = 1; k < last; k++) {
    const t = places[k] as number;
    const s = 1 - t;
    const qx = s * s * s * ax + 3 * s * s * t * bx + 3 * s * t * t * cx + t * t * t * dx - (xs[k] as number);
    const qy = s * s * s * ay + 3 * s * s * t * by + 3 * s * t * t * cy + t * t * t * dy - (ys[k] as number);
    const vx = 3 * (s * s * (bx - ax) + 2 * s * t * (cx - bx) + t * t * (dx - cx));
    const vy = 3 * (s * s * (by - ay) + 2 * s * t * (cy - by) + t * t * (dy - cy));
    const wx = 6 * (s * (cx - 2 * bx + ax) + t * (dx - 2 * cx + bx));
    const wy = 6 * (s * (cy - 2 * by + ay) + t * (dy - 2 * cy + by));
    most = Math.max(most, qx * qx + qy * qy);
    const slope = vx * vx + vy * vy + qx * wx + qy * wy;
    if (Math.abs(slope) > NOTHING) {
      places[k] = Math.min(1, Math.max(0, t - (qx * vx + qy * vy) / slope));
    }
  }
  return most;
}
