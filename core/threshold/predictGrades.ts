import { NOTHING } from '#core/units/rounding.ts';
import { tabledCdf } from '#core/threshold/numerics/tabledNormal.ts';
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
  const start = draw * edges;
  const narrow = 1 / (posterior.spreads[draw] as number);
  let reached = 1;
  for (let edge = 0; edge < edges; edge++) {
    const beyond = tabledCdf((lnForce - (posterior.boundaries[start + edge] as number)) * narrow);
    out[edge] = reached - beyond;
    reached = beyond;
  }
  out[edges] = reached;
  return out;
}
