import type { LearntSpreads } from '#core/knowledge/knowledge.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/**
 * Priors with the spreads that a book has taught in place of the believed ones.
 *
 * @example withSpreads(COMMON_PRIORS, null) === COMMON_PRIORS // true
 */
export function withSpreads(priors: Priors, spreads: LearntSpreads | null): Priors {
  if (!spreads) return priors;
  const { beliefs } = priors;
  return {
    ...priors,
    beliefs: {
      ...beliefs,
      sheet: { ...beliefs.sheet, sd: spreads.sheet },
      gapSheet: { ...beliefs.gapSheet, sd: spreads.gapSheet },
      reachSheet: { ...beliefs.reachSheet, sd: spreads.reachSheet },
      sharesSheet: { ...beliefs.sharesSheet, sd: spreads.sharesSheet },
      ...(spreads.noise ? { spread: { ...beliefs.spread, mean: Math.log(spreads.noise) } } : {}),
    },
  };
}
