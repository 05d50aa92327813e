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
export const MOST_DEGREE = 25;

/** Steps per knot span where a spline is no cubic and is drawn by chords. */
const CHORDS_PER_SPAN = 32;
/** The slope at an end is taken over this share of a chord. */
const NUDGE_SHARE = 1e-4;

/**
 * A B-spline as cubics. Degrees 1 to 3 without weights are exact: every span is a Bézier piece; others are drawn by cubic pieces that meet the curve in place and direction at {@link CHORDS_PER_SPAN}
 * points a span.
 *
 * @returns empty when counts do not fit together, knots fall, or the degree is above {@link MOST_DEGREE}
 * Source: Ramshaw 1989, Blossoms are polar forms; de Boor 1972, On calculating with B-splines.
 * @example splineToCubics({ degree: 1, knots: [0, 0, 1, 1], points: [{ x: 0, y: 0 }, { x: 3, y: 0 }], weights: [] })[0][3] // { x: 3, y: 0 }
 */
export function splineToCubics(spline: Spline): readonly CubicPoints[] {
  const { degree, knots, points, weights } = spline;
  if (degree < 1 || degree > MOST_DEGREE) return [];
  if (points.length <= degree || knots.length !== points.length + degree + 1) return [];
  if (knots.some((knot, index) => !(knot >= (knots[index - 1] ?? -Infinity)))) return [];
  const isRational = weights.some((weight) => weight !== weights[0]);
  if (degree <= 3 && !isRational) return listBezierPieces(spline).map((piece) => raise(piece));
  return drawByHermite(spline);
}

/** Places of the knots that begin a span of some width. */
function* listSpans({ degree, knots, points }: Spline): Generator<number> {
  for (let span = degree; span < points.length; span++) {
    if ((knots[span] as number) < (knots[span + 1] as number)) yield span;
  }
}

/** Bézier pieces of the spline's own degree: corners of a piece are values of its blossom at the ends of its span. */
function listBezierPieces(spline: Spline): readonly (readonly PointMm[])[] {
  const { degree, knots } = spline;
  return Array.from(listSpans(spline), (span) => {
    const [from, to] = [knots[span] as number, knots[span + 1] as number];
    return Array.from({ length: degree + 1 }, (_, corner) => {
      const at = Array.from({ length: degree }, (_, index) => (index < degree - corner ? from : to));
      return blossom(spline, span, at);
    });
  });
}

/**
 * The value of a span's blossom (its polar form), of homogeneous points; all arguments alike give the curve itself.
 *
 * Source: de Boor 1972; Ramshaw 1989, Blossoms are polar forms.
 */
function blossom({ degree, knots, points, weights }: Spline, span: number, at: readonly number[]): PointMm {
  const d = Array.from({ length: degree + 1 }, (_, index) => {
    const point = points[span - degree + index] as PointMm;
    const weight = weights[span - degree + index] ?? 1;
    return { x: point.x * weight, y: point.y * weight, weight };
  });
  for (let round = 1; round <= degree; round++) {
    for (let index = degree; index >= round; index--) {
      const low = knots[span - degree + index] as number;
      const width = (knots[span + 1 + index - round] as number) - low;
      const share = width === 0 ? 0 : ((at[round - 1] as number) - low) / width;
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
  const { degree, knots } = spline;
  const pieces: CubicPoints[] = [];
  for (const span of listSpans(spline)) {
    const on = (at: number) =>
      blossom(
        spline,
        span,
        Array.from({ length: degree }, () => at),
      );
    const from = knots[span] as number;
    const step = ((knots[span + 1] as number) - from) / CHORDS_PER_SPAN;
    const nudge = step * NUDGE_SHARE;
    const reach = step / 3 / nudge;
    for (let chord = 0; chord < CHORDS_PER_SPAN; chord++) {
      const a = from + chord * step;
      const [start, end, after, before] = [on(a), on(a + step), on(a + nudge), on(a + step - nudge)];
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
