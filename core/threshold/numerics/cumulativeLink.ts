import { choleskyOf, invertCholesky } from '#core/threshold/numerics/cholesky.ts';
import { fisherScoring, type ScoredObjective } from '#core/threshold/numerics/fisherScoring.ts';
import type { Link } from '#core/threshold/numerics/link.ts';
import { makeOrdinalKernel } from '#core/threshold/sheetModel/ordinalKernel.ts';

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
 * sheet model; only the map from parameters to edges differs.
 *
 * @throws AppError `badInput` when the rows do not determine the coefficients
 * Source: McCullagh 1980, Regression models for ordinal data, J. R. Statist. Soc. B 42.
 * @example fitCumulativeLink([{ grade: 0, predictors: [], weight: 1 }, { grade: 1, predictors: [], weight: 1 }], 2, PROBIT).thresholds // [0]
 */
export function fitCumulativeLink(
  rows: readonly OrdinalRow[],
  gradeCount: number,
  link: Link,
): CumulativeLinkFit {
  const edges = gradeCount - 1;
  const size = edges + (rows[0]?.predictors.length ?? 0);
  const objective = describeObjective(rows, gradeCount, link);
  const start = new Float64Array(size);
  for (let edge = 0; edge < edges; edge++) start[edge] = edge - (edges - 1) / 2;
  const fit = fisherScoring(objective, start);
  const lower = choleskyOf(observedInformation(objective, fit.estimate), size);
  const covariance = lower ? invertCholesky(lower, size) : new Float64Array(size * size).fill(Number.NaN);
  return {
    thresholds: [...fit.estimate.subarray(0, edges)],
    coefficients: [...fit.estimate.subarray(edges)],
    logLikelihood: fit.value,
    standardErrors: Array.from({ length: size }, (_, j) => Math.sqrt(covariance[j * size + j] as number)),
  };
}

function describeObjective(rows: readonly OrdinalRow[], gradeCount: number, link: Link): ScoredObjective {
  const edges = gradeCount - 1;
  const kernel = makeOrdinalKernel(link, gradeCount, null);
  const indexes = new Float64Array(edges);
  const place = (row: OrdinalRow, parameters: Float64Array) => {
    const latent = row.predictors.reduce((sum, x, j) => sum + x * (parameters[edges + j] as number), 0);
    for (let edge = 0; edge < edges; edge++) indexes[edge] = latent - (parameters[edge] as number);
  };
  return {
    value: (parameters) =>
      rows.reduce((sum, row) => {
        place(row, parameters);
        return sum + row.weight * kernel.logChance(indexes, row.grade);
      }, 0),
    derive: (parameters) => {
      const size = parameters.length;
      const score = new Float64Array(size);
      const information = new Float64Array(size * size);
      for (const row of rows) {
        place(row, parameters);
        kernel.observe(indexes, row.grade);
        // The slope of edge e by parameter j: -1 for its own threshold, the predictor for a coefficient.
        const slope = (edge: number, j: number) =>
          j < edges ? (j === edge ? -1 : 0) : (row.predictors[j - edges] as number);
        for (let a = 0; a < edges; a++) {
          for (let j = 0; j < size; j++) {
            const left = slope(a, j) * row.weight;
            if (left === 0) continue;
            score[j] = (score[j] as number) + left * (kernel.edgeScore[a] as number);
            for (let b = 0; b < edges; b++) {
              const shared = left * (kernel.edgeInformation[a * edges + b] as number);
              for (let k = 0; k < size; k++) {
                const index = j * size + k;
                information[index] = (information[index] as number) + shared * slope(b, k);
              }
            }
          }
        }
      }
      return { score, information };
    },
  };
}

/** Width of a central difference, as a share of what is varied. */
const DIFFERENCE_SHARE = 1e-5;

/** Minus the derivative of the score, by central differences of the exact gradient. */
function observedInformation(objective: ScoredObjective, estimate: Float64Array): Float64Array {
  const size = estimate.length;
  const information = new Float64Array(size * size);
  for (let j = 0; j < size; j++) {
    const width = DIFFERENCE_SHARE * Math.max(1, Math.abs(estimate[j] as number));
    const ahead = Float64Array.from(estimate);
    const behind = Float64Array.from(estimate);
    ahead[j] = (ahead[j] as number) + width;
    behind[j] = (behind[j] as number) - width;
    const scoreAhead = objective.derive(ahead).score;
    const scoreBehind = objective.derive(behind).score;
    for (let k = 0; k < size; k++) {
      information[k * size + j] = ((scoreBehind[k] as number) - (scoreAhead[k] as number)) / (2 * width);
    }
  }
  return information;
}
