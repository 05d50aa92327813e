import type { PointMm } from '#core/geometry/point.ts';

/** A B-spline as drawings give it: clamped or not, rational where weights differ. */
export interface Spline {
  readonly degree: number;
  /** As many as control points + degree + 1, never falling. */
  readonly knots: readonly number[];
  readonly points: readonly PointMm[];
  /** One per control point, or empty for all alike. */
  readonly weights: readonly number[];
}

/** Four points of a cubic. */
export type CubicPoints = readonly [PointMm, PointMm, PointMm, PointMm];

/** No drawing program writes more; work grows with its square. */
const MOST_DEGREE = 25;

/** Steps per knot span where a spline is no cubic and is drawn by chords. */
const CHORDS_PER_SPAN = 32;

/**
 * A B-spline as cubics. Degrees 1 to 3 without weights are exact, by inserting knots until every span is a Bézier
 * piece; others are drawn by cubic pieces that meet the curve in place and direction at {@link CHORDS_PER_SPAN}
 * points a span.
 *
 * @returns empty when counts do not fit together, knots fall, or the degree is above {@link MOST_DEGREE}
 * Source: Boehm 1980, Inserting new knots into B-spline curves.
 */
export function splineToCubics(spline: Spline): readonly CubicPoints[] {
  const { degree, knots, points, weights } = spline;
  if (degree < 1 || degree > MOST_DEGREE) return [];
  if (points.length <= degree || knots.length !== points.length + degree + 1) return [];
  if (knots.some((knot, index) => !(knot >= (knots[index - 1] ?? -Infinity)))) return [];
  const isRational = weights.some((weight) => weight !== weights[0]);
  if (degree <= 3 && !isRational) return insertKnots(spline).map((piece) => raise(piece));
  return drawByHermite(spline);
}

/** Bézier pieces of the spline's own degree. */
function insertKnots({ degree, knots, points }: Spline): readonly (readonly PointMm[])[] {
  let u = [...knots];
  let p = [...points];
  const first = u[degree] as number;
  const last = u[p.length] as number;
  const inner = [...new Set(u.filter((knot) => knot >= first && knot <= last))];
  for (const knot of inner) {
    for (let times = u.filter((one) => one === knot).length; times < degree; times++) {
      [u, p] = insertKnot(degree, u, p, knot);
    }
  }
  const pieces: (readonly PointMm[])[] = [];
  for (const knot of inner.slice(0, -1)) {
    const at = u.lastIndexOf(knot) - degree;
    pieces.push(p.slice(at, at + degree + 1));
  }
  return pieces;
}

function insertKnot(degree: number, u: number[], p: PointMm[], knot: number): [number[], PointMm[]] {
  const span = u.findLastIndex((one) => one <= knot);
  const next: PointMm[] = [];
  for (let index = 0; index <= p.length; index++) {
    if (index <= span - degree) next.push(p[index] as PointMm);
    else if (index > span) next.push(p[index - 1] as PointMm);
    else {
      const low = u[index] as number;
      const width = (u[index + degree] as number) - low;
      const share = width === 0 ? 0 : (knot - low) / width;
      const [a, b] = [p[index - 1] as PointMm, p[Math.min(index, p.length - 1)] as PointMm];
      next.push({ x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) });
    }
  }
  return [[...u.slice(0, span + 1), knot, ...u.slice(span + 1)], next];
}

/** A Bézier piece of degree 1 to 3 as a cubic. */
function raise(piece: readonly PointMm[]): CubicPoints {
  const [a, b, c, d] = piece as [PointMm, PointMm, PointMm?, PointMm?];
  const mix = (from: PointMm, to: PointMm, share: number) => ({
    x: from.x + share * (to.x - from.x),
    y: from.y + share * (to.y - from.y),
  });
  if (!c) return [a, mix(a, b, 1 / 3), mix(a, b, 2 / 3), b];
  if (!d) return [a, mix(a, b, 2 / 3), mix(c, b, 2 / 3), c];
  return [a, b, c, d];
}

function drawByHermite(spline: Spline): readonly CubicPoints[] {
  const { degree, knots, points } = spline;
  const spans = [...new Set(knots.slice(degree, points.length + 1))];
  const pieces: CubicPoints[] = [];
  for (let index = 1; index < spans.length; index++) {
    const from = spans[index - 1] as number;
    const step = ((spans[index] as number) - from) / CHORDS_PER_SPAN;
    for (let chord = 0; chord < CHORDS_PER_SPAN; chord++) {
      const a = from + chord * step;
      const [start, end] = [evaluate(spline, a), evaluate(spline, a + step)];
      const nudge = step * 1e-4;
      const after = evaluate(spline, a + nudge);
      const before = evaluate(spline, a + step - nudge);
      const reach = step / 3 / nudge;
      pieces.push([
        start,
        { x: start.x + (after.x - start.x) * reach, y: start.y + (after.y - start.y) * reach },
        { x: end.x + (before.x - end.x) * reach, y: end.y + (before.y - end.y) * reach },
        end,
      ]);
    }
  }
  return pieces;
}

/** A point of the curve, by de Boor's algorithm on homogeneous points. Source: de Boor 1972. */
function evaluate({ degree, knots, points, weights }: Spline, at: number): PointMm {
  const last = points.length - 1;
  const found = knots.findLastIndex((knot, index) => knot <= at && index <= last);
  const span = Math.max(degree, found);
  const d = Array.from({ length: degree + 1 }, (_, index) => {
    const point = points[span - degree + index] as PointMm;
    const weight = weights[span - degree + index] ?? 1;
    return { x: point.x * weight, y: point.y * weight, weight };
  });
  for (let round = 1; round <= degree; round++) {
    for (let index = degree; index >= round; index--) {
      const low = knots[span - degree + index] as number;
      const width = (knots[span + 1 + index - round] as number) - low;
      const share = width === 0 ? 0 : (at - low) / width;
      const [a, b] = [d[index - 1] as (typeof d)[number], d[index] as (typeof d)[number]];
      d[index] = {
        x: a.x + share * (b.x - a.x),
        y: a.y + share * (b.y - a.y),
        weight: a.weight + share * (b.weight - a.weight),
      };
    }
  }
  const { x, y, weight } = d[degree] as (typeof d)[number];
  return { x: x / weight, y: y / weight };
}
