import { NOTHING } from '#core/units/rounding.ts';
/**
 * Quantiles of weighted values: the smallest value at which the running weight reaches each share.
 *
 * @param weights sum to 1, same length as `values`
 * @param shares ascending, each in [0, 1]
 * @example weightedQuantiles([3, 1, 2], [0.2, 0.5, 0.3], [0.5]) // [1]
 */
export function weightedQuantiles(
  values: ArrayLike<number>,
  weights: ArrayLike<number>,
  shares: readonly number[],
): readonly number[] {
  const order = Array.from({ length: values.length }, (_, index) => index).sort(
    (a, b) => (values[a] as number) - (values[b] as number),
  );
  const found: number[] = [];
  let running = 0;
  for (const index of order) {
    running += weights[index] as number;
    while (found.length < shares.length && running >= (shares[found.length] as number) - NOTHING) {
      found.push(values[index] as number);
    }
  }
  const last = values[order.at(-1) ?? 0] as number;
  while (found.length < shares.length) found.push(last);
  return found;
}
