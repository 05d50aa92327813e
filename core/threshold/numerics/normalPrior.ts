import type { SquareMatrix } from '#core/threshold/numerics/cholesky.ts';

/** What is believed of n parameters before they are observed: a normal with this mean and precision (n x n). */
export interface NormalPrior {
  readonly mean: Float64Array;
  /** The inverse of the covariance; all zeros is a flat prior. */
  readonly precision: SquareMatrix;
}

/** The log density up to its constant. @example logPrior({ mean: [0], precision: [4] }, [1]) // -2 */
export function logPrior({ mean, precision }: NormalPrior, parameters: Float64Array): number {
  const size = mean.length;
  let sum = 0;
  // The precision is symmetric: each pair is taken once.
  for (let row = 0; row < size; row++) {
    const off = (parameters[row] as number) - (mean[row] as number);
    const start = row * size;
    let pull = 0.5 * (precision[start + row] as number) * off;
    for (let column = row + 1; column < size; column++) {
      pull +=
        (precision[start + column] as number) * ((parameters[column] as number) - (mean[column] as number));
    }
    sum -= off * pull;
  }
  return sum;
}

/**
 * Writes the prior's gradient and precision into `score` and `information`, overwriting both.
 *
 * @example ((score) => (derivePrior({ mean: Float64Array.of(1), precision: Float64Array.of(4) }, Float64Array.of(3), score, new Float64Array(1)), score[0]))(new Float64Array(1)) // -8
 */
export function derivePrior(
  { mean, precision }: NormalPrior,
  parameters: Float64Array,
  score: Float64Array,
  information: SquareMatrix,
): void {
  const size = mean.length;
  information.set(precision);
  for (let row = 0; row < size; row++) {
    let pull = 0;
    for (let column = 0; column < size; column++) {
      pull +=
        (precision[row * size + column] as number) *
        ((mean[column] as number) - (parameters[column] as number));
    }
    score[row] = pull;
  }
}
