import { describe, expect, it } from 'vitest';
import type { Trouble } from '#core/checks/trouble.ts';
import { listStops, type StopOrder } from '#core/job/listStops.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { findPrintArea, overPrintArea } from '#core/sheet/marks/printArea.ts';
import { overlap } from '#core/geometry/box.ts';
import { placedBoxes } from '#core/sheet/layout.ts';
import { job, machine, station } from '#core/tests/exampleScope.ts';

const order: StopOrder = {
  station,
  sheet: station.loaded,
  troubles: [],
  waits: [],
  overPrintAreaMm: 0,
  hasNoTestCorner: false,
  now: new Date('2026-03-01T10:00:00Z'),
};
const trouble = (kind: Trouble['kind'], weight: Trouble['weight']): Trouble => ({
  kind,
  weight,
  what: `a ${kind}`,
  why: 'it goes wrong',
  lineIds: [0],
  at: { x: 0, y: 0 },
  fix: null,
});
const ids = (change: Partial<StopOrder>) =>
  listStops({ ...order, ...change }).map(({ id, state }) => [id, state]);

describe('what stands against sending a job', () => {
  it('is nothing where the right sheet lies there and all is mended', () => expect(ids({})).toEqual([]));

  it('is the wrong sheet first, by the state that lies there, and a word where nobody said what does', () => {
    const other = {
      ...station.loaded,
      condition: { ...station.loaded.condition, id: 99, kind: 'printed' as const },
    };
    const found = listStops({ ...order, station: { ...station, loaded: other }, overPrintAreaMm: 3 });
    expect(found.map(({ id, state }) => [id, state])).toEqual([
      ['otherSheet', 'stop'],
      ['printArea', 'stop'],
    ]);
    expect(found[0]!.words).toMatch(/, printed lies on/);
    expect(found[0]!.way).toMatchObject({ step: 'bench' });
    expect(ids({ station: { ...station, loaded: null } })).toEqual([['noSheet', 'open']]);
  });

  it('stops for what was found and not mended: grave troubles and islands; the rest may go wrong', () => {
    const troubles = [
      trouble('island', 'careful'),
      trouble('crossing', 'careful'),
      trouble('tooClose', 'stop'),
    ];
    expect(ids({ troubles })).toEqual([
      ['trouble:island', 'stop'],
      ['trouble:tooClose', 'stop'],
      ['trouble:crossing', 'open'],
    ]);
    const many = listStops({ ...order, troubles: [troubles[0]!, troubles[0]!, troubles[0]!] });
    expect(many).toHaveLength(1);
    expect(many[0]!.words).toBe('Not mended: a island, and 2 more like it');
  });

  it('stops while ink is wet, by the minutes left, and not a minute longer', () => {
    const waits = [
      { kind: 'inkDry' as const, words: 'Gulls: ink dries to the touch', endsAt: '2026-03-01T10:12:00Z' },
    ];
    expect(listStops({ ...order, waits })[0]).toMatchObject({
      id: 'wait',
      state: 'stop',
      words: 'Gulls: ink dries to the touch: 12 min left',
    });
    expect(ids({ waits: [{ ...waits[0]!, endsAt: '2026-03-01T09:00:00Z' }] })).toEqual([]);
    // What rests once it is cut does not keep it from being cut.
    expect(ids({ waits: [{ ...waits[0]!, kind: 'transferRests' }] })).toEqual([]);
  });
});

describe('what a machine prints and then cuts of a sheet', () => {
  const areas = [
    { sheet: 'Letter', widthMm: 171.45, heightMm: 234.95 },
    { sheet: 'our carton', widthMm: 300, heightMm: 200 },
  ];

  it('goes by the size of the sheet, whatever it is called, and turns with it (common practice, no source: T10)', () => {
    const upright = findPrintArea({ name: 'sticker sheets', widthMm: 216, heightMm: 279 }, areas)!;
    expect(upright.maxX - upright.minX).toBeCloseTo(171.45, 6);
    const turned = findPrintArea({ name: 'sticker sheets', widthMm: 279, heightMm: 216 }, areas)!;
    expect(turned.maxX - turned.minX).toBeCloseTo(234.95, 6);
    expect(findPrintArea({ name: 'Letter of mine', widthMm: 210, heightMm: 297 }, areas)).toBeNull();
    expect(findPrintArea({ name: 'our carton, 3rd', widthMm: 400, heightMm: 300 }, areas)!.minX).toBe(50);
  });

  it('is left by the line that reaches furthest over it', () => {
    const area = { minX: 10, minY: 10, maxX: 100, maxY: 100 };
    expect(overPrintArea({ minX: 9, minY: 20, maxX: 114, maxY: 50 }, area)).toBe(14);
    expect(overPrintArea({ minX: 10, minY: 10, maxX: 100.04, maxY: 50 }, area)).toBe(0);
    expect(overPrintArea(null, area)).toBe(0);
  });
});

describe('the corner for a test piece', () => {
  const keeping = { ...job, print: { ...job.print, keepsTestCorner: true } };
  const usual = layOutJob(keeping, machine).testCorner!;

  it('is found elsewhere where a piece was laid over it', () => {
    const { placements } = job.layout;
    const over = {
      ...placements[0]!,
      xMm: (usual.minX + usual.maxX) / 2,
      yMm: (usual.minY + usual.maxY) / 2,
    };
    const moved = { ...keeping, layout: { ...job.layout, placements: [over] } };
    const laid = layOutJob(moved, machine);
    expect(laid.testCorner).not.toBeNull();
    const boxes = placedBoxes(moved.layout, laid.pieces, 0);
    expect(boxes.some((box) => overlap(box, usual))).toBe(true);
    expect(boxes.some((box) => overlap(box, laid.testCorner!))).toBe(false);
  });

  it('is nowhere on a sheet that is full', () => {
    const tight = { ...keeping, sheet: { ...job.sheet, widthMm: 60, heightMm: 30, marginMm: 2 } };
    const laid = layOutJob(
      {
        ...tight,
        layout: { ...job.layout, placements: [{ ...job.layout.placements[0]!, xMm: 30, yMm: 15 }] },
      },
      machine,
    );
    expect(laid.testCorner).toBeNull();
  });
});
