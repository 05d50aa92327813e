import { drawNormal, seededRandom, type Random } from '#core/random/seededRandom.ts';
import { choleskyOf, solveTransposed } from '#core/threshold/numerics/cholesky.ts';
import { fisherScoring } from '#core/threshold/numerics/fisherScoring.ts';
import { groupBatches } from '#core/threshold/batches.ts';
import { latentShift } from '#core/threshold/sheetModel/latentShift.ts';
import { derivePrior, logPrior, type NormalPrior } from '#core/threshold/numerics/normalPrior.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import { resampleDraws } from '#core/threshold/numerics/resampleDraws.ts';
import { sheetBoundaries } from '#core/threshold/sheetModel/sheetBoundaries.ts';
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
/** Degrees of freedom of the proposal: tails heavier than the posterior's, so that no weight explodes. */
const PROPOSAL_DF = 10;
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
  const prepared = trials.map((trial) => likelihood.prepare(trial));
  const { peak, information } = findPeak(belief, prepared, likelihood);
  const loads = groupBatches(prepared);
  const edges = grades.length - 1;
  const boundaries = new Float64Array(DRAWS * edges);
  const spreads = new Float64Array(DRAWS);
  const logWeights = new Float64Array(DRAWS);
  proposeDraws(peak, information, random, widen, (draw, parameters, logDensity) => {
    const { positions } = sheetBoundaries(parameters);
    const base = (parameters[P.threshold] as number) - latentShift(parameters, conditions);
    for (let edge = 0; edge < edges; edge++) {
      boundaries[draw * edges + edge] = base + (positions[edge] as number);
    }
    spreads[draw] = Math.exp(parameters[P.spread] as number);
    logWeights[draw] = likelihood.exactValue(loads, parameters) + logPrior(belief, parameters) - logDensity;
  });
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

/** The peak of the posterior and its curvature. */
function findPeak(belief: NormalPrior, trials: readonly PreparedTrial[], likelihood: SheetLikelihood) {
  const size = belief.mean.length;
  const fit = fisherScoring(
    {
      value: (parameters) => likelihood.value(trials, parameters) + logPrior(belief, parameters),
      derive: (parameters) => {
        const score = new Float64Array(size);
        const information = new Float64Array(size * size);
        derivePrior(belief, parameters, score, information);
        likelihood.derive(trials, parameters, score, information);
        return { score, information };
      },
    },
    belief.mean,
    SMALLEST_STEP,
  );
  return { peak: fit.estimate, information: fit.information };
}

/** Draws from a multivariate t around the peak. The chi-square is a sum of squared normals: no tables needed. */
function proposeDraws(
  peak: Float64Array,
  information: Float64Array,
  random: Random,
  widen: number,
  take: (draw: number, parameters: Float64Array, logDensity: number) => void,
): void {
  const size = peak.length;
  const lower = choleskyOf(information, size);
  if (!lower) throw new Error('information with a proper prior is positive definite');
  for (let draw = 0; draw < DRAWS; draw++) {
    const normals = new Float64Array(size);
    let square = 0;
    for (let j = 0; j < size; j++) {
      normals[j] = drawNormal(random);
      square += (normals[j] as number) ** 2;
    }
    let chiSquare = 0;
    for (let k = 0; k < PROPOSAL_DF; k++) chiSquare += drawNormal(random) ** 2;
    const stretch = widen * Math.sqrt(PROPOSAL_DF / chiSquare);
    const step = solveTransposed(lower, size, normals);
    const parameters = peak.map((value, j) => value + stretch * (step[j] as number));
    take(draw, parameters, (-(PROPOSAL_DF + size) / 2) * Math.log(1 + square / chiSquare));
  }
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
