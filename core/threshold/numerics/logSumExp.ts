/**
 * The log of a sum of exponentials, without overflow.
 *
 * @example logSumExp(Float64Array.of(1000, 1000)) // 1000.6931
 */
export function logSumExp(values: Float64Array): number {
  let most = -Infinity;
  for (const value of values) most = Math.max(most, value);
  let sum = 0;
  for (const value of values) sum += Math.exp(value - most);
  return most + Math.log(sum);
}
