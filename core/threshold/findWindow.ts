import { AppError } from '#core/errors/appError.ts';
import { targetGrades } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { tabledCdf } from '#core/threshold/numerics/tabledNormal.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { weightedQuantiles } from '#core/threshold/numerics/weightedQuantiles.ts';

/** An edge of the window in gf: its median and the 5 and 95 % points of what is believed. */
export interface CredibleEdge {
  readonly lowGf: number;
  readonly middleGf: number;
  readonly highGf: number;
}

/** What one force would do, as probabilities that sum to 1. */
export interface ForceOutlook {
  readonly forceGf: number;
  readonly under: number;
  readonly right: number;
  readonly over: number;
}

export interface ForceWindow {
  /** One entry per settable force, ascending. */
  readonly outlooks: readonly ForceOutlook[];
  /** The settable force with the highest chance of being right. */
  readonly best: ForceOutlook;
  readonly lowerEdge: CredibleEdge;
  readonly upperEdge: CredibleEdge;
  /** Ends of the settable forces that are right at least {@link SURE} of the time around the best, or `null`. */
  readonly sure: { readonly fromGf: number; readonly toGf: number } | null;
}

/** A force counts as inside the window when it is right at least this often. */
export const SURE = 0.9;

/** Draws lighter than this change no shown digit. */
const NEGLIGIBLE_WEIGHT = 1e-7;

/**
 * The force window of an operation: which settable forces are under, right and over, and how soft its edges are.
 *
 * @param forcesGf every force the machine can be set to, in gf, ascending, at least one
 * @throws AppError `badInput` when the sheet has no such operation (kiss on a single layer)
 * @example findWindow(posterior, 'kiss', forces).best.forceGf // 75
 */
export function findWindow(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
): ForceWindow {
  const target = targetIndexes(posterior, operation);
  const outlooks = forcesGf.map((forceGf) => outlookAt(posterior, target, forceGf));
  const bestIndex = outlooks.reduce(
    (best, at, index) => (at.right > requireOutlook(outlooks, best).right ? index : best),
    0,
  );
  return {
    outlooks,
    best: requireOutlook(outlooks, bestIndex),
    lowerEdge: credibleEdge(posterior, target.first - 1),
    upperEdge: credibleEdge(posterior, target.last),
    sure: sureAround(outlooks, bestIndex),
  };
}

/**
 * First and last wanted grade as positions in `posterior.grades`.
 *
 * @throws AppError `badInput` when the sheet has no such operation
 * @example targetIndexes(posterior, 'kiss') // { first: 3, last: 4 }
 */
export function targetIndexes(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
): { readonly first: number; readonly last: number } {
  const wanted = targetGrades(operation, posterior.grades.length === 9);
  const first = posterior.grades.indexOf(wanted?.at(0) ?? 3);
  const last = posterior.grades.indexOf(wanted?.at(-1) ?? 3);
  if (wanted === null || first < 1)
    throw new AppError(
      'badInput',
      operation === 'score'
        ? 'a layered sheet is kissed, not scored'
        : 'a single layer has nothing to kiss down to',
    );
  return { first, last };
}

/**
 * The chances of one force: only the two edges of the target count, so only they are asked.
 *
 * @example outlookAt(posterior, targetIndexes(posterior, 'kiss'), 40).under > 0.9 // true
 */
export function outlookAt(
  posterior: ThresholdPosterior,
  target: { readonly first: number; readonly last: number },
  forceGf: number,
): ForceOutlook {
  const edges = posterior.grades.length - 1;
  const lnForce = Math.log(forceGf);
  const isOpenAbove = target.last === edges;
  let under = 0;
  let over = 0;
  for (let draw = 0; draw < posterior.drawCount; draw++) {
    const weight = posterior.weights[draw] as number;
    if (weight < NEGLIGIBLE_WEIGHT) continue;
    const spread = posterior.spreads[draw] as number;
    const start = draw * edges;
    const below = ((posterior.boundaries[start + target.first - 1] as number) - lnForce) / spread;
    under += weight * tabledCdf(below);
    if (isOpenAbove) continue;
    over += weight * tabledCdf((lnForce - (posterior.boundaries[start + target.last] as number)) / spread);
  }
  return { forceGf, under, right: Math.max(0, 1 - under - over), over };
}

/**
 * Where a boundary lies, by what is believed. @param edge its position, 0 for that between the first two grades
 *
 * @example credibleEdge(posterior, 2).lowGf < credibleEdge(posterior, 2).highGf // true
 */
export function credibleEdge(posterior: ThresholdPosterior, edge: number): CredibleEdge {
  const edges = posterior.grades.length - 1;
  const positions = Float64Array.from(
    { length: posterior.drawCount },
    (_, draw) => posterior.boundaries[draw * edges + edge] as number,
  );
  const [low, middle, high] = weightedQuantiles(positions, posterior.weights, [0.05, 0.5, 0.95]) as [
    number,
    number,
    number,
  ];
  return { lowGf: Math.exp(low), middleGf: Math.exp(middle), highGf: Math.exp(high) };
}

function sureAround(outlooks: readonly ForceOutlook[], best: number): ForceWindow['sure'] {
  if (requireOutlook(outlooks, best).right < SURE) return null;
  let from = best;
  let to = best;
  while (from > 0 && requireOutlook(outlooks, from - 1).right >= SURE) from--;
  while (to < outlooks.length - 1 && requireOutlook(outlooks, to + 1).right >= SURE) to++;
  return { fromGf: requireOutlook(outlooks, from).forceGf, toGf: requireOutlook(outlooks, to).forceGf };
}

function requireOutlook(outlooks: readonly ForceOutlook[], index: number): ForceOutlook {
  const outlook = outlooks[index];
  if (!outlook) throw new AppError('badInput', 'the machine has no force to set');
  return outlook;
}
