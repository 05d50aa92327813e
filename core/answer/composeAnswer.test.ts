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
  }) as TestCut;
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
});
