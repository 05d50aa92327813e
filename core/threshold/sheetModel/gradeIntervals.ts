import type { Link } from '#core/threshold/numerics/link.ts';

/**
 * Probabilities of K ordered grades from K - 1 descending standardised indexes: grade j lies between index j - 1
 * and index j, so P(grade >= j) = cdf(index[j - 1]). Each edge costs one call of the link, of its smaller tail, so
 * that a small probability keeps its digits instead of being the difference of two numbers near 1.
 *
 * @param indexes length K - 1, descending; (latent index - boundary) / spread
 * @param out length K, overwritten and returned
 * @example [...gradeIntervals(PROBIT, Float64Array.of(0), new Float64Array(2))] // [0.5, 0.5]
 */
export function gradeIntervals(link: Link, indexes: Float64Array, out: Float64Array): Float64Array {
  const last = indexes.length;
  let upper = Infinity;
  let upperTail = 0;
  for (let grade = 0; grade < last; grade++) {
    const lower = indexes[grade] as number;
    const lowerTail = link.cdf(-Math.abs(lower));
    out[grade] = Math.max(0, between(lower, lowerTail, upper, upperTail));
    upper = lower;
    upperTail = lowerTail;
  }
  out[last] = upper < 0 ? upperTail : 1 - upperTail;
  return out;
}

/** P(lower < noise <= upper) from both ends and the probability of the smaller tail beyond each. */
function between(lower: number, lowerTail: number, upper: number, upperTail: number): number {
  if (lower > 0) return lowerTail - upperTail;
  if (upper < 0) return upperTail - lowerTail;
  return 1 - lowerTail - upperTail;
}
