import { itemAt } from '#core/collections/itemAt.ts';
import { seededRandom, type Random } from '#core/random/seededRandom.ts';
import { fisherScoring } from '#core/threshold/numerics/fisherScoring.ts';
import { groupBatches } from '#core/threshold/batches.ts';
import { effectMultipliers, shiftBy } from '#core/threshold/sheetModel/latentShift.ts';
import { mixBelief } from '#core/threshold/sheetModel/beliefMixture.ts';
import { derivePrior, logPrior, type NormalPrior } from '#core/threshold/numerics/normalPrior.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import { resampleDraws } from '#core/threshold/numerics/resampleDraws.ts';
import { boundaryPositions } from '#core/threshold/sheetModel/sheetBoundaries.ts';
import { logSumExp } from '#core/threshold/numerics/logSumExp.ts';
import { makeProposal } from '#core/threshold/sheetModel/proposal.ts';
import {
  SHEET_LIKELIHOODS,
  type PreparedTrial,
  type SheetLikelihood,
} from '#core/threshold/sheetModel/sheetLikelihood.ts';
import { LAYERED_PARAMETERS, P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { ThresholdQuestion, Trial } from '#core/threshold/trial.ts';

/** A step below this ends the search for the peak, in ln force. */
const SMALLEST_STEP = 1e-4;
/** Draws made, and those kept of them: after weighting, half of them are nearly as many as all. */
const DRAWS = 3000;
const KEPT_DRAWS = 1500;
const MIN_EFFECTIVE_DRAWS = 50;
/** Names the model, in answers and in what was fitted for it. */
export const MODEL_VERSION = 'hierarchical 1';

/**
 * The model of one sheet on one machine: what is believed of it from the stack and from the whole book, taught by
 * that sheet's own test cuts. Fisher scoring finds the peak; draws around it are weighted by the exact posterior, so
 * that skewness and the ends of few-cut posteriors are right and not only their curvature.
 *
 * @param seed the draws are the same for the same seed, question and trials
 * @example sheetModel(11).fit(question, trials).trialCount // 3
 */
export function sheetModel(seed: number): ThresholdModel {
  return {
    version: MODEL_VERSION,
    fit: (question, trials) => {
      const narrow = drawPosterior(question, trials, seededRandom(seed), 1);
      if (narrow.effectiveDraws >= MIN_EFFECTIVE_DRAWS) return narrow;
      return drawPosterior(question, trials, seededRandom(seed + 1), 1.6);
    },
  };
}

function drawPosterior(
  { belief, conditions }: ThresholdQuestion,
  trials: readonly Trial[],
  random: Random,
  widen: number,
): ThresholdPosterior {
  const isLayered = belief.mean.length === LAYERED_PARAMETERS.length;
  const likelihood = SHEET_LIKELIHOODS[isLayered ? 'layered' : 'single'];
  const { grades } = likelihood;
  const prepared = trials.map((trial) => likelihood.prepare(trial, belief.readers));
  const { logDensity, peaked } = mixBelief(belief);
  const proposals = peaked.map((one) => {
    const { peak, information } = findPeak(one, prepared, likelihood);
    return makeProposal(peak, information, widen);
  });
  const loads = groupBatches(prepared);
  const edges = grades.length - 1;
  const boundaries = new Float64Array(DRAWS * edges);
  const spreads = new Float64Array(DRAWS);
  const logWeights = new Float64Array(DRAWS);
  const by = effectMultipliers(conditions);
  const parameters = new Float64Array(belief.mean.length);
  const densities = new Float64Array(proposals.length);
  const logShare = -Math.log(proposals.length);
  for (let draw = 0; draw < DRAWS; draw++) {
    const own = draw % proposals.length;
    densities[own] = itemAt(proposals, own).draw(random, parameters);
    for (let other = 0; other < proposals.length; other++) {
      if (other !== own) densities[other] = itemAt(proposals, other).logDensity(parameters);
    }
    const positions = boundaryPositions(parameters);
    const base = (parameters[P.threshold] as number) - shiftBy(parameters, by);
    for (let edge = 0; edge < edges; edge++) {
      boundaries[draw * edges + edge] = base + (positions[edge] as number);
    }
    spreads[draw] = Math.exp(parameters[P.spread] as number);
    logWeights[draw] =
      likelihood.exactValue(loads, parameters) + logDensity(parameters) - (logSumExp(densities) + logShare);
  }
  const { weights, effectiveDraws } = normaliseWeights(logWeights);
  const drawn: ThresholdPosterior = {
    model: MODEL_VERSION,
    trialCount: trials.length,
    grades,
    drawCount: DRAWS,
    boundaries,
    spreads,
    weights,
    effectiveDraws,
  };
  return resampleDraws(drawn, KEPT_DRAWS, random);
}

/** How far from the middle of the belief a peak is looked for, and how densely, in ln force. */
const REACH = 3.6;
const REACH_STEP = 0.1;

/**
 * Where to start looking for the peak: the best of many thresholds. From far off nothing pulls, since any grade may have
 * been misread.
 */
function startOf(belief: NormalPrior, valueAt: (parameters: Float64Array) => number): Float64Array {
  const middle = belief.mean[P.threshold] as number;
  let best = belief.mean;
  let highest = valueAt(best);
  for (let off = -REACH; off <= REACH; off += REACH_STEP) {
    const tried = Float64Array.from(belief.mean);
    tried[P.threshold] = middle + off;
    const value = valueAt(tried);
    if (value > highest) [best, highest] = [tried, value];
  }
  return best;
}

/** The peak of the posterior and its curvature. */
function findPeak(belief: NormalPrior, trials: readonly PreparedTrial[], likelihood: SheetLikelihood) {
  const size = belief.mean.length;
  const value = (parameters: Float64Array) =>
    likelihood.value(trials, parameters) + logPrior(belief, parameters);
  const fit = fisherScoring(
    {
      value,
      derive: (parameters) => {
        const score = new Float64Array(size);
        const information = new Float64Array(size * size);
        derivePrior(belief, parameters, score, information);
        likelihood.derive(trials, parameters, score, information);
        return { score, information };
      },
    },
    trials.length === 0 ? belief.mean : startOf(belief, value),
    SMALLEST_STEP,
  );
  return { peak: fit.estimate, information: fit.information };
}

function normaliseWeights(logWeights: Float64Array): {
  readonly weights: Float64Array;
  readonly effectiveDraws: number;
} {
  const most = logWeights.reduce((a, b) => Math.max(a, b), -Infinity);
  const weights = logWeights.map((value) => Math.exp(value - most));
  const sum = weights.reduce((a, b) => a + b, 0);
  let squares = 0;
  for (let draw = 0; draw < weights.length; draw++) {
    weights[draw] = (weights[draw] as number) / sum;
    squares += (weights[draw] as number) ** 2;
  }
  return { weights, effectiveDraws: 1 / squares };
}
