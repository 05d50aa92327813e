import { adviseNextCut } from '#core/dialIn/adviseNextCut.ts';
import { findSurprise } from '#core/dialIn/findSurprise.ts';
import { seeCut, type TrueSheet } from '#core/practice/hiddenSheet.ts';
import type { World } from '#core/practice/worlds.ts';
import type { Random } from '#core/random/seededRandom.ts';
import { targetGrades, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import type { ThresholdModel, ThresholdPosterior } from '#core/threshold/posterior.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import { FAMILY_HABITS } from '#core/threshold/thresholdPriors.ts';
import type { SheetBelief, Trial } from '#core/threshold/trial.ts';

/** A sheet to be dialled in: everything a strategy may know, and the cutter that answers it. */
export interface Task {
  readonly sheet: TrueSheet;
  readonly operation: DepthOperation;
  readonly world: World;
  readonly forcesGf: readonly number[];
  readonly random: Random;
}

/** How a strategy ended. */
export interface Outcome {
  readonly cuts: number;
  readonly loads: number;
  /** The force it keeps, or `null` where it gives up and says why. */
  readonly keptGf: number;
  /** The chance of a right cut that it claims there. */
  readonly claimed: number | null;
  readonly trials: readonly Trial[];
  readonly posterior: ThresholdPosterior | null;
  readonly proposalMs: readonly number[];
}

const MOST_CUTS = 25;
/** One person cuts in each workshop. */
export const READER = 'the one who cuts';

/** Which side of the wanted grades a seen grade lies on: -1 too shallow, 0 wanted, 1 too deep. */
function sideOf(task: Task, grade: DepthGrade): -1 | 0 | 1 {
  const wanted = targetGrades(task.operation, task.sheet.grades.length === 9) ?? [];
  if (grade < (wanted[0] as number)) return -1;
  return grade > (wanted.at(-1) as number) ? 1 : 0;
}

/** What operators start from: the family's usual force, for the operation. */
function usualGf({ sheet, operation }: Task): number {
  const habit = FAMILY_HABITS[sheet.told.family];
  return habit.usualGf * (operation === 'through' ? habit.throughRatio : 1);
}

const nearest = (forcesGf: readonly number[], gf: number) =>
  forcesGf.reduce((best, one) => (Math.abs(one - gf) < Math.abs(best - gf) ? one : best));

/**
 * Start low, raise by a fixed step, keep the first force that works; after an overshoot, one step back down.
 *
 * @example habit(hiddenTask, 5).claimed // null
 */
export function habit(task: Task, stepGf: number): Outcome {
  const trials: Trial[] = [];
  let force = nearest(task.forcesGf, usualGf(task) * 0.8);
  let last = 0;
  while (trials.length < MOST_CUTS) {
    const grade = seeCut(task.sheet, force, task.world, task.random);
    trials.push({ ...task.sheet.conditions, forceGf: force, grade });
    const side = sideOf(task, grade);
    if (side === 0 || (side === 1 && last === -1)) break;
    last = side;
    const next = nearest(task.forcesGf, force - side * stepGf);
    force = next === force ? (task.forcesGf.at(task.forcesGf.indexOf(force) - side) ?? force) : next;
  }
  return plain(trials, force);
}

/**
 * Up and down by a quarter, halved at each reversal, until a cut works.
 *
 * @example staircase(hiddenTask).claimed // null
 */
export function staircase(task: Task): Outcome {
  const trials: Trial[] = [];
  let force = nearest(task.forcesGf, usualGf(task));
  let ratio = 1.25;
  let last = 0;
  while (trials.length < MOST_CUTS) {
    const grade = seeCut(task.sheet, force, task.world, task.random);
    trials.push({ ...task.sheet.conditions, forceGf: force, grade });
    const side = sideOf(task, grade);
    if (side === 0) break;
    if (last !== 0 && side !== last) ratio = Math.sqrt(ratio);
    last = side;
    force = nearest(task.forcesGf, side === -1 ? force * ratio : force / ratio);
  }
  return plain(trials, force);
}

function plain(trials: readonly Trial[], keptGf: number): Outcome {
  return {
    cuts: trials.length,
    loads: trials.length,
    keptGf,
    claimed: null,
    trials,
    posterior: null,
    proposalMs: [],
  };
}

/**
 * The model of a sheet, remembering its fits by the number of trials: the surprise asks for the one before.
 *
 * @example remember(1).version.length > 0 // true
 */
export function remember(seed: number): ThresholdModel {
  const model = sheetModel(seed);
  const fits = new Map<number, ThresholdPosterior>();
  return {
    version: model.version,
    fit: (question, trials) => {
      const known = fits.get(trials.length) ?? model.fit(question, trials);
      fits.set(trials.length, known);
      return known;
    },
  };
}

/**
 * Ours, one cut at a time, until the advice says keep (or that there is no window).
 *
 * @param harmCuts what a spoiled liner or mat costs the workshop, in test cuts; the usual price when left out
 * @param now a clock in ms, where it is to be told how long each proposal took
 * @example oneAtATime(hiddenTask, hiddenBelief, 1).posterior !== null // true
 */
export function oneAtATime(
  task: Task,
  belief: SheetBelief,
  seed: number,
  harmCuts?: number,
  now: () => number = () => 0,
): Outcome {
  const { sheet, operation, forcesGf, world, random } = task;
  const trials: Trial[] = [];
  const proposalMs: number[] = [];
  const model = remember(seed);
  const question = { belief, conditions: sheet.conditions };
  for (;;) {
    const started = now();
    const posterior = model.fit(question, trials);
    const { best } = findWindow(posterior, operation, forcesGf);
    const surprise = findSurprise(model, question, trials);
    const advice = adviseNextCut(posterior, operation, forcesGf, best, trials, {
      surpriseGf: surprise?.forceGf ?? null,
      harmCuts,
    });
    proposalMs.push(now() - started);
    if (advice.kind === 'keep' || advice.kind === 'noWindow' || trials.length >= MOST_CUTS) {
      const loads = trials.length;
      return { cuts: loads, loads, keptGf: best.forceGf, claimed: best.right, trials, posterior, proposalMs };
    }
    const { forceGf } = advice.next;
    const grade = seeCut(sheet, forceGf, world, random);
    trials.push({ ...sheet.conditions, forceGf, grade, reader: READER });
  }
}
