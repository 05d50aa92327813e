import { describe, expect, it } from 'vitest';
import { POOR_CHANCE } from '#core/dialIn/adviseNextCut.ts';
import {
  EXERCISES,
  findExercise,
  type FaultExercise,
  type ForceExercise,
  type TabExercise,
} from '#core/practice/exercises.ts';
import { isHarm, windowRatio, withPasses } from '#core/practice/hiddenSheet.ts';
import {
  adviseFault,
  playFault,
  scoreFault,
  tryAction,
  type TriedAction,
} from '#core/practice/practiceFault.ts';
import {
  adviseHere,
  bestForce,
  cutPiece,
  openForce,
  playOthers,
  scoreForce,
} from '#core/practice/practiceForce.ts';
import {
  adviseTabs,
  bestTabLength,
  openTabs,
  playTabs,
  pushPiece,
  scoreTabs,
} from '#core/practice/practiceTabs.ts';
import { often } from '#core/tests/often.ts';

const forces = EXERCISES.filter((one): one is ForceExercise => one.kind === 'force');
const faults = EXERCISES.filter((one): one is FaultExercise => one.kind === 'fault');
const tabs = findExercise('tabs') as TabExercise;
const SEEDS = Array.from({ length: often(5, 12) }, (_, index) => index + 1);
const exercise = (id: string) => findExercise(id) as ForceExercise;
const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;

describe('the ten exercises', () => {
  it('are ten, each with a name, a story and a rule of its own', () => {
    expect(EXERCISES).toHaveLength(10);
    for (const of of ['id', 'title', 'story', 'rule', 'forTeacher'] as const) {
      expect(new Set(EXERCISES.map((one) => one[of])).size).toBe(10);
    }
  });
});

describe.each(forces.map((one) => [one.id, one] as const))('%s', (_, one) => {
  it('has a sheet for every seed, the same for all who have the seed', () => {
    const opened = SEEDS.map((seed) => openForce(one, seed));
    expect(new Set(opened.map(({ sheet }) => sheet.edgesGf.join())).size).toBe(SEEDS.length);
    for (const [index, open] of opened.entries()) {
      expect(openForce(one, SEEDS[index]!).sheet).toEqual(open.sheet);
      expect(one.fits(open.sheet, windowRatio(open.sheet, open.wanted))).toBe(true);
      expect(open.sheet.conditions.passes).toBe(one.passes[0]);
      const [piece, again] = [0, 0].map((place) => cutPiece(open, place, open.scale.min * 3, 1));
      expect(piece).toEqual(again);
    }
  });

  it('has a force that is right nearly always, or none where that is the lesson', () => {
    for (const seed of SEEDS) {
      const open = openForce(one, seed);
      const best = Math.max(...one.passes.map((passes) => bestForce(open, passes).right));
      if (one.id === 'no-force-is-right') expect(best).toBeLessThan(POOR_CHANCE);
      else expect(best).toBeGreaterThan(one.id === 'light-passes' ? 0.75 : 0.7);
    }
  });
});

describe('a force that is searched', () => {
  it('is found by advice alone, more often right than by the habit and the staircase', () => {
    const played = SEEDS.flatMap((seed) => [playOthers(openForce(exercise('first-kiss'), seed))]);
    const of = (place: number) => played.map((scores) => scores[place]!);
    const [habit, staircase, ours] = [0, 1, 2].map(of) as [
      ReturnType<typeof of>,
      ReturnType<typeof of>,
      ReturnType<typeof of>,
    ];
    const rights = [habit, staircase, ours].map((scores) => mean(scores.map(({ right }) => right)));
    expect(rights[2]).toBeGreaterThan(rights[0]!);
    expect(rights[2]).toBeGreaterThan(rights[1]!);
    expect(rights[2]).toBeGreaterThan(0.85);
  });

  it('is advised step by step as the tool itself would go', () => {
    const open = openForce(exercise('through-not-the-mat'), 3);
    const first = adviseHere(open, [], 1);
    expect(first.kind).toBe('cut');
    const piece = cutPiece(open, 0, Math.round(first.next.forceGf), 1);
    expect(['cut', 'repeat', 'confirm', 'keep']).toContain(adviseHere(open, [piece], 1).kind);
  });

  it('is scored by what it cost and what was kept', () => {
    const open = openForce(exercise('first-kiss'), 1);
    const pieces = [20, 500].map((force, index) => cutPiece(open, index, force, 1));
    const best = bestForce(open, 1);
    const score = scoreForce(open, pieces, { kept: best.force, passes: 1 });
    expect(score).toMatchObject({ pieces: 2, harm: 1, minutes: 6.5 });
    expect(score.right).toBeCloseTo(best.right, 9);
    expect(isHarm(pieces[1]!.grade, open.wanted)).toBe(true);
    expect(scoreForce(open, [], { kept: 500, passes: 1 }).right).toBeLessThan(0.01);
  });

  it.each([1, 3, 4])(
    'is searched in more passes by the tool where it sees no window in one: seed %i',
    (seed) => {
      const ours = playOthers(openForce(exercise('light-passes'), seed)).at(-1)!;
      expect(ours.passes).toBeGreaterThan(1);
      expect(ours.right).toBeGreaterThan(0.6);
    },
  );

  it('takes "none is right" for an answer where it is true, and only there', () => {
    const none = openForce(exercise('no-force-is-right'), 4);
    expect(scoreForce(none, [], { kept: null, passes: 1 }).right).toBe(1);
    expect(scoreForce(none, [], { kept: bestForce(none, 1).force, passes: 1 }).right).toBeLessThan(
      POOR_CHANCE,
    );
    expect(scoreForce(openForce(exercise('first-kiss'), 4), [], { kept: null, passes: 1 }).right).toBe(0);
  });

  it('has a wider window in several light passes than in one heavy one', () => {
    for (const seed of SEEDS) {
      const open = openForce(exercise('light-passes'), seed);
      const ratios = [1, 2, 3, 4].map((passes) => windowRatio(withPasses(open.sheet, passes), open.wanted));
      expect(ratios).toEqual(ratios.toSorted((a, b) => a - b));
      expect(bestForce(open, 3).right).toBeGreaterThan(bestForce(open, 1).right + 0.15);
    }
  });
});

describe('tabs that are searched', () => {
  it('come out weaker when they are short and stronger when they are long, and right in between', () => {
    for (const seed of SEEDS) {
      const open = openTabs(tabs, seed);
      const best = bestTabLength(open);
      expect(best.right).toBeGreaterThan(0.6);
      expect(pushPiece(open, 0, 0.3).seen).toBeLessThanOrEqual(pushPiece(open, 0, 3).seen);
      expect(scoreTabs(open, [], best.tabLengthMm).right).toBeCloseTo(best.right, 9);
    }
  });

  it('are found by the tool at least as often right as by small steps', () => {
    const played = SEEDS.map((seed) => playTabs(openTabs(tabs, seed)));
    const right = (place: number) => mean(played.map((scores) => scores[place]!.right));
    expect(right(2)).toBeGreaterThanOrEqual(right(0));
    expect(adviseTabs(openTabs(tabs, 1), []).right).toBeGreaterThan(0.3);
  });
});

describe.each(faults.map((one) => [one.id, one] as const))('%s', (_, one) => {
  const play = (seed: number, ...actions: readonly TriedAction['action'][]) =>
    actions.reduce<readonly TriedAction[]>(
      (tried, action) => [...tried, tryAction({ exercise: one, seed }, tried, action)],
      [],
    );

  it('can be mended with what is offered, by the tool more often than by habit', () => {
    const played = SEEDS.map((seed) => playFault({ exercise: one, seed }));
    const mended = (place: number) => played.filter((scores) => scores[place]!.end === 'mended').length;
    expect(mended(1)).toBeGreaterThan(mended(0));
    expect(mended(1)).toBeGreaterThan(SEEDS.length * 0.6);
    expect(one.offered).toContain(adviseFault({ exercise: one, seed: 1 }, []));
  });

  it('stays where nothing that helps is tried, and costs what was tried', () => {
    const tried = play(1, 'freshMat');
    expect(tried[0]).toMatchObject({ left: 'all', isCovered: false });
    expect(scoreFault(tried).end).toBe('there');
    expect(scoreFault(tried).minutes).toBeGreaterThan(0);
  });
});

describe('two faults at once', () => {
  it('leave some of it when one is mended, and nothing when both are', () => {
    const one = findExercise('dull-on-a-damp-day') as FaultExercise;
    const ends = SEEDS.map((seed) => {
      const first = tryAction({ exercise: one, seed }, [], 'changeBlade');
      return [first.left, tryAction({ exercise: one, seed }, [first], 'dryCard').left] as const;
    });
    expect(ends.filter(([after]) => after === 'some').length).toBeGreaterThan(SEEDS.length * 0.7);
    expect(ends.filter(([, end]) => end === 'none').length).toBeGreaterThan(SEEDS.length * 0.6);
  });

  it('are covered, not mended, by more force', () => {
    const one = findExercise('since-this-morning') as FaultExercise;
    const covered = Array.from({ length: 40 }, (_, seed) =>
      tryAction({ exercise: one, seed }, [], 'moreForce'),
    );
    const gone = covered.filter(({ left }) => left === 'none');
    expect(gone.length).toBeGreaterThan(2);
    expect(gone.every(({ isCovered }) => isCovered)).toBe(true);
    expect(scoreFault(gone.slice(0, 1)).end).toBe('covered');
  });
});
