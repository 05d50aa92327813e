import { CAUSE_FACTS, type CauseFacts } from '#core/faults/listCauses.ts';

/** Chance of a symptom that a cause has nothing to do with. */
export const LEAK = 0.015;

export type Cause = keyof typeof CAUSE_FACTS;
export const CAUSES = Object.keys(CAUSE_FACTS) as unknown as readonly [Cause, ...Cause[]];

/** The facts of a cause. @example factsOfCause('glare').words // 'glare on the marks' */
export function factsOfCause(cause: Cause): CauseFacts {
  return CAUSE_FACTS[cause];
}
