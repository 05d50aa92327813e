import type { WaitKind } from '#core/prep/waits.ts';
import { factsOf, type Family } from '#core/stack/families/families.ts';
import type { ConditionKind } from '#core/stack/material.ts';

/** What a wait route is asked for. */
export interface WaitOrderQuestion {
  readonly family: Family;
  readonly condition: ConditionKind;
  /** Something is printed on it in this job. */
  readonly isPrinted: boolean;
}

/**
 * What a sheet waits for on its way, in order: ink, coats and curing of sealer, settling of laminate; a transfer rests once
 * it is cut, before it is masked, and again once it is pressed. Common practice, no source; a workshop's own route comes first.
 *
 * @example usualWaits({ family: 'printableVinyl', condition: 'laminated', isPrinted: true })
 * // ['inkDry', 'laminateSettles']
 */
export function usualWaits({ family, condition, isPrinted }: WaitOrderQuestion): readonly WaitKind[] {
  return [
    ...(isPrinted ? (['inkDry'] as const) : []),
    ...(condition === 'sealed' ? (['sealerCoat', 'sealerCures'] as const) : []),
    ...(condition === 'laminated' ? (['laminateSettles'] as const) : []),
    ...(isPrinted && factsOf(family).isPressedOn ? (['transferRests', 'pressRests'] as const) : []),
  ];
}

/**
 * The route of a state: its own where somebody said one, without the ink of a job that prints nothing.
 *
 * @param own of the state, or `null`
 * @example findWaits({ family: 'cardstock', condition: 'bare', isPrinted: false }, ['inkDry']) // []
 */
export function findWaits(question: WaitOrderQuestion, own: readonly WaitKind[] | null): readonly WaitKind[] {
  if (!own) return usualWaits(question);
  return question.isPrinted ? own : own.filter((kind) => kind !== 'inkDry');
}
