import { learnLife } from '#core/wear/learnLife.ts';

/** What is believed of how long a kind of blade lasts: weighted metres at which people change it. */
export interface BladeLife {
  /** Nine in ten last longer, half do, one in ten does, m. */
  readonly lowMetres: number;
  readonly middleMetres: number;
  readonly highMetres: number;
  /** Changes it was learnt from. */
  readonly changes: number;
}

/**
 * How long a kind of blade lasts here: what is said of it, moved by when its like were taken off for good. A blade that
 * was still good when it was taken off is not counted by the caller.
 *
 * @param saidMetres the life that is said of the kind, weighted metres
 * @param changedAtMetres travel at each change of a blade of this kind
 * @example learnBladeLife(360, []).middleMetres // 360
 */
export function learnBladeLife(saidMetres: number, changedAtMetres: readonly number[]): BladeLife {
  const { low, middle, high, changes } = learnLife(saidMetres, changedAtMetres);
  return { lowMetres: low, middleMetres: middle, highMetres: high, changes };
}

/** What to do with a blade. */
export type BladeAdvice = 'good' | 'clean' | 'change';

/** Life that is left to a blade as a band, and what to do. */
export interface LifeLeft {
  readonly lowMetres: number;
  readonly highMetres: number;
  readonly advice: BladeAdvice;
  readonly reason: string;
}

/**
 * Life left by travel and by what the cuts say: a drift to more force counts as wear, however young the blade.
 *
 * @param driftsToMore an alarm stands that things need more force
 * @param wasCleaned since the drift began: cleaning did not help
 * @example judgeBlade(learnBladeLife(360, []), 20, false, false).advice // 'good'
 */
export function judgeBlade(
  life: BladeLife,
  travelMetres: number,
  driftsToMore: boolean,
  wasCleaned: boolean,
): LifeLeft {
  const left = {
    lowMetres: Math.max(0, life.lowMetres - travelMetres),
    highMetres: Math.max(0, life.highMetres - travelMetres),
  };
  if (travelMetres > life.highMetres) {
    return { ...left, advice: 'change', reason: 'it has outlasted nine in ten of its kind' };
  }
  if (driftsToMore && (wasCleaned || travelMetres > life.middleMetres)) {
    return {
      ...left,
      advice: 'change',
      reason: wasCleaned
        ? 'cuts need more force, and cleaning did not help'
        : 'cuts need more force, and it is old',
    };
  }
  if (driftsToMore)
    return { ...left, advice: 'clean', reason: 'cuts need more force: clean it and look at the tip' };
  if (travelMetres > life.lowMetres) {
    return { ...left, advice: 'clean', reason: 'from here on some of its kind are done: look at the tip' };
  }
  return { ...left, advice: 'good', reason: 'most of its kind last longer' };
}

/** The threshold model's usual effect of wear, until the book has learnt another. Source: its priors. */
export const WEAR_EFFECT = 0.2;

/**
 * The force that a fresh blade would want where a worn one wants 1: the model's effect of wear, (1 + metres / 500) to
 * the power -wear.
 *
 * @param wear of the threshold model; 0.2 until the book has learnt another
 * @example freshBladeFactor(500, 0.2) // 0.871
 */
export function freshBladeFactor(bladeMetres: number, wear: number): number {
  return (1 + bladeMetres / 500) ** -wear;
}
