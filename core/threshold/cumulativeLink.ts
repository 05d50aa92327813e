import { choleskyOf, invertCholesky } from '#core/threshold/cholesky.ts';
import {
  fitCategorical,
  scoreAndInformation,
  type CategoricalObservation,
  type NormalPrior,
} from '#core/threshold/fitCategorical.ts';
import { gradeIntervalGradient, gradeIntervals } from '#core/threshold/gradeIntervals.ts';
import type { Link } from '#core/threshold/link.ts';

/** One row of an ordinal regression: a grade from 0 up, seen `weight` times at the given predictors. */
export interface OrdinalRow {
  readonly grade: number;
  readonly predictors: readonly number[];
  readonly weight: number;
}

export interface CumulativeLinkFit {
  /** Ascending boundaries between grades, K - 1 of them. */
  readonly thresholds: readonly number[];
  readonly coefficients: readonly number[];
  readonly logLikelihood: number;
  /** Of thresholds, then coefficients; from the observed information. */
  readonly standardErrors: readonly number[];
}

/**
 * Ordinal regression by maximum likelihood: P(grade <= k) = cdf(threshold[k] - coefficients . predictors).
 * With two grades it is logistic or probit regression. It shares likelihood, gradient and solver with the
 * sheet model; only the map from parameters to indexes differs.
 *
 * @throws AppError `badInput` when the rows do not determine the coefficients
 * Source: McCullagh 1980, Regression models for ordinal data, J. R. Statist. Soc. B 42.
 */
export function fitCumulativeLink(
  rows: readonly OrdinalRow[],
  gradeCount: number,
  link: Link,
): CumulativeLinkFit {
  const edges = gradeCount - 1;
  const size = edges + (rows[0]?.predictors.length ?? 0);
  const observations = rows.map((row) => observeRow(row, edges, size, link));
  const prior: NormalPrior = { mean: new Float64Array(size), precision: new Float64Array(size) };
  const start = new Float64Array(size);
  for (let edge = 0; edge < edges; edge++) start[edge] = edge - (edges - 1) / 2;
  const fit = fitCategorical(observations, prior, start);
  const information = observedInformation(observations, prior, fit.estimate);
  const lower = choleskyOf(information, size);
  const covariance = lower ? invertCholesky(lower, size) : new Float64Array(size * size).fill(Number.NaN);
  return {
    thresholds: [...fit.estimate.subarray(0, edges)],
    coefficients: [...fit.estimate.subarray(edges)],
    logLikelihood: fit.logLikelihood,
    standardErrors: Array.from({ length: size }, (_, j) => Math.sqrt(covariance[j * size + j] as number)),
  };
}

function observeRow(row: OrdinalRow, edges: number, size: number, link: Link): CategoricalObservation {
  const indexGradient = new Float64Array(edges * size);
  for (let edge = 0; edge < edges; edge++) {
    indexGradient[edge * size + edge] = -1;
    row.predictors.forEach((value, j) => (indexGradient[edge * size + edges + j] = value));
  }
  return {
    seen: row.grade,
    weight: row.weight,
    evaluate: (parameters) => {
      const latent = row.predictors.reduce(
        (sum, value, j) => sum + value * (parameters[edges + j] as number),
        0,
      );
      const indexes = parameters.slice(0, edges).map((threshold) => latent - threshold);
      return {
        probabilities: gradeIntervals(link, indexes, new Float64Array(edges + 1)),
        gradient: gradeIntervalGradient(link, indexes, indexGradient, size),
      };
    },
  };
}

/** Minus the derivative of the score, by central differences of the exact gradient. */
function observedInformation(
  observations: readonly CategoricalObservation[],
  prior: NormalPrior,
  estimate: Float64Array,
): Float64Array {
  const size = estimate.length;
  const information = new Float64Array(size * size);
  for (let j = 0; j < size; j++) {
    const width = 1e-5 * Math.max(1, Math.abs(estimate[j] as number));
    const ahead = Float64Array.from(estimate);
    const behind = Float64Array.from(estimate);
    ahead[j] = (ahead[j] as number) + width;
    behind[j] = (behind[j] as number) - width;
    const scoreAhead = scoreAndInformation(observations, prior, ahead).score;
    const scoreBehind = scoreAndInformation(observations, prior, behind).score;
    for (let k = 0; k < size; k++) {
      information[k * size + j] = ((scoreBehind[k] as number) - (scoreAhead[k] as number)) / (2 * width);
    }
  }
  return information;
}
