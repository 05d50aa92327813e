import { AppError } from '#core/errors/appError.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { CategoricalObservation, CategoryProbabilities } from '#core/threshold/fitCategorical.ts';
import { gradeIntervalGradient, gradeIntervals } from '#core/threshold/gradeIntervals.ts';
import { effectMultipliers, latentShift } from '#core/threshold/latentShift.ts';
import { PROBIT } from '#core/threshold/link.ts';
import { misjudge } from '#core/threshold/misjudging.ts';
import { sheetBoundaries } from '#core/threshold/sheetBoundaries.ts';
import { P } from '#core/threshold/sheetParameters.ts';
import type { Trial } from '#core/threshold/trial.ts';

/**
 * A test cut as an observation of the sheet model.
 *
 * @param grades the grades this sheet can show, ascending
 * @param matrix P(seen | true), from misjudgingMatrix
 * @throws AppError `badInput` for a force that is not above 0 or a grade this sheet cannot show
 */
export function observeTrial(
  trial: Trial,
  grades: readonly DepthGrade[],
  matrix: readonly Float64Array[],
): CategoricalObservation {
  const seen = grades.indexOf(trial.grade);
  if (seen < 0)
    throw new AppError('badInput', `this sheet has no grade ${trial.grade}; it shows ${grades.join(', ')}`);
  if (!(trial.forceGf > 0)) throw new AppError('badInput', `force ${trial.forceGf} gf is not above 0`);
  return { seen, weight: 1, evaluate: (parameters) => evaluateTrial(trial, parameters, matrix) };
}

function evaluateTrial(
  trial: Trial,
  parameters: Float64Array,
  matrix: readonly Float64Array[],
): CategoryProbabilities {
  const size = parameters.length;
  const { positions, gradient } = sheetBoundaries(parameters);
  const spread = Math.exp(parameters[P.spread] as number);
  const latent =
    Math.log(trial.forceGf) + latentShift(parameters, trial) - (parameters[P.threshold] as number);
  const indexes = positions.map((position) => (latent - position) / spread);
  const by = effectMultipliers(trial);
  const indexGradient = gradient.map((change) => -change / spread);
  for (let edge = 0; edge < indexes.length; edge++) {
    const row = edge * size;
    indexGradient[row + P.threshold] = -1 / spread;
    indexGradient[row + P.spread] = -(indexes[edge] as number);
    indexGradient[row + P.passes] = by.passes / spread;
    indexGradient[row + P.wear] = by.wear / spread;
    indexGradient[row + P.speed] = by.speed / spread;
  }
  const truth = gradeIntervals(PROBIT, indexes, new Float64Array(matrix.length));
  const truthGradient = gradeIntervalGradient(PROBIT, indexes, indexGradient, size);
  return {
    probabilities: misjudge(truth, matrix, new Float64Array(matrix.length)),
    gradient: misjudgeGradient(truthGradient, matrix, size),
  };
}

function misjudgeGradient(truth: Float64Array, matrix: readonly Float64Array[], size: number): Float64Array {
  const seen = new Float64Array(truth.length);
  const column = new Float64Array(matrix.length);
  const mixed = new Float64Array(matrix.length);
  for (let j = 0; j < size; j++) {
    for (let grade = 0; grade < matrix.length; grade++) column[grade] = truth[grade * size + j] as number;
    misjudge(column, matrix, mixed);
    for (let grade = 0; grade < matrix.length; grade++) seen[grade * size + j] = mixed[grade] as number;
  }
  return seen;
}
