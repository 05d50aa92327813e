import { describe, expect, it } from 'vitest';
import { targetGrades } from '#core/stack/depthGrade.ts';
import { chooseLadder } from '#core/dialIn/chooseLadder.ts';
import { compareWays, listWays } from '#core/dialIn/compareWays.ts';
import { estimateEffort } from '#core/dialIn/estimateEffort.ts';
import { findSurprise } from '#core/dialIn/findSurprise.ts';
import { gatherEvidence } from '#core/dialIn/gatherEvidence.ts';
import { gradeZones, zoneCells } from '#core/dialIn/gradeZones.ts';
import { listTrials } from '#core/dialIn/listTrials.ts';
import { thinEvenly } from '#core/dialIn/thinEvenly.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { describeUnknown } from '#core/stack/describeUnknown.ts';
import type { Layer } from '#core/stack/layer.ts';
import type { Material } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import type { Blade, LoadedSheet, Station } from '#core/station/station.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { Trial } from '#core/threshold/trial.ts';

const layer = (role: Layer['role'], caliperUm: number): Layer => ({ role, caliperUm, isMeasured: true });
const film = [layer('face', 80), layer('adhesive', 25), layer('liner', 140)];
const card = [layer('body', 290)];
const believe = (stack: readonly Layer[]) =>
  sheetPrior(
    {
      traits: { family: stack === card ? 'cardstock' : 'printableVinyl', stack, darkness: 0 },
      materialId: 1,
      machineId: 1,
      condition: 'bare',
      lot: '',
      colour: '',
    },
    null,
  );
const conditions = { passes: 1, speedMmPerS: 100, bladeMetres: 200 };
const forces = Array.from({ length: 96 }, (_, index) => 20 + index * 5);
const cut = (forceGf: number, grade: DepthGrade, more: Partial<Trial> = {}): Trial => ({
  ...conditions,
  forceGf,
  grade,
  ...more,
});
const model = sheetModel(5);
const question = { belief: believe(film), conditions };

describe('a ladder', () => {
  it('spreads six settable forces in log over where the middle of the window probably is', () => {
    const ladder = chooseLadder(model.fit(question, []), 'kiss', forces);
    expect(ladder).toHaveLength(6);
    ladder.forEach((force) => expect(forces).toContain(force));
    const steps = ladder.slice(1).map((force, index) => force / ladder[index]!);
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.35);
  });

  it('closes in once more is known, and never names a force twice', () => {
    const known = [cut(60, 1), cut(80, 2), cut(95, 3), cut(115, 4)];
    const wide = chooseLadder(model.fit(question, []), 'kiss', forces);
    const near = chooseLadder(model.fit(question, known), 'kiss', forces, 3);
    expect(near.at(-1)! / near[0]!).toBeLessThan(wide.at(-1)! / wide[0]!);
    expect(new Set(near).size).toBe(near.length);
  });

  it('thins evenly without losing its ends', () => {
    const thin = thinEvenly(forces, 10);
    expect(thin.length).toBeLessThanOrEqual(10);
    expect(thin[0]).toBe(20);
    expect(thin.at(-1)).toBe(495);
    expect(thinEvenly([1, 2], 10)).toEqual([1, 2]);
  });
});

describe('a surprise', () => {
  const steady = [cut(60, 1), cut(80, 2), cut(95, 3), cut(115, 4)];
  it('is a grade that the cuts before it did not expect, asked for once', () => {
    const surprise = findSurprise(model, question, [...steady, cut(100, 7)]);
    expect(surprise).toMatchObject({ forceGf: 100 });
    expect(surprise!.chance).toBeLessThan(0.04);
    expect(findSurprise(model, question, [...steady, cut(100, 7), cut(100, 3)])).toBeNull();
  });

  it('is neither the first grade, nor an expected one, nor a cell of a card', () => {
    expect(findSurprise(model, question, [cut(60, 7)])).toBeNull();
    expect(findSurprise(model, question, [...steady, cut(100, 3)])).toBeNull();
    expect(findSurprise(model, question, [...steady, cut(100, 7, { load: 2 })])).toBeNull();
  });
});

describe('the effort of each way of testing', () => {
  const blank = model.fit(question, []);
  it('expects more cuts for an unknown sheet than for one that is nearly known', () => {
    const known = model.fit(question, [cut(60, 1), cut(80, 2), cut(95, 3), cut(115, 4), cut(140, 5)]);
    const cutsFor = (posterior: typeof blank) =>
      estimateEffort(posterior, 'kiss', forces, { kind: 'rollFed', sheetWidthMm: 300 }, 1).oneAtATime.cuts;
    expect(cutsFor(blank)).toBeGreaterThan(cutsFor(known));
    expect(cutsFor(blank)).toBeLessThan(6);
  });

  it('advises a card where each load costs a strip of the roll, single cuts where ends are cheap', () => {
    // A through cut has a narrow window: one at a time would take about four loads.
    const roll = estimateEffort(blank, 'through', forces, { kind: 'rollFed', sheetWidthMm: 600 }, 1);
    const mat = estimateEffort(blank, 'kiss', forces, { kind: 'matFed', sheetWidthMm: 100 }, 1);
    expect(roll.advised).toBe('ladder');
    expect(roll.ladder.loads).toBe(2);
    expect(mat.advised).toBe('oneAtATime');
    expect(mat.oneAtATime.sheetCm2).toBeLessThan(mat.ladder.sheetCm2);
    expect(`${roll.reason} ${mat.reason}`).toMatch(/cm² of sheet/);
  });
});

describe('other ways of cutting', () => {
  const single = { belief: believe(card), conditions };
  const trials = [cut(180, 2), cut(210, 7), cut(225, 8), cut(200, 2)];
  const ways = compareWays(model, single, trials, 'through', () => forces, listWays(conditions, 'through'));
  it('stand beside the way asked about, each with its gain, time and wear', () => {
    const [now, ...others] = ways;
    expect(now!.gain).toBe(0);
    const two = others.find(({ passes }) => passes === 2)!;
    expect(two.best.forceGf).toBeLessThan(now!.best.forceGf);
    expect(two.secondsPerMetre).toBeCloseTo(2 * now!.secondsPerMetre, 9);
    expect(two.wearMetres).toBe(2);
  });

  it('open a window that the mat closes, when the tip cannot reach it', () => {
    const stopped = ways.find(({ isExposureStopped }) => isExposureStopped)!;
    expect(stopped.gain).toBeGreaterThan(0.1);
    expect(stopped.best.over).toBeLessThan(0.01);
  });

  it('offer a fresh blade only where the blade is worn', () => {
    expect(listWays({ ...conditions, bladeMetres: 5 }, 'kiss').some(({ isFreshBlade }) => isFreshBlade)).toBe(
      false,
    );
  });
});

describe('the boundaries of a card', () => {
  it('say a range for every cell and no more than was seen', () => {
    const zones = gradeZones('kiss', true);
    expect(zoneCells(zones, 5, 2, 4)).toEqual([
      [0, 2],
      [0, 2],
      [3, 4],
      [3, 4],
      [5, 8],
    ]);
    expect(zoneCells(zones, 3, 3, 3)).toEqual([
      [0, 2],
      [0, 2],
      [0, 2],
    ]);
    expect(zones.between).toEqual(targetGrades('kiss', true));
    expect(gradeZones('through', false).between).toEqual([7, 7]);
    expect(gradeZones('through', false).before).toEqual([0, 2]);
    expect(gradeZones('score', false).between).toEqual([1, 1]);
  });

  it('teach nearly as much as exact grades where the window lies', () => {
    const ranged = [
      cut(60, 0, { upTo: 2 }),
      cut(80, 0, { upTo: 2 }),
      cut(95, 3, { upTo: 4 }),
      cut(115, 3, { upTo: 4 }),
    ];
    const posterior = model.fit(question, ranged);
    expect(posterior.trialCount).toBe(4);
    const exact = model.fit(question, [cut(60, 1), cut(80, 2), cut(95, 3), cut(115, 4)]);
    const spread = (one: typeof posterior) => {
      let [mean, square] = [0, 0];
      for (let draw = 0; draw < one.drawCount; draw++) {
        const edge = one.boundaries[draw * 8 + 2]!;
        mean += one.weights[draw]! * edge;
        square += one.weights[draw]! * edge * edge;
      }
      return Math.sqrt(square - mean * mean);
    };
    expect(spread(posterior)).toBeGreaterThan(spread(exact) * 0.9);
    expect(spread(posterior)).toBeLessThan(spread(model.fit(question, [])) * 0.6);
  });
});

describe('evidence', () => {
  const material = {
    id: 9,
    family: 'printableVinyl',
    darkness: 0,
    details: {
      ...NO_DETAILS,
      lots: [{ code: 'B', forcePercent: 10 }],
      colours: [{ name: 'navy', darkness: 0.9, forcePercent: 0, hex: '#000' }],
    },
    conditions: [],
  } as unknown as Material;
  const condition = { id: 4, kind: 'bare', stack: film } as const;
  const machine = {
    id: 2,
    forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  } as Station['machine'];
  const loaded: LoadedSheet = { material, condition, lot: 'B', colour: '' };
  const station: Station = { machine, blade: { id: 7 } as Blade, mat: null, loaded };
  const made = (force: number, more: Partial<TestCut>) =>
    ({
      force,
      forceGf: force,
      grade: 3,
      passes: 1,
      speedMmPerS: 100,
      bladeMetres: 10,
      lot: 'B',
      colour: '',
      ...more,
    }) as TestCut;

  it('of the loaded lot counts fully, less from an earlier blade; other lots speak through the book', () => {
    const trials = listTrials(station, loaded, [
      made(100, { bladeId: 7 }),
      made(110, { bladeId: 3 }),
      made(120, { lot: 'A' }),
    ]);
    expect(trials.map(({ forceGf, weight }) => [forceGf, weight ?? 1])).toEqual([
      [100, 1],
      [110, 0.6],
    ]);
  });

  it('of runs is weak, a range, and silent where a run failed', () => {
    const run = {
      operation: 'kiss',
      force: 100,
      passes: 1,
      speedMmPerS: 200,
      bladeMetres: 5,
      lot: 'B',
      colour: '',
    } as const;
    const trials = listTrials(
      station,
      loaded,
      [],
      [
        { ...run, verdict: 'clean' },
        { ...run, verdict: 'failed' },
      ],
    );
    expect(trials).toEqual([expect.objectContaining({ grade: 3, upTo: 4, weight: 0.3 })]);
  });

  it('of a book is one place per lot and colour, with what they are known to add taken off', () => {
    const sheets = gatherEvidence([
      {
        material,
        condition,
        machine,
        cuts: [made(110, {}), made(100, { lot: '' }), made(130, { lot: '', colour: 'navy' })],
      },
    ]);
    expect(
      sheets.map(({ lot, colour, traits, trials }) => [
        lot,
        colour,
        traits.darkness,
        Math.round(trials[0]!.forceGf),
      ]),
    ).toEqual([
      ['B', '', 0, 100],
      ['', '', 0, 100],
      ['', 'navy', 0.9, 130],
    ]);
  });
});

describe('an unknown sheet', () => {
  const seen = {
    family: 'printableVinyl',
    name: '',
    day: '3 March',
    isPrinted: true,
    isLaminated: true,
    isDark: false,
    totalUm: null,
  } as const;
  it('gets a name, the usual layers and a stack that can be', () => {
    const { name, stack } = describeUnknown(seen);
    expect(name).toBe('Unnamed printable vinyl, 3 March');
    expect(stack.map(({ role }) => role)).toEqual(['laminate', 'ink', 'face', 'adhesive', 'liner']);
    expect(measureStack(stack).isLayered).toBe(true);
  });

  it('is stretched to what was measured, within rounding', () => {
    for (const totalUm of [180, 300, 520]) {
      expect(
        Math.abs(measureStack(describeUnknown({ ...seen, totalUm }).stack).totalUm - totalUm),
      ).toBeLessThanOrEqual(2);
    }
    expect(() => describeUnknown({ ...seen, totalUm: Number.NaN })).toThrow(/not between 30 and 3000/);
  });
});
