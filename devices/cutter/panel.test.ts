import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { FaultBox, FAULT_WORDS, FAULTS } from '#devices/cutter/faults.ts';
import { JobRecord } from '#devices/cutter/jobRecord.ts';
import { obeyPanel } from '#devices/cutter/obeyPanel.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';

describe('faults that are armed', () => {
  it('strike once, when their moment has come, the first that is due first', () => {
    const box = new FaultBox();
    box.arm({ fault: 'jam', afterStrokes: 5 });
    box.arm({ fault: 'linkLost', afterStrokes: 2 });
    box.arm({ fault: 'jam', afterStrokes: 2 });
    expect(box.take(['jam', 'linkLost'], 1)).toBeNull();
    expect(box.take(['jam'], 2)).toBe('jam');
    expect(box.list().map(({ fault, afterStrokes }) => `${fault} ${afterStrokes}`)).toEqual([
      'jam 5',
      'linkLost 2',
    ]);
    expect(box.take(['jam', 'linkLost'], 9)).toBe('jam');
    expect(box.take(['jam', 'linkLost'], 9)).toBe('linkLost');
    expect(box.take(['jam', 'linkLost'], 9)).toBeNull();
  });

  it('of the sensor are met together when it looks, and leave the others armed', () => {
    const box = new FaultBox();
    box.arm({ fault: 'strayInk', afterStrokes: 0 });
    box.arm({ fault: 'jam', afterStrokes: 0 });
    box.arm({ fault: 'roomLight', afterStrokes: 3 });
    expect(box.takeSense()).toEqual(['strayInk', 'roomLight']);
    expect(box.takeSense()).toEqual([]);
    expect(box.list().map(({ fault }) => fault)).toEqual(['jam']);
    box.clear();
    expect(box.list()).toEqual([]);
  });

  it('have words for the page, each its own', () => {
    expect(new Set(FAULTS.map((fault) => FAULT_WORDS[fault])).size).toBe(FAULTS.length);
  });
});

describe('what a cutter remembers of a job', () => {
  const stroke = (index: number) => ({ event: 'stroke', index, spans: [] }) as const;

  it('begins a job of a name once, whatever is loaded between', () => {
    const record = new JobRecord();
    expect(record.load('a')).toBe(true);
    expect(record.begin()).toBe(true);
    expect(record.begin()).toBe(false);
    expect(record.load('a')).toBe(false);
    expect(record.load('b')).toBe(true);
    expect(record.begin()).toBe(true);
    expect(record.load('a')).toBe(false);
    record.forget();
    expect(record.load('a')).toBe(true);
  });

  it('takes jobs without a name as often as they come', () => {
    const record = new JobRecord();
    for (let round = 0; round < 3; round++) {
      expect(record.load(null)).toBe(true);
      expect(record.begin()).toBe(true);
    }
  });

  it('tells how far it got, paused, finished, stopped or cut off', () => {
    const record = new JobRecord();
    record.load('a');
    record.begin();
    record.note(stroke(0));
    record.note(stroke(1));
    record.pause(true);
    expect(record.tell()).toMatchObject({ state: 'paused', reached: [{ index: 0 }, { index: 1 }] });
    record.pause(false);
    expect(record.tell()?.state).toBe('working');
    record.break(0.4);
    expect(record.tell()).toMatchObject({ state: 'broken', cutMetres: 0.4 });
    record.load('b');
    record.begin();
    record.note({ event: 'finished', cutMetres: 1.2 });
    record.break(9);
    expect(record.tell()).toMatchObject({ state: 'finished', cutMetres: 1.2, reached: [] });
    record.load('c');
    record.begin();
    record.note({ event: 'stopped', reason: 'jam' });
    record.pause(true);
    expect(record.tell()).toMatchObject({ state: 'stopped', reason: 'jam' });
  });
});

describe('the panel', () => {
  let cutter: CutterService;
  beforeEach(async () => {
    cutter = await serveCutter({ model: 'desk', dataPort: 0, panelPort: 0, seed: 1, pace: 400 });
  });
  afterEach(() => cutter.close());
  const say = (order: unknown) =>
    obeyPanel(typeof order === 'string' ? order : JSON.stringify(order), cutter.state);
  const sheet = { key: 'x', family: 'cardstock', darkness: 0, layers: [{ role: 'body', caliperUm: 290 }] };

  it.each([
    ['no JSON', '{'],
    ['an order it does not know', { order: 'dance' }],
    ['a fault it does not know', { order: 'fault', fault: 'rain' }],
    [
      'a sheet without thickness',
      { order: 'load', sheet: { ...sheet, layers: [{ role: 'body', caliperUm: 0 }] } },
    ],
    [
      'a blade that went backwards',
      { order: 'load', sheet, exposureMm: 0.4, bladeMetres: -1, isFreshSheet: true },
    ],
    [
      'a correction of five numbers',
      {
        order: 'load',
        sheet,
        exposureMm: 0.4,
        bladeMetres: 0,
        isFreshSheet: true,
        printed: { widthMm: 1, heightMm: 1, corrected: [1, 0, 0, 1, 0] },
      },
    ],
  ])('refuses %s, and goes on', (_, order) => {
    expect(say(order)).toMatchObject({ ok: false });
    expect(say({ order: 'status' })).toMatchObject({ ok: true, isBusy: false });
  });

  it('loads a job once, and says which', () => {
    const load = {
      order: 'load',
      jobKey: 'run-1',
      sheet,
      exposureMm: 0.4,
      bladeMetres: 0,
      isFreshSheet: true,
    };
    expect(say(load)).toMatchObject({ ok: true });
    cutter.state.record.begin();
    expect(say(load)).toMatchObject({ ok: false, reason: 'run-1 was begun already: nothing is cut twice' });
    expect(say({ order: 'report' })).toMatchObject({ ok: true, job: { key: 'run-1', state: 'working' } });
  });

  it('pauses only what is cutting', () => {
    say({ order: 'pause' });
    expect(cutter.state.isPaused).toBe(false);
  });

  it('forgets its job and its name with the power', () => {
    const before = say({ order: 'report' }) as { bootId: string };
    cutter.state.losePower();
    expect(say({ order: 'report' })).toMatchObject({ job: null });
    expect((say({ order: 'report' }) as { bootId: string }).bootId).not.toBe(before.bootId);
  });
});
