import { fillNormals, type Random } from '#core/random/seededRandom.ts';
import { choleskyOf, logDetOf, type SquareMatrix } from '#core/threshold/numerics/cholesky.ts';
import { logPrior } from '#core/threshold/numerics/normalPrior.ts';

/** Degrees of freedom of a proposal: tails heavier than the posterior's, so that no weight explodes. An even number. */
const PROPOSAL_DF = 10;

/** A multivariate t around a peak, to draw from and to weigh draws by. */
export interface Proposal {
  /** Writes a draw to `out`. @returns its log density here */
  readonly draw: (random: Random, out: Float64Array) => number;
  /** Up to a constant that all proposals of one size share. */
  readonly logDensity: (parameters: Float64Array) => number;
}

/**
 * The multivariate t around a peak of a posterior.
 *
 * @param information at the peak, side n
 * @param widen how many times wider than the information says
 * @throws Error for an information that is not positive definite
 * @example makeProposal(Float64Array.of(2), Float64Array.of(4), 1).draw(() => 0.5, new Float64Array(1)) < 0 // true
 */
export function makeProposal(peak: Float64Array, information: SquareMatrix, widen: number): Proposal {
  const size = peak.length;
  const lower = choleskyOf(information, size);
  if (!lower) throw new Error('information with a proper prior is positive definite');
  const logScale = 0.5 * logDetOf(lower, size);
  const around = { mean: peak, precision: information };
  const normals = new Float64Array(size);
  const logDensityAt = (square: number) =>
    logScale - ((PROPOSAL_DF + size) / 2) * Math.log(1 + square / PROPOSAL_DF);
  return {
    draw: (random, out) => {
      fillNormals(random, normals);
      const stretch = Math.sqrt(PROPOSAL_DF / drawChiSquare(random));
      let square = 0;
      for (let row = size - 1; row >= 0; row--) {
        let sum = normals[row] as number;
        square += sum * sum;
        for (let k = row + 1; k < size; k++) sum -= (lower[k * size + row] as number) * (out[k] as number);
        out[row] = sum / (lower[row * size + row] as number);
      }
      for (let row = 0; row < size; row++) {
        out[row] = (peak[row] as number) + widen * stretch * (out[row] as number);
      }
      return logDensityAt(stretch * stretch * square);
    },
    logDensity: (parameters) => logDensityAt((-2 * logPrior(around, parameters)) / widen ** 2),
  };
}

/** A chi-square of {@link PROPOSAL_DF} degrees: two of them are one exponential number. */
function drawChiSquare(random: Random): number {
  let product = 1;
  for (let pair = 0; pair < PROPOSAL_DF / 2; pair++) product *= 1 - random();
  return -2 * Math.log(product);
}
