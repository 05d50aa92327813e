import { normalPdf } from '#core/threshold/numerics/normal.ts';

/**
 * How far what was seen lies from what was expected, in standard deviations of the latent depth: above 0 the cut was
 * less deep than expected, so that more force was needed. Where grades were certain it is near 0 for the expected one.
 *
 * Source: generalised residual of the ordered probit, Chesher and Irish 1987; its mean is 0 and its variance at most 1
 * when the expectation is right.
 * @param chances of each grade, ascending, that sum to 1
 * @param seen index of the grade that was seen
 * @example gradeResidual([0.5, 0.5], 0) // 0.798
 */
export function gradeResidual(chances: readonly number[] | Float64Array, seen: number): number {
  const total = 1 + LEAST_CHANCE * chances.length;
  const chanceOf = (grade: number) => ((chances[grade] ?? 0) + LEAST_CHANCE) / total;
  let below = 0;
  for (let grade = 0; grade < seen; grade++) below += chanceOf(grade);
  const own = chanceOf(seen);
  const above = Math.min(1, below + own);
  const depth = (densityAt(below) - densityAt(above)) / own;
  return Math.max(-MOST, Math.min(MOST, -depth));
}

/** A grade held for impossible is a surprise, not an infinite one. */
const LEAST_CHANCE = 1e-4;
const MOST = 3.5;

/** The normal density at a quantile. */
function densityAt(share: number): number {
  if (share <= 0 || share >= 1) return 0;
  return normalPdf(normalQuantile(share));
}

/**
 * Quantile of the standard normal distribution, to 1.2e-9. Source: Acklam's rational approximation (from memory),
 * checked in the tests against the distribution function.
 *
 * @example normalQuantile(0.5) // 0
 */
export function normalQuantile(share: number): number {
  if (share <= 0) return -Infinity;
  if (share >= 1) return Infinity;
  if (share > 0.5) return -normalQuantile(1 - share);
  if (share < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(share));
    return polynomial(C, q) / (polynomial(D, q) * q + 1);
  }
  const q = share - 0.5;
  const r = q * q;
  return (polynomial(A, r) * q) / (polynomial(B, r) * r + 1);
}

const A = [
  -3.969683028665376e1, 2.209460984245205e2, -2.759285104469687e2, 1.38357751867269e2, -3.066479806614716e1,
  2.506628277459239,
];
const B = [
  -5.447609879822406e1, 1.615858368580409e2, -1.556989798598866e2, 6.680131188771972e1, -1.328068155288572e1,
];
const C = [
  -7.784894002430293e-3, -3.223964580411365e-1, -2.400758277161838, -2.549732539343734, 4.374664141464968,
  2.938163982698783,
];
const D = [7.784695709041462e-3, 3.224671290700398e-1, 2.445134137142996, 3.754408661907416];

function polynomial(coefficients: readonly number[], x: number): number {
  return coefficients.reduce((sum, coefficient) => sum * x + coefficient, 0);
}
