import { describe, expect, it } from 'vitest';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { composeAnswer, type KnownSetting } from '#core/answer/composeAnswer.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Material } from '#core/stack/material.ts';
import { NO_DETAILS, type MaterialDetails } from '#core/stack/materialDetails.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Station } from '#core/station/station.ts';

const card = { role: 'body', caliperUm: 290, isMeasured: true } as const;
const details: MaterialDetails = {
  ...NO_DETAILS,
  colours: [{ name: 'slate', hex: '#444444', darkness: 0.9, forcePercent: 10 }],
};
const material = { family: 'cardstock', darkness: 0, details, conditions: [] } as unknown as Material;
const machine = {
  id: 1,
  forceScale: { kind: 'gramForce', min: 10, max: 500, step: 5, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
} as Machine;
const condition = { id: 4, kind: 'bare', stack: [card] } as const;
const station: Station = {
  machine,
  blade: null,
  mat: null,
  loaded: { material, condition, lot: '', colour: '' },
};
const cut = (force: number, passes: number, grade: DepthGrade) =>
  ({
    operation: 'through',
    force,
    forceGf: force,
    passes,
    grade,
    speedMmPerS: 80,
    bladeMetres: 0,
    flaws: [],
  }) as unknown as TestCut;
const cuts = [cut(150, 2, 2), cut(190, 2, 7), cut(205, 2, 7)];
const kept = {
  state: 'proven',
  revision: {
    revision: 3,
    values: { force: 200, exposureMm: 0.5, speed: 80, passes: 2, offsetMm: 0.25, overcutMm: 0.5 },
  },
} as KnownSetting;

describe('composeAnswer', () => {
  it('answers with the kept setting, its state and its own number of passes', () => {
    const answer = composeAnswer(station, 'through', kept, cuts);
    expect(answer).toMatchObject({ state: 'proven', values: { force: 200, passes: 2 } });
  });

  it('makes another number of passes a prediction of its own: fewer passes want more force', () => {
    const two = composeAnswer(station, 'through', kept, cuts, { passes: 2 });
    const one = composeAnswer(station, 'through', kept, cuts, { passes: 1 });
    expect(two?.state).toBe('proven');
    expect(one).toMatchObject({ state: 'predicted', values: { passes: 1, exposureMm: 0.5 } });
    expect(one?.bestForce).toBeGreaterThan((two?.bestForce ?? 0) * 1.1);
  });

  it('puts what a colour wants on the kept force, and moves the window with it', () => {
    const slate = { ...station, loaded: { material, condition, lot: '', colour: 'slate' } };
    const plain = composeAnswer(station, 'through', kept, cuts);
    const dark = composeAnswer(slate, 'through', kept, cuts);
    expect(dark).toMatchObject({
      values: { force: 220 },
      corrections: [{ kind: 'colour', name: 'slate', forcePercent: 10 }],
    });
    expect((dark?.window.best.forceGf ?? 0) / (plain?.window.best.forceGf ?? 1)).toBeCloseTo(1.1, 1);
  });

  it('answers inside the scale of a machine that was changed since', () => {
    const weaker = { ...machine, forceScale: { ...machine.forceScale, max: 150 } };
    const answer = composeAnswer({ ...station, machine: weaker }, 'through', kept, cuts);
    expect(answer?.bestForce).toBeLessThanOrEqual(150);
    expect(answer?.outlook.right).toBeGreaterThanOrEqual(0);
  });

  it('has no kiss for a sheet without a liner and nothing for an empty station', () => {
    expect(composeAnswer(station, 'kiss', null, [])).toBeNull();
    expect(composeAnswer({ ...station, loaded: null }, 'through', null, [])).toBeNull();
  });

  it('sets the best that is known, and not what it would try next', () => {
    // Kissed at 65 gf; through was never cut.
    const film = [
      { role: 'face', caliperUm: 80, isMeasured: true },
      { role: 'adhesive', caliperUm: 25, isMeasured: true },
      { role: 'liner', caliperUm: 140, isMeasured: true },
    ] as const;
    const loaded = {
      material: { ...material, family: 'printableVinyl' } as Material,
      condition: { id: 5, kind: 'bare', stack: film },
      lot: '',
      colour: '',
    } as const;
    const kiss = { ...cut(65, 1, 3), operation: 'kiss', exposureMm: 0.3 } as TestCut;
    const answer = composeAnswer({ ...station, loaded }, 'through', null, [kiss, { ...kiss, forceGf: 60 }])!;
    expect(answer.values.force).toBe(answer.bestForce);
    expect(answer.outlook.right).toBeCloseTo(answer.window.best.right, 2);
    expect(answer.advisedForce).toBeLessThanOrEqual(answer.bestForce);
    // The blade stays where it was set for the kiss.
    expect(answer.values.exposureMm).toBe(0.3);
  });

  it('takes the lower force where the upper one left a fuzzy edge', () => {
    const levels = { ...machine.forceScale, kind: 'level', min: 1, max: 40, step: 1, gfPerUnit: 10 } as const;
    const bench = { ...station, machine: { ...machine, forceScale: levels } };
    const clean = { ...cut(15, 2, 7), forceGf: 150 };
    const fuzzy = { ...cut(20, 2, 7), forceGf: 200, flaws: ['fuzzy'] } as unknown as TestCut;
    const answer = composeAnswer(bench, 'through', null, [clean, fuzzy])!;
    const plain = composeAnswer(bench, 'through', null, [clean, { ...fuzzy, flaws: [] }])!;
    expect(answer.bestForce).toBeLessThanOrEqual(16);
    expect(answer.bestForce).toBeLessThan(plain.bestForce);
  });
});
