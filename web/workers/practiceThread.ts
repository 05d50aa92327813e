import { expose } from 'comlink';
import { AppError } from '#core/errors/appError.ts';
import type { CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import { findExercise, type Exercise } from '#core/practice/exercises.ts';
import {
  adviseHere,
  openForce,
  playOthers,
  type CutPiece,
  type ForceScore,
} from '#core/practice/practiceForce.ts';
import { playFault, type FaultScore } from '#core/practice/practiceFault.ts';
import {
  adviseTabs,
  openTabs,
  playTabs,
  type PushedPiece,
  type TabAdvice,
  type TabScore,
} from '#core/practice/practiceTabs.ts';

/** What practice asks of a thread of its own: fits and whole searches take too long for the page. */
const practiceThread = {
  adviseForce: (id: string, seed: number, pieces: readonly CutPiece[], passes: number): CutAdvice =>
    adviseHere(openForce(of(id, 'force'), seed), pieces, passes),
  adviseTabs: (id: string, seed: number, pieces: readonly PushedPiece[]): TabAdvice =>
    adviseTabs(openTabs(of(id, 'tabs'), seed), pieces),
  othersOfForce: (id: string, seed: number): readonly ForceScore[] =>
    playOthers(openForce(of(id, 'force'), seed)),
  othersOfTabs: (id: string, seed: number): readonly TabScore[] => playTabs(openTabs(of(id, 'tabs'), seed)),
  othersOfFault: (id: string, seed: number): readonly FaultScore[] =>
    playFault({ exercise: of(id, 'fault'), seed }),
};
export type PracticeThread = typeof practiceThread;

function of<Kind extends Exercise['kind']>(id: string, kind: Kind): Extract<Exercise, { kind: Kind }> {
  const found = findExercise(id);
  if (found?.kind !== kind) throw new AppError('notFound', `there is no such exercise: ${id}`);
  return found as Extract<Exercise, { kind: Kind }>;
}

expose(practiceThread);
