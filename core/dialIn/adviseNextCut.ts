import { proposeNextCut, type NextCut } from '#core/dialIn/proposeNextCut.ts';
import { targetGrades, type Operation } from '#core/stack/depthGrade.ts';
import type { ForceOutlook } from '#core/threshold/findWindow.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import type { Trial } from '#core/threshold/trial.ts';

/** Another test cut that gains less than this is not worth its sheet. */
const WORTHWHILE_GAIN = 0.006;
/** Below this no force is good enough to keep; something else has to change. */
const POOR_CHANCE = 0.5;
/** A clean cut this near to the best force (in ln force) counts as its confirmation. */
const CONFIRMS_WITHIN = 0.06;

/** What to do next at the bench, and why. */
export type CutAdvice =
  | { readonly kind: 'cut'; readonly next: NextCut }
  | { readonly kind: 'confirm'; readonly next: NextCut }
  | { readonly kind: 'keep'; readonly next: NextCut }
  | { readonly kind: 'noWindow'; readonly next: NextCut };

/**
 * Says whether to cut again, confirm, keep or look for another way.
 *
 * `confirm` comes before `keep`: one misjudged grade is behind most bad settings, so the force to be kept must have
 * cut right once itself. `noWindow` means that no settable force is likely to be right and cutting teaches no more.
 *
 * @param best the best settable force, as findWindow found it for the same operation
 * @param trials of this sheet under these conditions, in any order
 * @throws AppError `badInput` when the sheet has no such operation
 */
export function adviseNextCut(
  posterior: ThresholdPosterior,
  operation: Operation,
  forcesGf: readonly number[],
  best: ForceOutlook,
  trials: readonly Trial[],
  seed: number,
): CutAdvice {
  const next = proposeNextCut(posterior, operation, forcesGf, seed);
  const atBest: NextCut = { ...next, forceGf: best.forceGf, bestGf: best.forceGf, chanceNow: best.right };
  if (trials.length === 0 || next.gain >= WORTHWHILE_GAIN) return { kind: 'cut', next };
  if (best.right < POOR_CHANCE) return { kind: 'noWindow', next: atBest };
  return { kind: isConfirmed(best.forceGf, operation, trials) ? 'keep' : 'confirm', next: atBest };
}

function isConfirmed(forceGf: number, operation: Operation, trials: readonly Trial[]): boolean {
  const near = trials.filter((trial) => Math.abs(Math.log(trial.forceGf / forceGf)) <= CONFIRMS_WITHIN);
  const isRight = (trial: Trial) =>
    (targetGrades(operation, true)?.includes(trial.grade) ?? false) ||
    (operation === 'through' && trial.grade === 7);
  return near.filter(isRight).length > near.length / 2;
}
