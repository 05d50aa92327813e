import { predictGrades } from '#core/threshold/predictGrades.ts';
import type { ThresholdModel } from '#core/threshold/posterior.ts';
import type { ThresholdQuestion, Trial } from '#core/threshold/trial.ts';

/** A grade that had less than this chance is a surprise: misread, or a spot that is not like the rest. */
const SURPRISING = 0.04;
/** Cuts at forces as near as this (in ln force) are repeats of each other. */
const SAME_FORCE = 0.01;

/** A grade that the cuts before it did not expect. */
export interface Surprise {
  readonly forceGf: number;
  /** The chance it had, 0 to 1. */
  readonly chance: number;
}

/**
 * Whether the last grade was a surprise: the chance it had by everything before it. Most bad settings come from one
 * misjudged grade, so a surprising one is worth a repeat before it is believed; repeated once, it stands.
 *
 * @param trials of this sheet under these conditions, oldest first
 * @returns `null` when the last grade was to be expected, is the first, is one of a ladder, or was cut again already
 * @example findSurprise(model, question, []) // null
 */
export function findSurprise(
  model: ThresholdModel,
  question: ThresholdQuestion,
  trials: readonly Trial[],
): Surprise | null {
  const last = trials.at(-1);
  const before = trials.slice(0, -1);
  if (!last || before.length === 0 || last.load !== undefined) return null;
  const isRepeat = before.some((trial) => Math.abs(Math.log(trial.forceGf / last.forceGf)) < SAME_FORCE);
  if (isRepeat) return null;
  const conditions = { passes: last.passes, speedMmPerS: last.speedMmPerS, bladeMetres: last.bladeMetres };
  const posterior = model.fit({ ...question, conditions }, before);
  const chance = predictGrades(posterior, last.forceGf)[posterior.grades.indexOf(last.grade)] ?? 0;
  return chance < SURPRISING ? { forceGf: last.forceGf, chance } : null;
}
