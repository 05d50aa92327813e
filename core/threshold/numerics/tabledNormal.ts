import { normalCdf } from '#core/threshold/numerics/normal.ts';

/** Beyond this the distribution is 0 or 1 to nine digits. */
const END = 6;
const NODES_PER_UNIT = 256;
const LAST = 2 * END * NODES_PER_UNIT;
const CDF = Float64Array.from({ length: LAST + 1 }, (_, node) => normalCdf(node / NODES_PER_UNIT - END));

/**
 * The normal distribution for predictions, which average over hundreds of draws and ask it millions of times: a table
 * with straight lines between its nodes. Wrong by 5e-7 at most (a quarter of a node's width, squared, by the steepest
 * curvature), never falling, and about five times quicker than the fast probit, whose
 * tails keep their digits.
 *
 * @example tabledCdf(0) // 0.5
 */
export function tabledCdf(x: number): number {
  const at = (x + END) * NODES_PER_UNIT;
  if (!(at > 0)) return 0;
  if (at >= LAST) return 1;
  const node = Math.floor(at);
  const left = CDF[node] as number;
  return left + ((CDF[node + 1] as number) - left) * (at - node);
}
