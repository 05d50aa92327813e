import { AppError } from '#core/errors/appError.ts';
import { listGrid, snapToGrid } from '#core/units/snapToGrid.ts';

/** A value on a machine's own force scale: gram-force on some machines, a bare level on others. */
export type ScaleValue = number;

/**
 * How a machine counts force. `gfAtZero + gfPerUnit * value` is the nominal force in gram-force; on a
 * gram-force scale that is the value itself. Nominal, because every machine differs from what its scale says.
 */
export interface ForceScale {
  readonly kind: 'gramForce' | 'level';
  readonly min: ScaleValue;
  readonly max: ScaleValue;
  readonly step: number;
  readonly gfAtZero: number;
  readonly gfPerUnit: number;
  /** Measured gf at values of the scale, ascending in both; they take the place of the straight line. */
  readonly measured?: readonly ScalePoint[] | undefined;
}

/** Gram-force measured, or fitted to measurements, at one value of a scale. */
export interface ScalePoint {
  readonly force: ScaleValue;
  readonly gf: number;
}

/** Newtons in one gram-force: standard gravity 9.80665 m/s². Source: NIST SP 811, appendix B.8. */
export const NEWTON_PER_GF = 9.80665e-3;

/** Gram-force to newton. @example gfToNewton(100) // 0.980665 */
export function gfToNewton(forceGf: number): number {
  return forceGf * NEWTON_PER_GF;
}

/**
 * Nominal gram-force of a value on the scale.
 *
 * @throws AppError `outOfRange` when the value is not between the scale's ends
 * @example forceToGf(10, { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 7 }) // 70
 */
export function forceToGf(force: ScaleValue, scale: ForceScale): number {
  requireForceInRange(force, scale);
  return gfOf(force, scale);
}

/**
 * The same for a value that was kept before, which a machine changed since may no longer reach: the scale is carried on
 * beyond its ends. What is to be set goes through {@link gfToForce} again and comes back inside.
 *
 * @example gfOf(10, { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 7 }) // 70
 */
export function gfOf(force: ScaleValue, scale: ForceScale): number {
  if (scale.measured && scale.measured.length > 1) return gfOnCurve(force, scale.measured);
  return scale.gfAtZero + scale.gfPerUnit * force;
}

/**
 * Whether the gf of a scale are somebody's guess: bare levels that nobody weighed. They may be off many times over, and
 * bent; gram-force is the maker's word.
 *
 * @example isGuessed({ kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 7 }) // true
 */
export function isGuessed({ kind, measured }: ForceScale): boolean {
  return kind === 'level' && (measured?.length ?? 0) < 2;
}

/**
 * The settable value nearest to a force, held inside the scale.
 *
 * @example gfToForce(72, levelScale) // 10
 */
export function gfToForce(forceGf: number, scale: ForceScale): ScaleValue {
  if (scale.measured && scale.measured.length > 1) {
    return snapForce(forceOnCurve(forceGf, scale.measured), scale);
  }
  return snapForce((forceGf - scale.gfAtZero) / scale.gfPerUnit, scale);
}

/**
 * The settable value that presses a factor harder than another of the same scale.
 *
 * @example scaleForce(10, 1.2, levelScale) // 12
 */
export function scaleForce(force: ScaleValue, factor: number, scale: ForceScale): ScaleValue {
  return gfToForce(gfOf(force, scale) * factor, scale);
}

/** Between points straight, beyond the ends as the last piece goes on. */
function gfOnCurve(force: ScaleValue, points: readonly ScalePoint[]): number {
  const [from, to] = pieceAt(points, (point) => point.force >= force);
  return from.gf + ((force - from.force) * (to.gf - from.gf)) / (to.force - from.force);
}

function forceOnCurve(gf: number, points: readonly ScalePoint[]): ScaleValue {
  const [from, to] = pieceAt(points, (point) => point.gf >= gf);
  return from.force + ((gf - from.gf) * (to.force - from.force)) / (to.gf - from.gf);
}

function pieceAt(
  points: readonly ScalePoint[],
  isPast: (point: ScalePoint) => boolean,
): readonly [ScalePoint, ScalePoint] {
  const found = points.findIndex(isPast);
  const end = found === -1 ? points.length - 1 : Math.max(1, found);
  return [points[end - 1] as ScalePoint, points[end] as ScalePoint];
}

/**
 * The nearest settable value: on the step grid that starts at `min`, inside `min..max`.
 *
 * @example snapForce(73, { kind: 'gramForce', min: 10, max: 500, step: 5, gfAtZero: 0, gfPerUnit: 1 }) // 75
 */
export function snapForce(force: number, scale: ForceScale): ScaleValue {
  return snapToGrid(force, scale);
}

/**
 * Every settable value, ascending.
 *
 * @example listForces(levelScale).length // 33
 */
export function listForces(scale: ForceScale): readonly ScaleValue[] {
  return listGrid(scale);
}

/**
 * @throws AppError `outOfRange`, saying what the machine can do
 * @example requireForceInRange(100, gramScale) === undefined // true
 */
export function requireForceInRange(force: ScaleValue, scale: ForceScale): void {
  if (Number.isFinite(force) && force >= scale.min && force <= scale.max) return;
  const unit = forceUnit(scale);
  throw new AppError(
    'outOfRange',
    `force ${force} ${unit} is outside what this machine can do: ${scale.min} to ${scale.max} ${unit}`,
    { force, min: scale.min, max: scale.max },
  );
}

/**
 * The word after a force on this scale.
 *
 * @example forceUnit({ kind: 'gramForce', min: 10, max: 500, step: 5, gfAtZero: 0, gfPerUnit: 1 }) // 'gf'
 */
export function forceUnit(scale: ForceScale): 'gf' | 'level' {
  return scale.kind === 'gramForce' ? 'gf' : 'level';
}

/**
 * A force as one says it: the word stands before a level, the unit after grams.
 *
 * @example wordForce(8, levelScale) // 'level 8'
 */
export function wordForce(force: ScaleValue, scale: Pick<ForceScale, 'kind'>): string {
  return sayForce(force, scale.kind === 'level' ? 'level' : 'gf');
}

/**
 * The same where the word is known, and for several figures.
 *
 * @example sayForce('7 to 9', 'level') // 'level 7 to 9'
 */
export function sayForce(figures: ScaleValue | string, unit: string): string {
  return unit === 'level' ? `level ${figures}` : `${figures} ${unit}`;
}
