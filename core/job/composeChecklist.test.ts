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
    depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
  },
  blade: { id: 1, number: 7, travelMetres: 40, lifeMetres: 360 },
  mat: null,
  loaded: null,
} as unknown as Station;
const sampleSheet = {
  material: { family: 'plainVinyl' },
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

  it('puts what stands against the run first: a wait with its time left, an old blade, a drift', () => {
    const waits = [{ words: 'Gulls: ink dries to the touch', endsAt: '2026-03-01T10:12:00Z' }];
    const old = { ...sampleStation.blade!, travelMetres: 355 };
    const items = composeChecklist({
      ...order,
      waits,
      drift: 'the blade is worn',
      station: { ...sampleStation, blade: old },
    });
    expect(items.slice(0, 3).map(({ state }) => state)).toEqual(['open', 'open', 'open']);
    expect(items[0]!.words).toBe('Gulls: ink dries to the touch: 12 min left');
    expect(wordsOf({ waits: [{ ...waits[0]!, endsAt: '2026-03-01T09:00:00Z' }] }).join()).not.toMatch(
      /min left/,
    );
  });

  it('asks for dry ink, whole marks, a rolled sheet only where there are any', () => {
    expect(wordsOf({}).join()).not.toMatch(/marks?|dry/);
    expect(wordsOf({ isPrinted: true, hasMarks: true }).join()).toMatch(/dry to the touch.*Every mark/);
    const matFed = { ...sampleStation.machine, kind: 'matFed' as const };
    const bare = composeChecklist({ ...order, station: { ...sampleStation, machine: matFed, mat: null } });
    expect(bare[0]).toMatchObject({ state: 'open', words: 'A mat is chosen at the rail' });
  });
});
