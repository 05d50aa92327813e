import { connect } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { gradeAt } from '#devices/cutter/sheet/cutSheet.ts';
import { HpglDecoder } from '#devices/cutter/decodeHpgl.ts';
import { DecodeError } from '#devices/cutter/instruction.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { findSheetTruth } from '#devices/cutter/sheet/sheetTruth.ts';
import { sampleVinyl } from '#devices/tests/sampleVinyl.ts';

const sheet = sampleVinyl('test vinyl/lot 1');
const load = { order: 'load', sheet, exposureMm: 0.4, bladeMetres: 0, isFreshSheet: true };
const square = 'PU400,400;PD1200,400,1200,1200,400,1200,400,400;';
let cutter: CutterService;

beforeEach(async () => {
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 5, pace: 400 });
});
afterEach(() => cutter.close());

interface Told {
  readonly event: string;
  readonly index?: number;
  readonly reason?: string;
  readonly spans?: readonly { from: number; to: number; grade: number }[];
}

/** Sends pieces of bytes and collects every event until the cutter hangs up. */
function send(pieces: readonly string[]): Promise<Told[]> {
  return new Promise((resolve, reject) => {
    let text = '';
    const socket = connect(cutter.dataPort, '127.0.0.1', async () => {
      for (const piece of pieces) {
        socket.write(piece);
        await new Promise((next) => setTimeout(next, 5));
      }
    });
    socket.on('data', (bytes) => (text += bytes.toString()));
    socket.on('error', reject);
    socket.on('close', () =>
      resolve(
        text
          .trim()
          .split('\n')
          .filter(Boolean)
          .map((one) => JSON.parse(one) as Told),
      ),
    );
  });
}

function order(value: object): Promise<{ ok: boolean; reason?: string }> {
  return new Promise((resolve, reject) => {
    const socket = connect(cutter.panelPort, '127.0.0.1', () => socket.write(`${JSON.stringify(value)}\n`));
    socket.on('error', reject);
    socket.once('data', (bytes) => {
      resolve(JSON.parse(bytes.toString()) as { ok: boolean });
      socket.end();
    });
  });
}

const grades = (events: readonly Told[]) =>
  events
    .filter((told) => told.event === 'stroke')
    .map((told) => Math.max(...told.spans!.map((span) => span.grade)));

describe('the stand-in cutter over its sockets', () => {
  it('cuts a loaded sheet deeper with force and reports every stroke along its length', async () => {
    expect((await order(load)).ok).toBe(true);
    const events = await send([
      `IN;PA;SP1;VS100;FS20;${square}FS90;PU4000,400;PD4800,400;FS420;PU400,4000;PD1200,4000;SP0;`,
    ]);
    expect(events[0]?.event).toBe('started');
    expect(events.at(-1)?.event).toBe('finished');
    const [soft, middle, hard] = grades(events);
    expect(soft).toBeLessThan(2);
    expect(middle).toBeGreaterThan(soft!);
    expect(hard).toBeGreaterThanOrEqual(7);
    const spans = events.find((told) => told.event === 'stroke')!.spans!;
    expect(spans[0]!.from).toBe(0);
    expect(spans.at(-1)!.to).toBe(1);
  });

  it('understands commands however the bytes are cut up', async () => {
    await order(load);
    const text = `IN;PA;SP1;VS100;FS90;${square}SP0;`;
    const events = await send(text.match(/.{1,3}/g)!);
    expect(grades(events)).toHaveLength(1);
    expect(events.at(-1)?.event).toBe('finished');
  });

  it('goes deeper on a second pass over the same path', async () => {
    await order(load);
    const once = grades(await send([`IN;SP1;VS100;FS62;${square}SP0;`]))[0]!;
    const more = `IN;SP1;VS100;FS62;${square}${square}${square}${square}SP0;`;
    await order(load);
    const repeated = grades(await send([more]));
    expect(repeated.at(-1)!).toBeGreaterThan(once);
  });

  it.each([
    ['a force beyond its scale', `IN;SP1;FS900;${square}SP0;`, /900 is outside 10 to 500/],
    ['no force at all', `IN;SP1;${square}SP0;`, /no force was set/],
    ['a command it does not know', 'IN;ZZ1;', /unknown command ZZ/],
    ['a number without its pair', 'IN;PD1,2,3;', /pairs of numbers/],
  ])('stops with a reason at %s', async (_, bytes, reason) => {
    await order(load);
    const events = await send([bytes]);
    expect(events.at(-1)).toMatchObject({ event: 'stopped' });
    expect(events.at(-1)?.reason).toMatch(reason);
  });

  it('stops without a sheet, at the panel, and refuses a second job meanwhile', async () => {
    expect((await send([`IN;SP1;FS80;${square}SP0;`])).at(-1)?.reason).toMatch(/no sheet/);
    await cutter.close();
    cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 5, pace: 2 });
    await order(load);
    const first = send([`IN;SP1;VS20;FS80;${square}${square}SP0;`]);
    await new Promise((next) => setTimeout(next, 100));
    expect((await send(['IN;']))[0]?.reason).toMatch(/busy/);
    expect((await order(load)).reason).toMatch(/busy/);
    await order({ order: 'stop' });
    expect((await first).at(-1)).toMatchObject({ event: 'stopped', reason: 'stopped at the panel' });
  });

  it('refuses orders it cannot read and goes on', async () => {
    expect((await order({ order: 'dance' })).ok).toBe(false);
    expect((await order({ order: 'status' })).ok).toBe(true);
  });
});

describe('the hidden physics', () => {
  const truth = findSheetTruth(sheet, () => 0.5);

  it('passes through every grade as force grows, and never back', () => {
    let last = 0;
    const seen = new Set<number>();
    for (let force = 5; force < truth.stackGf * 1.6; force += 1) {
      const grade = gradeAt(force, truth, 0.5);
      expect(grade).toBeGreaterThanOrEqual(last);
      last = grade;
      seen.add(grade);
    }
    expect([...seen]).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
  });

  it('never cuts deeper than the blade stands out', () => {
    expect(gradeAt(9999, truth, 0.1)).toBeLessThan(5);
  });

  it('keeps half a command until the rest comes', () => {
    const decoder = new HpglDecoder();
    expect(decoder.push(Buffer.from('PU40'))).toEqual([]);
    expect(decoder.isMidCommand).toBe(true);
    expect(decoder.push(Buffer.from('0,80;'))).toEqual([{ kind: 'travel', points: [{ xMm: 10, yMm: 2 }] }]);
    expect(() => decoder.push(Buffer.from('FSx;'))).toThrow(DecodeError);
  });
});
