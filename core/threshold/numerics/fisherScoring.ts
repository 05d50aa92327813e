import { ROUNDING } from '#core/units/rounding.ts';
import { AppError } from '#core/errors/appError.ts';
import { choleskyOf, solveCholesky, type SquareMatrix } from '#core/threshold/numerics/cholesky.ts';

/** The search ends when a step gains and moves less than this. */
const LEAST_GAIN = 1e-13;
const LEAST_MOVE = 1e-6;
/** What is added to a diagonal that cannot be solved, tenfold each time. */
const FIRST_RIDGE = 1e-8;
const LAST_RIDGE = 1e6;
/** A step is halved down to this share of itself. */
const SHORTEST_SHARE = 1e-10;

/** A function to maximise, with its gradient and an information (minus curvature) that is never negative. */
export interface ScoredObjective {
  readonly value: (parameters: Float64Array) => number;
  readonly derive: (parameters: Float64Array) => {
    readonly score: Float64Array;
    readonly information: SquareMatrix;
  };
}

export interface ScoringFit {
  readonly estimate: Float64Array;
  readonly value: number;
  /** The information at the estimate, side = number of parameters. */
  readonly information: SquareMatrix;
  readonly iterations: number;
}

const MAX_ITERATIONS = 200;

/**
 * Damped Fisher scoring: only first derivatives, an information that is never negative, and steps halved until the
 * objective rises.
 *
 * @param start any point where the objective is finite
 * @param smallestStep stops when no parameter moves by more than this
 * @throws AppError `badInput` when the information is singular (too few observations for a flat prior)
 * Source: McCullagh and Nelder 1989, Generalized Linear Models, 2nd ed., section 2.5 and 5.4.
 * @example fisherScoring({ value: ([x]) => -((x - 3) ** 2), derive: ([x]) => ({ score: Float64Array.of(-2 * (x - 3)), information: Float64Array.of(2) }) }, Float64Array.of(0)).estimate[0] // 3
 */
export function fisherScoring(
  objective: ScoredObjective,
  start: Float64Array,
  smallestStep = ROUNDING,
): ScoringFit {
  let estimate = start;
  let value = objective.value(estimate);
  let iterations = 0;
  while (iterations < MAX_ITERATIONS) {
    iterations += 1;
    const { score, information } = objective.derive(estimate);
    const step = solveStep(information, score);
    const moved = searchAlong(objective.value, estimate, step, value, smallestStep);
    const gain = moved.value - value;
    estimate = moved.estimate;
    value = moved.value;
    if (moved.largest < smallestStep) break;
    if (gain < LEAST_GAIN * (1 + Math.abs(value)) && moved.largest < LEAST_MOVE) break;
  }
  return { estimate, value, information: objective.derive(estimate).information, iterations };
}

/**
 * The step that the information asks for, with a ridge where it is not positive definite.
 *
 * @example solveStep(Float64Array.of(4, 0, 0, 4), Float64Array.of(8, 4)) // [2, 1]
 */
export function solveStep(information: SquareMatrix, score: Float64Array): Float64Array {
  const size = score.length;
  for (let ridge = 0; ridge < LAST_RIDGE; ridge = ridge === 0 ? FIRST_RIDGE : ridge * 10) {
    const damped = Float64Array.from(information);
    for (let j = 0; j < size; j++)
      damped[j * size + j] = (damped[j * size + j] as number) * (1 + ridge) + ridge;
    const lower = choleskyOf(damped, size);
    if (lower) return solveCholesky(lower, size, score);
  }
  throw new AppError('badInput', 'the trials do not determine the model: its information is singular');
}

/** The longest half of a half of the step that rises: a step that only keeps the height could go on for ever. */
function searchAlong(
  valueAt: ScoredObjective['value'],
  from: Float64Array,
  step: Float64Array,
  before: number,
  smallestStep: number,
): { readonly estimate: Float64Array; readonly value: number; readonly largest: number } {
  const whole = largestOf(step);
  for (let share = 1; share > SHORTEST_SHARE && share * whole >= smallestStep; share /= 2) {
    const estimate = from.map((value, j) => value + share * (step[j] as number));
    const value = valueAt(estimate);
    if (value > before) return { estimate, value, largest: share * whole };
  }
  return { estimate: from, value: before, largest: 0 };
}

function largestOf(values: Float64Array): number {
  return values.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
}
