import type { SheetBelief } from '#core/threshold/trial.ts';

/** A belief as JSON carries it: typed arrays would be written as objects. */
export type PlainBelief = Omit<SheetBelief, 'mean' | 'precision'> & {
  readonly mean: readonly number[];
  readonly precision: readonly number[];
};

/**
 * A belief to be sent or compared.
 *
 * @example plainBelief(question.belief).mean.length // 12
 */
export function plainBelief(belief: SheetBelief): PlainBelief {
  return { ...belief, mean: [...belief.mean], precision: [...belief.precision] };
}

/**
 * The belief that was sent.
 *
 * @example typedBelief(plainBelief(question.belief)).mean.length // 12
 */
export function typedBelief(plain: PlainBelief): SheetBelief {
  return {
    ...plain,
    mean: Float64Array.from(plain.mean),
    precision: Float64Array.from(plain.precision),
  };
}
