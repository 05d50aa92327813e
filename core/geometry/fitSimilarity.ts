import { NOTHING } from '#core/units/rounding.ts';
import { type Affine, mapPoint } from '#core/geometry/affine.ts';
import { AppError } from '#core/errors/appError.ts';
import { distanceMm, meanPoint, type PointMm } from '#core/geometry/point.ts';

/** A turn, a scale and a shift that carry one set of points onto another as well as can be. */
export interface FittedSimilarity {
  readonly scale: number;
  /** From x towards y. */
  readonly rotationRad: number;
  /** Where the middle of the first set moves to, minus where it was, mm. */
  readonly shift: PointMm;
  readonly affine: Affine;
  /** Root mean square of what is left over, mm. */
  readonly restMm: number;
}

/**
 * The similarity of least squares between matched points, in closed form.
 *
 * Source: Umeyama 1991, "Least-squares estimation of transformation parameters between two point patterns", in the
 * plane, without reflection.
 * @param from at least two points that do not all lie in one place
 * @param to as many, matched by position
 * @throws AppError `badInput` for too few points, unequal counts, or points in one place
 * @example fitSimilarity(square, square.map(({ x, y }) => ({ x: x + 1, y }))).shift // { x: 1, y: 0 }
 */
export function fitSimilarity(from: readonly PointMm[], to: readonly PointMm[]): FittedSimilarity {
  if (from.length < 2 || from.length !== to.length) {
    throw new AppError(
      'badInput',
      `a fit needs at least two matched points, not ${from.length} and ${to.length}`,
    );
  }
  const a = meanPoint(from);
  const b = meanPoint(to);
  let along = 0;
  let across = 0;
  let spread = 0;
  from.forEach((point, index) => {
    const goal = to[index] as PointMm;
    const [px, py, qx, qy] = [point.x - a.x, point.y - a.y, goal.x - b.x, goal.y - b.y];
    along += px * qx + py * qy;
    across += px * qy - py * qx;
    spread += px * px + py * py;
  });
  if (spread < NOTHING) throw new AppError('badInput', 'the points of a fit all lie in one place');
  const [cos, sin] = [along / spread, across / spread];
  const affine: Affine = [cos, sin, -sin, cos, b.x - cos * a.x + sin * a.y, b.y - sin * a.x - cos * a.y];
  const squares = from.reduce(
    (sum, point, index) => sum + distanceMm(mapPoint(affine, point), to[index] as PointMm) ** 2,
    0,
  );
  return {
    scale: Math.hypot(cos, sin),
    rotationRad: Math.atan2(sin, cos),
    shift: { x: b.x - a.x, y: b.y - a.y },
    affine,
    restMm: Math.sqrt(squares / from.length),
  };
}
