import { afterEach, expect, it } from 'vitest';
import { readCorners, truthOfSheet } from '#devices/cutter/sheet/printToCut.ts';
import { Cutter } from '#devices/cutter/cutter.ts';
import { CUTTER_MODELS } from '#devices/cutter/cutterModel.ts';
import { obeyPanel } from '#devices/cutter/obeyPanel.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { servePage, type PageService } from '#devices/cutter/servePage.ts';

let cutter: CutterService;
let page: PageService;
afterEach(() => Promise.all([cutter.close(), page.close()]));

it('shows the panel and the sheet, takes orders of its own page, and no others', async () => {
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 400 });
  page = await servePage('roll', cutter.state, 0);
  const at = `http://127.0.0.1:${page.port}`;
  expect(await (await fetch(at)).text()).toMatch(/a loose piece catches under the blade/);
  const order = (body: object, type = 'application/json') =>
    fetch(`${at}/order`, { method: 'POST', headers: { 'content-type': type }, body: JSON.stringify(body) });
  expect(await (await order({ order: 'fault', fault: 'jam' })).json()).toMatchObject({ ok: true });
  expect((await order({ order: 'stop' }, 'text/plain')).status).toBe(415);
  const state = (await (await fetch(`${at}/state`)).json()) as {
    armed: string[];
    words: string;
    above: string;
  };
  expect(state.armed).toEqual(['a loose piece catches under the blade (after 0 strokes)']);
  expect(state.words).toBe('idle');
  expect(state.above).toMatch(/Nothing is cut/);
});

it('loses its ink to strong tape, to weak tape while it is wet, and to none where nothing is printed', async () => {
  const wetUntil = (minutes: number) => new Date(Date.now() + 60_000 * minutes).toISOString();
  const ask = async (tape: string, isPrinted: boolean, dryInMinutes = -1) => {
    const sheet = {
      key: 'x',
      family: 'transferFilm',
      darkness: 0,
      layers: [{ role: 'face', caliperUm: 85 }],
    };
    const print = { scale: 1, turnRad: 0, wetUntil: wetUntil(dryInMinutes) };
    const state = {
      ...cutter.state,
      cutter: new Cutter(
        CUTTER_MODELS.roll,
        3,
        400,
        () => undefined,
        () => print,
      ),
    };
    state.cutter.load({
      sheet,
      exposureMm: 0.4,
      bladeMetres: 0,
      isFreshSheet: true,
      ...(isPrinted ? { printed: { widthMm: 210, heightMm: 297, corrected: [1, 0, 0, 1, 0, 0] } } : {}),
    });
    await state.cutter.act({ kind: 'begin' });
    return obeyPanel(JSON.stringify({ order: 'mask', tape }), state);
  };
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 400 });
  page = await servePage('roll', cutter.state, 0);
  expect(await ask('paper', true)).toMatchObject({ inkLifted: 0, said: 'the print stays whole' });
  expect(await ask('paper', true, 30)).toMatchObject({ inkLifted: 0.35 });
  expect(await ask('strong', true)).toMatchObject({ said: 'the tape lifts 50 % of the ink' });
  expect(await ask('strong', false)).toMatchObject({ inkLifted: null });
  expect(await ask('duct', true)).toMatchObject({ ok: false });
});

it('misses the marks of glossy sheets now and then, never those of matt ones, and finds them loaded again', async () => {
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 400 });
  page = await servePage('roll', cutter.state, 0);
  const missed = async (gloss: number) => {
    let count = 0;
    for (let round = 0; round < 40; round++) {
      cutter.state.cutter.load({
        sheet: { key: 'x', family: 'printableVinyl', darkness: 0, layers: [{ role: 'face', caliperUm: 80 }] },
        exposureMm: 0.4,
        bladeMetres: 0,
        isFreshSheet: false,
        printed: { widthMm: 210, heightMm: 297, corrected: [1, 0, 0, 1, 0, 0], gloss },
      });
      await cutter.state.cutter.act({ kind: 'begin' });
      if (!(await cutter.state.cutter.act({ kind: 'speed', value: 100 }))) count += 1;
    }
    return count;
  };
  expect(await missed(0)).toBe(0);
  const glossy = await missed(1);
  // 45 in 100 of forty loads.
  expect(glossy).toBeGreaterThan(8);
  expect(glossy).toBeLessThan(30);
});

it('is off by the same on every sheet of a machine but for a tenth or two, and not at all once corrected', async () => {
  cutter = await serveCutter({ model: 'desk', dataPort: 0, panelPort: 0, seed: 3, pace: 400 });
  page = await servePage('desk', cutter.state, 0);
  const plain = [1, 0, 0, 1, 0, 0] as const;
  const read = (count: number) => readCorners(truthOfSheet(3, count), plain, 210, 297, 40);
  const sideways = [1, 2, 3, 4, 5, 6].map((count) => read(count)[0]!.sideways);
  expect(Math.max(...sideways) - Math.min(...sideways)).toBeLessThan(9);
  const mean = sideways.reduce((sum, one) => sum + one, 0) / sideways.length;
  expect(mean).toBeGreaterThan(1);
  // A file that shifts by as much the other way lands on the print.
  const truth = truthOfSheet(3, 1);
  const back = [1, 0, 0, 1, -truth[4], -truth[5]] as const;
  for (const { sideways: x, down } of readCorners(truth, back, 210, 297, 40)) {
    expect(Math.abs(x)).toBeLessThanOrEqual(5);
    expect(Math.abs(down)).toBeLessThanOrEqual(5);
  }
});
