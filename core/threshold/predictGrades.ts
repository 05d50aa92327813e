import { NOTHING } from '#core/units/rounding.ts';
import { FAST_PROBIT } from '#core/threshold/numerics/fastProbit.ts';
import { gradeIntervals } from '#core/threshold/sheetModel/gradeIntervals.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';

/**
 * P(true grade | force) by the posterior, in the order of `posterior.grades`; sums to 1.
 *
 * @param forceGf nominal gram-force, above 0
 * @example predictGrades(posterior, 72).length // 9
 */
export function predictGrades(posterior: ThresholdPosterior, forceGf: number): Float64Array {
  const count = posterior.grades.length;
  const mean = new Float64Array(count);
  const one = new Float64Array(count);
  for (let draw = 0; draw < posterior.drawCount; draw++) {
    const weight = posterior.weights[draw] as number;
    if (weight < NOTHING) continue;
    gradesOfDraw(posterior, draw, Math.log(forceGf), one);
    for (let grade = 0; grade < count; grade++)
      mean[grade] = (mean[grade] as number) + weight * (one[grade] as number);
  }
  return mean;
}

/** Asked tens of thousands of times for one proposal: the layered sheet's indexes have a place of their own. */
const LAYERED_EDGES = 8;
const LAYERED_SCRATCH = new Float64Array(LAYERED_EDGES);

/**
 * P(true grade | ln force) in one draw, written to `out`.
 *
 * @example gradesOfDraw(posterior, 0, Math.log(72), new Float64Array(9)).length // 9
 */
export function gradesOfDraw(
  posterior: ThresholdPosterior,
  draw: number,
  lnForce: number,
  out: Float64Array,
): Float64Array {
  const edges = posterior.grades.length - 1;
  const spread = posterior.spreads[draw] as number;
  const indexes = edges === LAYERED_EDGES ? LAYERED_SCRATCH : new Float64Array(edges);
  for (let edge = 0; edge < edges; edge++) {
    indexes[edge] = (lnForce - (posterior.boundaries[draw * edges + edge] as number)) / spread;
  }
  return gradeIntervals(FAST_PROBIT, indexes, out);
}
