import { HARM_CUTS, proposeNextCut, WORTHWHILE_GAIN, type NextCut } from '#core/dialIn/proposeNextCut.ts';
import { targetGrades } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { ForceOutlook } from '#core/threshold/findWindow.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import type { Trial } from '#core/threshold/trial.ts';

/** Below this no force is good enough to keep; something else has to change. */
export const POOR_CHANCE = 0.5;
/** A right cut this near to the best force (in ln force) counts as its confirmation. */
const CONFIRMS_WITHIN = 0.2;
/** Nobody is asked to cut for ever: where the model still hopes after so many cuts, the sheet is not steady. */
const MOST_CUTS = 25;

/** What to do next at the bench, and why. */
export type CutAdvice =
  | { readonly kind: 'cut'; readonly next: NextCut }
  | { readonly kind: 'repeat'; readonly next: NextCut }
  | { readonly kind: 'confirm'; readonly next: NextCut }
  | { readonly kind: 'keep'; readonly next: NextCut }
  | { readonly kind: 'noWindow'; readonly next: NextCut };

/** What advice rests on beside the posterior. */
export interface AdviceFacts {
  readonly surpriseGf?: number | null | undefined;
  /** What a cut liner or a scarred mat costs, in test cuts. */
  readonly harmCuts?: number | undefined;
}

/**
 * Says whether to cut again, repeat, confirm, keep or look for another way, by the first rule that holds:
 *
 * 1. nothing cut yet: cut. 2. the last grade was a surprise and was not yet repeated: repeat it instead of believing
 * it. 3. another cut is worth its sheet: cut. 4. no settable force is likely right and cutting teaches no more:
 * noWindow. 5. nothing near the best force has cut right yet on a load of its own: confirm it. 6. keep.
 *
 * @param best the best settable force, as findWindow found it for the same operation
 * @param trials of this sheet under these conditions, oldest first
 * @param found the force of the last cut where its grade was a surprise, see findSurprise, and what harm costs
 * @throws AppError `badInput` when the sheet has no such operation
 * @example adviseNextCut(posterior, 'kiss', forces, { forceGf: 75, under: 0.1, right: 0.8, over: 0.1 }, trials).kind // 'keep'
 */
export function adviseNextCut(
  posterior: ThresholdPosterior,
  operation: DepthOperation,
  forcesGf: readonly number[],
  best: ForceOutlook,
  trials: readonly Trial[],
  { surpriseGf = null, harmCuts = HARM_CUTS }: AdviceFacts = {},
): CutAdvice {
  const proposed = proposeNextCut(posterior, operation, forcesGf, harmCuts);
  // What is best so far is one figure, here and wherever else it is told.
  const next: NextCut = { ...proposed, bestGf: best.forceGf, chanceNow: best.right };
  const at = (forceGf: number): NextCut => ({ ...next, forceGf });
  if (trials.length === 0) return { kind: 'cut', next };
  if (surpriseGf !== null) return { kind: 'repeat', next: at(surpriseGf) };
  if (next.gain >= WORTHWHILE_GAIN && trials.length < MOST_CUTS) return { kind: 'cut', next };
  if (best.right < POOR_CHANCE) return { kind: 'noWindow', next: at(best.forceGf) };
  return {
    kind: isConfirmed(best.forceGf, operation, trials) ? 'keep' : 'confirm',
    next: at(best.forceGf),
  };
}

/**
 * Whether a cut near the force was right, and not only on the card that pointed to it: the cells of one load share
 * its noise, so a ladder alone confirms nothing.
 */
function isConfirmed(forceGf: number, operation: DepthOperation, trials: readonly Trial[]): boolean {
  const loads = new Set(trials.map((trial, index) => trial.load ?? -1 - index));
  if (loads.size === 1 && trials.length > 1) return false;
  const wanted = [...(targetGrades(operation, true) ?? []), ...(targetGrades(operation, false) ?? [])];
  return trials.some(
    (trial) => wanted.includes(trial.grade) && Math.abs(Math.log(trial.forceGf / forceGf)) <= CONFIRMS_WITHIN,
  );
}
