import { AppError } from '#core/errors/appError.ts';
import { choleskyOf, solveCholesky, type SquareMatrix } from '#core/threshold/cholesky.ts';

/** Probabilities of every category at one parameter vector, with their gradient (category x parameter, row-major). */
export interface CategoryProbabilities {
  readonly probabilities: Float64Array;
  readonly gradient: Float64Array;
}

/** One observed category, counted `weight` times. */
export interface CategoricalObservation {
  readonly seen: number;
  readonly weight: number;
  readonly evaluate: (parameters: Float64Array) => CategoryProbabilities;
}

/** Independent normal priors; a precision of 0 is a flat prior. */
export interface NormalPrior {
  readonly mean: Float64Array;
  readonly precision: Float64Array;
}

export interface CategoricalFit {
  readonly estimate: Float64Array;
  /** Log likelihood alone, without the prior. */
  readonly logLikelihood: number;
  /** Expected (Fisher) information plus prior precision at the estimate, side = number of parameters. */
  readonly information: SquareMatrix;
  readonly iterations: number;
}

/** Probabilities below this are counted as this, so that one impossible grade cannot end a fit. */
export const PROBABILITY_FLOOR = 1e-300;

const MAX_ITERATIONS = 200;

/**
 * Maximises the posterior of a categorical model by damped Fisher scoring: only first derivatives, an information
 * that is never negative, and steps halved until the posterior rises.
 *
 * @param start any point where every seen category is possible
 * @throws AppError `badInput` when the information is singular (too few observations for a flat prior)
 * Source: McCullagh and Nelder 1989, Generalized Linear Models, 2nd ed., section 2.5 and 5.4.
 */
export function fitCategorical(
  observations: readonly CategoricalObservation[],
  prior: NormalPrior,
  start: Float64Array,
): CategoricalFit {
  let estimate = start;
  let objective = logPosterior(observations, prior, estimate);
  for (let iteration = 1; iteration <= MAX_ITERATIONS; iteration++) {
    const { score, information } = scoreAndInformation(observations, prior, estimate);
    const step = solveStep(information, score);
    const moved = searchAlong(observations, prior, estimate, step, objective);
    const gain = moved.objective - objective;
    estimate = moved.estimate;
    objective = moved.objective;
    if (gain < 1e-13 * (1 + Math.abs(objective)) && largest(moved.step) < 1e-9) {
      return finish(observations, prior, estimate, iteration);
    }
  }
  return finish(observations, prior, estimate, MAX_ITERATIONS);
}

/** The gradient of the log posterior and its expected information. */
export function scoreAndInformation(
  observations: readonly CategoricalObservation[],
  prior: NormalPrior,
  parameters: Float64Array,
): { readonly score: Float64Array; readonly information: SquareMatrix } {
  const size = parameters.length;
  const score = new Float64Array(size);
  const information = new Float64Array(size * size);
  for (let j = 0; j < size; j++) {
    const precision = prior.precision[j] as number;
    score[j] = precision * ((prior.mean[j] as number) - (parameters[j] as number));
    information[j * size + j] = precision;
  }
  for (const observation of observations) addObservation(observation, parameters, score, information);
  return { score, information };
}

function addObservation(
  observation: CategoricalObservation,
  parameters: Float64Array,
  score: Float64Array,
  information: SquareMatrix,
): void {
  const size = parameters.length;
  const { probabilities, gradient } = observation.evaluate(parameters);
  for (let category = 0; category < probabilities.length; category++) {
    const probability = Math.max(probabilities[category] as number, 1e-14);
    const row = gradient.subarray(category * size, (category + 1) * size);
    if (category === observation.seen) {
      const seen = Math.max(probabilities[category] as number, PROBABILITY_FLOOR);
      for (let j = 0; j < size; j++) {
        score[j] = (score[j] as number) + (observation.weight * (row[j] as number)) / seen;
      }
    }
    const scale = observation.weight / probability;
    for (let j = 0; j < size; j++) {
      for (let k = 0; k <= j; k++) {
        const index = j * size + k;
        information[index] = (information[index] as number) + scale * (row[j] as number) * (row[k] as number);
      }
    }
  }
}

function solveStep(information: SquareMatrix, score: Float64Array): Float64Array {
  const size = score.length;
  for (let ridge = 0; ridge < 1e6; ridge = ridge === 0 ? 1e-8 : ridge * 10) {
    const damped = Float64Array.from(information);
    for (let j = 0; j < size; j++)
      damped[j * size + j] = (damped[j * size + j] as number) * (1 + ridge) + ridge;
    const lower = choleskyOf(damped, size);
    if (lower) return solveCholesky(lower, size, score);
  }
  throw new AppError('badInput', 'the trials do not determine the model: its information is singular');
}

function searchAlong(
  observations: readonly CategoricalObservation[],
  prior: NormalPrior,
  from: Float64Array,
  step: Float64Array,
  objective: number,
): { readonly estimate: Float64Array; readonly objective: number; readonly step: Float64Array } {
  for (let share = 1; share > 1e-10; share /= 2) {
    const taken = step.map((value) => value * share);
    const estimate = from.map((value, j) => value + (taken[j] as number));
    const reached = logPosterior(observations, prior, estimate);
    if (reached >= objective) return { estimate, objective: reached, step: taken };
  }
  return { estimate: from, objective, step: new Float64Array(step.length) };
}

function logPosterior(
  observations: readonly CategoricalObservation[],
  prior: NormalPrior,
  parameters: Float64Array,
): number {
  return logLikelihood(observations, parameters) + logPrior(prior, parameters);
}

function logLikelihood(observations: readonly CategoricalObservation[], parameters: Float64Array): number {
  let sum = 0;
  for (const { seen, weight, evaluate } of observations) {
    sum += weight * Math.log(Math.max(evaluate(parameters).probabilities[seen] as number, PROBABILITY_FLOOR));
  }
  return sum;
}

/** The log density of a normal prior, up to its constant. */
export function logPrior(prior: NormalPrior, parameters: Float64Array): number {
  let sum = 0;
  for (let j = 0; j < parameters.length; j++) {
    sum -=
      0.5 * (prior.precision[j] as number) * ((parameters[j] as number) - (prior.mean[j] as number)) ** 2;
  }
  return sum;
}

function finish(
  observations: readonly CategoricalObservation[],
  prior: NormalPrior,
  estimate: Float64Array,
  iterations: number,
): CategoricalFit {
  const { information } = scoreAndInformation(observations, prior, estimate);
  return { estimate, logLikelihood: logLikelihood(observations, estimate), information, iterations };
}

function largest(values: Float64Array): number {
  return values.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
}
