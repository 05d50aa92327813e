import { describe, expect, it } from 'vitest';
import type { Answer } from '#core/answer/composeAnswer.ts';
import { tellLesson } from '#core/answer/tellLesson.ts';
import type { ForceScale } from '#core/units/forceScale.ts';

const grams: ForceScale = { kind: 'gramForce', min: 10, max: 400, step: 1, gfAtZero: 0, gfPerUnit: 1 };
const levels: ForceScale = { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 10, gfPerUnit: 10 };
const answer = (bestForce: number, sure: readonly [number, number] | null, right = 0.9) =>
  ({
    bestForce,
    window: { sure: sure && { fromGf: sure[0], toGf: sure[1] } },
    outlook: { right },
  }) as unknown as Answer;

describe('tellLesson', () => {
  it.each([
    [
      answer(66, [62, 70]),
      answer(60, [55, 68]),
      2,
      '2 passes in runs: the best force goes from 60 to 66 gf; sure is now 62 to 70 gf, before 55 to 68 gf.',
    ],
    [
      answer(60, [55, 66]),
      answer(60, null),
      1,
      'One pass in a run: the best force stays 60 gf; now 55 to 66 gf is sure.',
    ],
    [
      answer(60, null),
      answer(60, [55, 66]),
      3,
      '3 passes in runs: the best force stays 60 gf; what was sure before, 55 to 66 gf, no longer is.',
    ],
    [
      answer(60, [55, 66]),
      answer(60, [55, 66]),
      4,
      '4 passes in runs, and nothing new: they agree with the rest.',
    ],
    [answer(60, null, 0.6), answer(60, null, 0.6), 1, 'One pass in a run, and no force is sure yet.'],
    [
      answer(60, null, 0.7),
      answer(60, null, 0.6),
      2,
      '2 passes in runs: the best force stays 60 gf; the set force is now right 70 times in 100, more than without them.',
    ],
    [
      answer(64, null, 0.5),
      answer(60, null, 0.6),
      2,
      '2 passes in runs: the best force goes from 60 to 64 gf; the set force is now right 50 times in 100, less than without them.',
    ],
  ])('%#', (taught, untaught, runs, words) => {
    expect(tellLesson(taught, untaught, runs, grams)).toBe(words);
  });

  it('speaks in the levels of a machine that has them', () => {
    expect(tellLesson(answer(12, [100, 140]), answer(12, null), 1, levels)).toBe(
      'One pass in a run: the best force stays level 12; now level 9 to 13 is sure.',
    );
  });
});
