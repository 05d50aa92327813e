import { factsOfCause, type Cause } from '#core/faults/causes.ts';
import { ACTION_FACTS, type Action } from '#core/faults/faultActions.ts';
import { rankActions } from '#core/faults/rankActions.ts';
import { rankCauses } from '#core/faults/rankCauses.ts';
import type { FaultExercise } from '#core/practice/exercises.ts';
import { seededRandom, seedFromText } from '#core/random/seededRandom.ts';

/** What came of one thing that was tried. */
export interface TriedAction {
  readonly action: Action;
  /** What is left after it: the fault, part of it, or nothing. */
  readonly left: 'all' | 'some' | 'none';
  /** Whether the fault is only covered up: the cut is right, and what is behind it is still there. */
  readonly isCovered: boolean;
}

/** What covers a fault without mending what is behind it. */
const COVERS: ReadonlySet<Action> = new Set(['moreForce', 'onePassMore', 'slower', 'moreExposure']);

/** Causes behind the fault that are still there after these actions. */
function causesLeft({ exercise, seed }: OpenFault, actions: readonly Action[]): readonly Cause[] {
  return exercise.causes.filter((cause) =>
    actions.every((action) => {
      const chance = factsOfCause(cause).mendedBy[action] ?? 0;
      // What would mend it in most cases mends it here; the rest is the luck of the seed.
      return seededRandom(seedFromText(`${exercise.id} ${seed} ${cause} ${action}`))() >= chance;
    }),
  );
}

/** A fault exercise with the seed of its luck. */
export interface OpenFault {
  readonly exercise: FaultExercise;
  readonly seed: number;
}

/**
 * Tries one thing, and cuts a piece to look at.
 *
 * @param before what was tried already
 * @example tryAction({ exercise: faultExercise, seed: 1 }, [], 'freshMat').left // 'all'
 */
export function tryAction(open: OpenFault, before: readonly TriedAction[], action: Action): TriedAction {
  const actions = [...before.map((one) => one.action), action];
  const left = causesLeft(open, actions);
  const mended = causesLeft(
    open,
    actions.filter((one) => !COVERS.has(one)),
  );
  const state = left.length === 0 ? 'none' : left.length < open.exercise.causes.length ? 'some' : 'all';
  return { action, left: state, isCovered: mended.length > left.length };
}

/** How the mending went. */
export interface FaultScore {
  readonly name: string;
  readonly tried: number;
  readonly sheets: number;
  readonly minutes: number;
  /** Whether what was behind it is gone, or only covered, or still there. */
  readonly end: 'mended' | 'covered' | 'there';
}

/**
 * Scores what was tried.
 *
 * @example scoreFault([]).end // 'there'
 */
export function scoreFault(tried: readonly TriedAction[]): FaultScore {
  const last = tried.at(-1);
  const sum = (of: 'sheets' | 'minutes') =>
    tried.reduce((all, { action }) => all + ACTION_FACTS[action][of], 0);
  return {
    name: 'You',
    tried: tried.length,
    sheets: sum('sheets'),
    minutes: sum('minutes'),
    end: last?.left !== 'none' ? 'there' : last.isCovered ? 'covered' : 'mended',
  };
}

/** What hands do first where nobody thinks: turn a dial, then change what is at hand. Common practice, no source. */
const HABIT: readonly Action[] = [
  'moreForce',
  'onePassMore',
  'slower',
  'freshMat',
  'changeBlade',
  'cleanBlade',
  'dryCard',
];

/**
 * What the tool would try next, of what the exercise offers.
 *
 * @example adviseFault({ exercise: faultExercise, seed: 1 }, []) // 'cleanBlade'
 */
export function adviseFault({ exercise }: OpenFault, tried: readonly TriedAction[]): Action | null {
  const { symptoms, known, offered } = exercise;
  const done = tried.map(({ action }) => action);
  const ranked = rankActions(rankCauses(symptoms, known), symptoms, done);
  return ranked.find(({ action }) => offered.includes(action))?.action ?? null;
}

/**
 * The same fault by others: by habit, and by the tool.
 *
 * @example playFault({ exercise: faultExercise, seed: 1 }).map(({ name }) => name) // ['By habit', 'Pale Feather']
 */
export function playFault(open: OpenFault): readonly FaultScore[] {
  const habit = HABIT.filter((action) => open.exercise.offered.includes(action));
  const byHabit = playUntilGone(open, (tried) => habit[tried.length] ?? null);
  const byTool = playUntilGone(open, (tried) => adviseFault(open, tried));
  return [
    { ...scoreFault(byHabit), name: 'By habit' },
    { ...scoreFault(byTool), name: 'Pale Feather' },
  ];
}

function playUntilGone(
  open: OpenFault,
  choose: (tried: readonly TriedAction[]) => Action | null,
): readonly TriedAction[] {
  const tried: TriedAction[] = [];
  for (;;) {
    const action = choose(tried);
    if (action === null) return tried;
    tried.push(tryAction(open, tried, action));
    if (tried.at(-1)?.left === 'none') return tried;
  }
}
