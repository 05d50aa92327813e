import erfc from '@stdlib/math-base-special-erfc';

/** Standard normal distribution function, accurate in both tails. @example normalCdf(0) // 0.5 */
export function normalCdf(x: number): number {
  return 0.5 * erfc(-x * Math.SQRT1_2);
}

/**
 * Standard normal density.
 *
 * @example normalPdf(0) // 0.3989
 */
export function normalPdf(x: number): number {
  return Math.exp(-0.5 * x * x) / Math.sqrt(2 * Math.PI);
}
