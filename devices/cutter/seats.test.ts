import { describe, expect, it } from 'vitest';
import { Cutter, type CutterEvent } from '#devices/cutter/cutter.ts';
import type { DialledCut, FittedSeat } from '#devices/cutter/loadOrder.ts';
import { CUTTER_MODELS } from '#devices/cutter/cutterModel.ts';
import type { Spot } from '#devices/cutter/instruction.ts';

const carton = {
  key: 'some carton',
  family: 'foldingCarton',
  darkness: 0,
  layers: [{ role: 'body', caliperUm: 400 }],
};
const film = {
  key: 'some film',
  family: 'printableVinyl',
  darkness: 0,
  layers: [
    { role: 'face', caliperUm: 80 },
    { role: 'liner', caliperUm: 140 },
  ],
};
const line: readonly Spot[] = [{ xMm: 60, yMm: 10 }];

/** Cuts one line from a seat, and says the deepest grade and whether it was pressed. */
async function cut(
  seats: readonly FittedSeat[] | undefined,
  seat: number,
  sheet: typeof film,
  force: number | null,
  panelCuts?: readonly DialledCut[],
) {
  const events: CutterEvent[] = [];
  const cutter = new Cutter(CUTTER_MODELS.roll, 1, 10_000, (event) => events.push(event));
  cutter.load({ sheet, exposureMm: 0.6, bladeMetres: 0, isFreshSheet: true, seats, panelCuts });
  await cutter.act({ kind: 'begin' });
  await cutter.act({ kind: 'tool', seat });
  if (force !== null) await cutter.act({ kind: 'force', value: force });
  await cutter.act({ kind: 'cut', points: line });
  const [stroke] = cutter.sheetStrokes;
  return {
    grade: stroke ? Math.max(...stroke.spans.map((span) => span.grade)) : NaN,
    isPressed: stroke?.isPressed,
    metres: cutter.cutMetres,
  };
}
const blade = (over: FittedSeat['over'] = null): FittedSeat => ({ tool: 'blade', over });

describe('the tool that sits in a seat', () => {
  it('that is blunt presses and cuts nothing, whatever the force; no blade is worn', async () => {
    const pressed = await cut([{ tool: 'crease', over: null }], 1, carton, 490);
    expect(pressed).toEqual({ grade: 0, isPressed: true, metres: 0 });
    expect((await cut([blade()], 1, carton, 490)).grade).toBeGreaterThanOrEqual(7);
  });

  it('that is not there leaves no mark', async () => {
    expect(await cut([blade(), { tool: 'empty', over: 'groove' }], 2, film, 300)).toMatchObject({
      grade: 0,
      isPressed: false,
    });
  });

  it('never parts a sheet over the strip, and digs deeper over the groove', async () => {
    expect((await cut([blade('strip')], 1, film, 490)).grade).toBe(6);
    expect((await cut([blade('groove')], 1, film, 490)).grade).toBeGreaterThanOrEqual(7);
    const light = await cut([blade('strip')], 1, film, 62);
    const dug = await cut([blade('groove')], 1, film, 62);
    expect(dug.grade).toBeGreaterThan(light.grade);
  });

  it('cuts as deep as the numbered cut of the panel says that the file chooses, and stops at one nobody dialled', async () => {
    const light = await cut([blade('groove')], 1, film, null, [{ number: 1, force: 62, speed: 20 }]);
    const heavy = await cut([blade('groove')], 2, film, null, [
      { number: 1, force: 62, speed: 20 },
      { number: 2, force: 490, speed: 20 },
    ]);
    expect(light.grade).toBeLessThan(6);
    expect(heavy.grade).toBeGreaterThanOrEqual(7);
    const none = await cut([blade('groove')], 3, film, null, [{ number: 1, force: 62, speed: 20 }]);
    expect(none.grade).toBeNaN();
  });

  it('cuts every cell of a card alike where the panel owns the force and the file chooses no number', async () => {
    const dialled = { force: 62, speed: 20 };
    const numbers = [62, 150, 490].map((force, at) => ({ number: at + 1, force, speed: 20 }));
    const forcesOf = async (panelCuts?: readonly DialledCut[]) => {
      const cutter = new Cutter(CUTTER_MODELS.roll, 1, 10_000, () => undefined);
      const held = panelCuts ? { panelCuts } : { dialled };
      cutter.load({ sheet: film, exposureMm: 0.6, bladeMetres: 0, isFreshSheet: true, ...held });
      await cutter.act({ kind: 'begin' });
      for (const [cell, { number }] of numbers.entries()) {
        if (panelCuts) await cutter.act({ kind: 'tool', seat: number });
        await cutter.act({ kind: 'travel', points: [{ xMm: 0, yMm: 10 * cell }] });
        await cutter.act({ kind: 'cut', points: [{ xMm: 60, yMm: 10 * cell }] });
      }
      return cutter.sheetStrokes.map(({ forceGf }) => Math.round(forceGf / 1.06));
    };
    expect(await forcesOf()).toEqual([62, 62, 62]);
    expect(await forcesOf(numbers)).toEqual([62, 150, 490]);
  });

  it('is where the model has it when nobody says', async () => {
    expect((await cut(undefined, 1, film, 490)).grade).toBeGreaterThanOrEqual(7);
  });
});
