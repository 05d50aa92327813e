import { logSumExp } from '#core/threshold/numerics/logSumExp.ts';
import { logPrior, type NormalPrior } from '#core/threshold/numerics/normalPrior.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { SheetBelief } from '#core/threshold/trial.ts';

/** A belief with its tails, as a mixture of normals. */
export interface BeliefMixture {
  /** Its log density up to a constant. */
  readonly logDensity: (parameters: Float64Array) => number;
  /** Those of the normals around which a posterior may have a peak. */
  readonly peaked: readonly NormalPrior[];
}

/** How one of the normals differs from the belief as it stands. */
interface Component {
  readonly share: number;
  /** Variance added to the threshold, and to the room before the mat. */
  readonly thresholdVariance: number;
  readonly matVariance: number;
  /** By how much its room is lower, in ln. */
  readonly matLower: number;
}

const AS_IT_STANDS: Component = { share: 1, thresholdVariance: 0, matVariance: 0, matLower: 0 };

/**
 * The normals that a belief is a mixture of: as it stands; with its threshold far wider; with the mat far nearer to
 * where the sheet parts; with both.
 *
 * @param belief of n parameters, see sheetParameters
 * @example mixBelief(question.belief).peaked.length // 3
 */
export function mixBelief(belief: SheetBelief): BeliefMixture {
  const { tail, nearMat } = belief;
  const roomy = tail
    ? [
        { ...AS_IT_STANDS, share: 1 - tail.share },
        { ...AS_IT_STANDS, share: tail.share, thresholdVariance: tail.sd ** 2 },
      ]
    : [AS_IT_STANDS];
  if (!nearMat) return mixComponents(belief, roomy, roomy);
  const near = roomy.map((one) => ({
    ...one,
    share: one.share * nearMat.share,
    matVariance: nearMat.sd ** 2,
    matLower: nearMat.lower,
  }));
  const components = [...roomy.map((one) => ({ ...one, share: one.share * (1 - nearMat.share) })), ...near];
  // Once a sheet is cut its threshold is told by the cuts: one peak with the mat near is enough.
  return mixComponents(belief, components, [...roomy, ...near.slice(-1)]);
}

function mixComponents(
  belief: NormalPrior,
  components: readonly Component[],
  peaked: readonly Component[],
): BeliefMixture {
  const { mean, precision } = belief;
  const size = mean.length;
  const from = components.map((one) => liftOf(belief, one));
  const lifts = new Float64Array(components.length);
  const logDensity = (parameters: Float64Array) => {
    // How hard the belief pulls at the two parameters that its tails are of: all that its normals differ by.
    let [threshold, mat] = [0, 0];
    for (let j = 0; j < size; j++) {
      const off = (parameters[j] as number) - (mean[j] as number);
      threshold += (precision[P.threshold * size + j] as number) * off;
      mat += (precision[P.mat * size + j] as number) * off;
    }
    for (let at = 0; at < lifts.length; at++) {
      lifts[at] = (from[at] as (typeof from)[number])(threshold, mat);
    }
    return logPrior(belief, parameters) + logSumExp(lifts);
  };
  return { logDensity, peaked: peaked.map((one) => normalOf(belief, one)) };
}

/**
 * How much higher than the belief's the log density of one of its normals is, times its share, from the two pulls. Adding a
 * variance to one parameter changes the inverse of a covariance by one product (Sherman and Morrison); it is done for
 * the threshold, then for the mat.
 */
function liftOf(
  { mean, precision }: NormalPrior,
  { share, thresholdVariance, matVariance, matLower }: Component,
): (threshold: number, mat: number) => number {
  const size = mean.length;
  const own = precision[P.threshold * size + P.threshold] as number;
  const cross = precision[P.threshold * size + P.mat] as number;
  const ownMat = precision[P.mat * size + P.mat] as number;
  const growth = 1 + thresholdVariance * own;
  const taken = thresholdVariance / growth;
  const leftMat = ownMat - taken * cross ** 2;
  const growthMat = 1 + matVariance * leftMat;
  const takenMat = matVariance / growthMat;
  const constant = Math.log(share) - 0.5 * Math.log(growth * growthMat) - 0.5 * ownMat * matLower ** 2;
  return (threshold, mat) => {
    const pull = threshold + cross * matLower;
    const pullMat = mat + ownMat * matLower - taken * cross * pull;
    return constant - mat * matLower + 0.5 * (taken * pull ** 2 + takenMat * pullMat ** 2);
  };
}

/** One of the normals by itself. */
function normalOf(belief: NormalPrior, { thresholdVariance, matVariance, matLower }: Component): NormalPrior {
  const { mean, precision } = belief;
  const wide = addVariance(precision, mean.length, P.threshold, thresholdVariance);
  return {
    mean: mean.map((middle, at) => (at === P.mat ? middle - matLower : middle)),
    precision: addVariance(wide, mean.length, P.mat, matVariance),
  };
}

/** The precision once a variance is added to one parameter. */
function addVariance(
  precision: Float64Array,
  size: number,
  parameter: number,
  variance: number,
): Float64Array {
  if (variance === 0) return precision;
  const row = precision.subarray(parameter * size, (parameter + 1) * size);
  const taken = variance / (1 + variance * (row[parameter] as number));
  return precision.map(
    (value, index) =>
      value - taken * (row[Math.floor(index / size)] as number) * (row[index % size] as number),
  );
}
