import { describe, expect, it } from 'vitest';
import { composeChecklist, type ChecklistOrder } from '#core/job/composeChecklist.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { samplePlan } from '#core/tests/sampleJob.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';

const sampleStation = {
  machine: {
    kind: 'rollFed',
    numbersOwner: 'file',
    language: { id: 'hpgl', options: { unitsPerMm: 40 } },
    link: { kind: 'standIn', model: 'roll' },
    depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
  },
  blade: { id: 1, number: 7, travelMetres: 40, lifeMetres: 360 },
  mat: null,
  loaded: null,
} as unknown as Station;
const sampleSheet = {
  material: { family: 'plainVinyl', finish: 'matt' },
  condition: { kind: 'bare' },
} as unknown as LoadedSheet;
const values = { force: 60, exposureMm: 0.4, speed: 100, passes: 1, offsetMm: 0.25, overcutMm: 0 };
const lines = readSvg(
  '<svg width="9mm" height="9mm" viewBox="0 0 9 9"><path d="M1 1H8" stroke="#f00"/></svg>',
).contours;
const { passes } = samplePlan(lines, { '|#ff0000': 'kiss' }, { kiss: values });
const order: ChecklistOrder = {
  station: sampleStation,
  sheet: sampleSheet,
  passes,
  isPrinted: false,
  hasMarks: false,
  waits: [],
  stops: [],
  standing: [],
  drift: null,
  now: new Date('2026-03-01T10:00:00Z'),
};
const wordsOf = (change: Partial<ChecklistOrder>) =>
  composeChecklist({ ...order, ...change }).map(({ words }) => words);

describe('the list before a run', () => {
  it('names the blade, its exposure and who owns the numbers, each with a reason', () => {
    const items = composeChecklist(order);
    expect(items.every(({ reason }) => reason.length > 10)).toBe(true);
    expect(wordsOf({}).join()).toMatch(/Blade no\. 7 is in the holder seat/);
    expect(wordsOf({}).join()).toMatch(/Exposure 0\.40 mm/);
    expect(wordsOf({})).toContain('The panel is left alone');
    const machine = { ...sampleStation.machine, numbersOwner: 'panel' as const };
    expect(wordsOf({ station: { ...sampleStation, machine } })).toContain(
      'Force and speed are dialled as the run asks',
    );
  });

  it('puts what stops it first, then what may go wrong: an old blade, a drift', () => {
    const old = { ...sampleStation.blade!, travelMetres: 355 };
    const stop = { id: 'printArea', state: 'stop', words: 'over the area', reason: 'cut wrong' } as const;
    const items = composeChecklist({
      ...order,
      stops: [stop],
      drift: 'the blade is worn',
      station: { ...sampleStation, blade: old },
    });
    expect(items.slice(0, 3).map(({ state }) => state)).toEqual(['stop', 'open', 'open']);
    expect(items[0]!.words).toBe('over the area');
  });

  it('warns of glare before anything is sent, on gloss, clear, holographic and sealed alike, not on matt', () => {
    const on = (finish: string, kind = 'bare') =>
      wordsOf({
        hasMarks: true,
        sheet: {
          ...sampleSheet,
          material: { ...sampleSheet.material, finish },
          condition: { ...sampleSheet.condition, kind: kind as 'bare' },
        },
      }).join();
    for (const finish of ['gloss', 'Clear', 'holographic', 'satin'])
      expect(on(finish)).toMatch(/throws light back/);
    expect(on('matt', 'sealed')).toMatch(/throws light back/);
    expect(on('matt')).not.toMatch(/throws light back/);
  });

  it('says how much room the sheet or its mat needs, and what of a mat misleads or tears', () => {
    const mat = {
      number: 3,
      tack: 'standard',
      uses: 2,
      usesAtRestick: 0,
      usesAtCleaning: 0,
      heightMm: 330,
      hasGrooves: true,
      firstUsedAt: null,
    } as unknown as NonNullable<Station['mat']>;
    const desk = { ...sampleStation, mat, machine: { ...sampleStation.machine, kind: 'matFed' as const } };
    expect(wordsOf({ sheetHeightMm: 297 })).toContain('There is room for 297 mm in front and behind');
    expect(wordsOf({ station: desk, sheetHeightMm: 297 })).toContain(
      'There is room for 330 mm in front and behind',
    );
    const grid = 'The grid of the mat is covered beside the marks';
    expect(wordsOf({ station: desk, hasMarks: true })).toContain(grid);
    expect(wordsOf({ station: desk })).not.toContain(grid);
    expect(wordsOf({ hasMarks: true })).not.toContain(grid);
    expect(wordsOf({ station: desk, isFinestTooFine: true })).toContain('Mat 3 has grooves');
    expect(wordsOf({ station: desk })).not.toContain('Mat 3 has grooves');
    const panel = { ...desk.machine, numbersOwner: 'panel' as const, panelCuts: 4 };
    expect(wordsOf({ station: { ...desk, machine: panel } })).toContain(
      'The numbered cuts of the panel are dialled as the run sheet lists them',
    );
  });

  it('says where a machine without a link is sent to', () => {
    const machine = { ...sampleStation.machine, link: { kind: 'none' as const } };
    const [first] = composeChecklist({ ...order, station: { ...sampleStation, machine } });
    expect(first).toMatchObject({ state: 'open', way: { step: 'machine' } });
  });

  it('asks for dry ink, whole marks, a rolled sheet only where there are any', () => {
    expect(wordsOf({}).join()).not.toMatch(/marks?|dry/);
    expect(wordsOf({ isPrinted: true, hasMarks: true }).join()).toMatch(/dry to the touch.*Every mark/);
    const matFed = { ...sampleStation.machine, kind: 'matFed' as const };
    const bare = composeChecklist({ ...order, station: { ...sampleStation, machine: matFed, mat: null } });
    expect(bare[0]).toMatchObject({ state: 'open', words: 'A mat is chosen at the rail' });
  });

  it('keeps up what helped at this machine, marks only where there are marks (T38)', () => {
    const standing = [
      { id: 7, action: 'shadeMarks' as const },
      { id: 9, action: 'pressDown' as const },
    ];
    const ids = (hasMarks: boolean) =>
      composeChecklist({ ...order, standing, hasMarks }).flatMap(({ id = '' }) =>
        /standing/.test(id) ? [id] : [],
      );
    expect(ids(true)).toEqual(['standing:7', 'standing:9']);
    expect(ids(false)).toEqual(['standing:9']);
  });
});
