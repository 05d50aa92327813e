import { drawNormal, seededRandom, type Random } from '#core/random/seededRandom.ts';
import { gradesOfStack } from '#core/stack/depthGrade.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { choleskyOf, solveTransposed } from '#core/threshold/cholesky.ts';
import {
  fitCategorical,
  logPrior,
  PROBABILITY_FLOOR,
  type NormalPrior,
} from '#core/threshold/fitCategorical.ts';
import { FAST_PROBIT } from '#core/threshold/fastProbit.ts';
import { gradeIntervals } from '#core/threshold/gradeIntervals.ts';
import { effectMultipliers, latentShift, shiftBy } from '#core/threshold/latentShift.ts';
import { misjudgingMatrix } from '#core/threshold/misjudging.ts';
import { observeTrial } from '#core/threshold/observeTrial.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import { sheetBoundaries } from '#core/threshold/sheetBoundaries.ts';
import { P } from '#core/threshold/sheetParameters.ts';
import { sheetPrior } from '#core/threshold/sheetPrior.ts';
import type { ThresholdQuestion, Trial } from '#core/threshold/trial.ts';

const DRAWS = 1500;
/** Degrees of freedom of the proposal: tails heavier than the posterior's, so that no weight explodes. */
const PROPOSAL_DF = 10;
const MIN_EFFECTIVE_DRAWS = 50;
const VERSION = 'single-sheet 1';

/**
 * The model of one sheet on one machine: a prior from the stack, taught by that sheet's own test cuts.
 * Fisher scoring finds the peak; draws around it are weighted by the exact posterior, so that skewness and the
 * ends of few-cut posteriors are right and not only their curvature.
 *
 * @param seed the draws are the same for the same seed, question and trials
 */
export function singleSheetModel(seed: number): ThresholdModel {
  return {
    version: VERSION,
    fit: (question, trials) => {
      const narrow = drawPosterior(question, trials, seededRandom(seed), 1);
      if (narrow.effectiveDraws >= MIN_EFFECTIVE_DRAWS) return narrow;
      return drawPosterior(question, trials, seededRandom(seed + 1), 1.6);
    },
  };
}

function drawPosterior(
  question: ThresholdQuestion,
  trials: readonly Trial[],
  random: Random,
  widen: number,
): ThresholdPosterior {
  const { isLayered } = measureStack(question.sheet.stack);
  const grades = gradesOfStack(isLayered);
  const matrix = misjudgingMatrix(grades.length);
  const prior = sheetPrior(question.sheet);
  const observations = trials.map((trial) => observeTrial(trial, grades, matrix));
  const fit = fitCategorical(observations, prior, prior.mean);
  const draws = propose(fit.estimate, fit.information, random, widen);
  const edges = grades.length - 1;
  const seen = prepareTrials(trials, grades, matrix);
  const scratch = { indexes: new Float64Array(edges), truth: new Float64Array(grades.length) };
  const boundaries = new Float64Array(DRAWS * edges);
  const spreads = new Float64Array(DRAWS);
  const logWeights = new Float64Array(DRAWS);
  draws.forEach(({ parameters, logDensity }, draw) => {
    const { positions } = sheetBoundaries(parameters);
    const spread = Math.exp(parameters[P.spread] as number);
    const base = (parameters[P.threshold] as number) - latentShift(parameters, question.conditions);
    positions.forEach((position, edge) => (boundaries[draw * edges + edge] = base + position));
    spreads[draw] = spread;
    logWeights[draw] = logPosteriorOf(parameters, positions, spread, seen, prior, scratch) - logDensity;
  });
  const { weights, effectiveDraws } = normaliseWeights(logWeights);
  return {
    model: VERSION,
    trialCount: trials.length,
    grades,
    drawCount: DRAWS,
    boundaries,
    spreads,
    weights,
    effectiveDraws,
  };
}

interface Proposal {
  readonly parameters: Float64Array;
  /** Log density of the proposal, up to a constant shared by all draws. */
  readonly logDensity: number;
}

/** Draws from a multivariate t around the peak. The chi-square is a sum of squared normals: no tables needed. */
function propose(
  peak: Float64Array,
  information: Float64Array,
  random: Random,
  widen: number,
): readonly Proposal[] {
  const size = peak.length;
  const lower = choleskyOf(information, size);
  if (!lower) throw new Error('information with a proper prior is positive definite');
  return Array.from({ length: DRAWS }, () => {
    const normals = Float64Array.from({ length: size }, () => drawNormal(random));
    const square = normals.reduce((sum, value) => sum + value * value, 0);
    let chiSquare = 0;
    for (let k = 0; k < PROPOSAL_DF; k++) chiSquare += drawNormal(random) ** 2;
    const stretch = widen * Math.sqrt(PROPOSAL_DF / chiSquare);
    const step = solveTransposed(lower, size, normals);
    return {
      parameters: peak.map((value, j) => value + stretch * (step[j] as number)),
      logDensity: (-(PROPOSAL_DF + size) / 2) * Math.log(1 + square / chiSquare),
    };
  });
}

/** A trial with everything worked out that is the same for every draw. */
interface SeenTrial {
  readonly lnForce: number;
  readonly by: ReturnType<typeof effectMultipliers>;
  /** P(this grade is seen | true grade), by true grade. */
  readonly column: Float64Array;
}

function prepareTrials(
  trials: readonly Trial[],
  grades: readonly number[],
  matrix: readonly Float64Array[],
): readonly SeenTrial[] {
  return trials.map((trial) => {
    const seen = grades.indexOf(trial.grade);
    return {
      lnForce: Math.log(trial.forceGf),
      by: effectMultipliers(trial),
      column: Float64Array.from(matrix, (row) => row[seen] as number),
    };
  });
}

/** Scratch space of one fit: a draw after the other is worked out in it. */
interface Scratch {
  readonly indexes: Float64Array;
  readonly truth: Float64Array;
}

function logPosteriorOf(
  parameters: Float64Array,
  positions: Float64Array,
  spread: number,
  trials: readonly SeenTrial[],
  prior: NormalPrior,
  { indexes, truth }: Scratch,
): number {
  let sum = logPrior(prior, parameters);
  for (const { lnForce, by, column } of trials) {
    const latent = lnForce + shiftBy(parameters, by) - (parameters[P.threshold] as number);
    for (let edge = 0; edge < positions.length; edge++) {
      indexes[edge] = (latent - (positions[edge] as number)) / spread;
    }
    gradeIntervals(FAST_PROBIT, indexes, truth);
    let seen = 0;
    for (let grade = 0; grade < column.length; grade++) {
      seen += (truth[grade] as number) * (column[grade] as number);
    }
    sum += Math.log(Math.max(seen, PROBABILITY_FLOOR));
  }
  return sum;
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
