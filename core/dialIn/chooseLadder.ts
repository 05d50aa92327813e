import { itemAt } from '#core/collections/itemAt.ts';
import { thinEvenly } from '#core/dialIn/thinEvenly.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { targetIndexes } from '#core/threshold/findWindow.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { weightedQuantiles } from '#core/threshold/numerics/weightedQuantiles.ts';

/** Cells of a ladder card: enough to find a window in one load, few enough to grade while standing. */
export const LADDER_CELLS = 6;
/** Cells of the card that confirms: the best force and one on either side, for one load costs the same. */
export const CONFIRMING_CELLS = 3;

/**
 * Where a ladder begins and ends, as quantiles of where the middle of the window is believed to be. Its upper cells are
 * the ones that cut liners and mats: ending at 65 % instead of 95 % halves what a search spoils (referee, three sets of
 * 120 sheets: 1.9 to 0.8) and finds as well (mean P .965 to .967); below 60 % it finds worse.
 */
const REACH: readonly [number, number] = [0.05, 0.65];

/**
 * The forces of a ladder card: settable ones, spread evenly in log over where the middle of the window probably is.
 * Nearly as good as the best design at a small part of its cost.
 *
 * @param forcesGf every force the machine can be set to, in gf, ascending, at least one
 * @returns ascending, at most `cells` of them; fewer where the machine has no more steps in the range
 * @throws AppError `badInput` when the sheet has no such operation
 * @example chooseLadder(posterior, 'kiss', forces).length // 6
 */
export function chooseLadder(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
  cells = LADDER_CELLS,
): readonly number[] {
  const target = targetIndexes(posterior, operation);
  const edges = posterior.grades.length - 1;
  const middles = Float64Array.from({ length: posterior.drawCount }, (_, draw) => {
    const low = itemAt(posterior.boundaries, draw * edges + target.first - 1);
    return (low + itemAt(posterior.boundaries, draw * edges + target.last)) / 2;
  });
  const [from, to] = weightedQuantiles(middles, posterior.weights, [...REACH]) as [number, number];
  const inside = forcesGf.filter((force) => force >= Math.exp(from) && force <= Math.exp(to));
  if (inside.length >= cells) return thinEvenly(inside, cells);
  return nearest(forcesGf, Math.exp((from + to) / 2), cells);
}

/** The settable forces nearest to a middle, ascending. */
function nearest(forcesGf: readonly number[], middleGf: number, count: number): readonly number[] {
  return forcesGf
    .toSorted((a, b) => Math.abs(Math.log(a / middleGf)) - Math.abs(Math.log(b / middleGf)))
    .slice(0, count)
    .toSorted((a, b) => a - b);
}
