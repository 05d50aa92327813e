import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { servePrinter, type PrinterService } from '#devices/printer/servePrinter.ts';
import { layInTray, takeFromTray } from '#devices/tray.ts';

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'feather-tray-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const a4 = {
  widthMm: 210,
  heightMm: 297,
  scale: 1.0005,
  turnRad: 0.001,
  wetUntil: '2026-03-01T10:10:00.000Z',
};

describe('the table between printer and cutter', () => {
  it('gives each sheet once, the first of its size first, either way round', () => {
    layInTray(folder, 2, { ...a4, scale: 0.9995 });
    layInTray(folder, 10, { ...a4, widthMm: 297, heightMm: 420 });
    layInTray(folder, 1, a4);
    expect(takeFromTray(folder, 210, 297)?.scale).toBe(1.0005);
    expect(takeFromTray(folder, 297, 210)?.scale).toBe(0.9995);
    expect(takeFromTray(folder, 210, 297)).toBeNull();
    expect(takeFromTray(folder, 297.4, 419.6)?.widthMm).toBe(297);
  });

  it('is empty where there is none, and passes over what is no sheet', () => {
    expect(takeFromTray(join(folder, 'nowhere'), 210, 297)).toBeNull();
    writeFileSync(join(folder, 'sheet-000001.json'), '{"widthMm": 210');
    writeFileSync(join(folder, 'note.txt'), 'bring glue');
    layInTray(folder, 2, a4);
    expect(takeFromTray(folder, 210, 297)).toEqual(a4);
  });
});

describe('a printed sheet that is put into a cutter', () => {
  let printer: PrinterService;
  let cutter: CutterService;
  beforeEach(async () => {
    printer = await servePrinter({ port: 0, seed: 2, wetMinutes: 5, tray: folder });
    cutter = await serveCutter({
      model: 'roll',
      dataPort: 0,
      panelPort: 0,
      seed: 3,
      pace: 400,
      tray: folder,
    });
  });
  afterEach(() => Promise.all([printer.close(), cutter.close()]));

  const print = async () => {
    const pdf = '%PDF-1.4\n<< /Type /Page /MediaBox [0 0 595.28 841.89] >>\n%%EOF\n';
    const reply = await fetch(`http://127.0.0.1:${printer.port}/print`, { method: 'POST', body: pdf });
    return (await reply.json()) as { scale: number };
  };
  const load = async () => {
    const machine = cutter.state.cutter;
    machine.load({
      sheet: { key: 'x', family: 'printableVinyl', darkness: 0, layers: [{ role: 'face', caliperUm: 80 }] },
      exposureMm: 0.4,
      bladeMetres: 0,
      isFreshSheet: true,
      printed: { widthMm: 210, heightMm: 297, corrected: [1, 0, 0, 1, 0, 0] },
    });
    await machine.act({ kind: 'begin' });
    await machine.act({ kind: 'force', value: 90 });
    return machine.act({ kind: 'cut', points: [{ xMm: 5, yMm: 0 }] });
  };

  it('carries the error of its printer under the blade, to a tenth of a mm as an eye reads it', async () => {
    const { scale } = await print();
    expect(await load()).toBe(true);
    const corners = Object.fromEntries(
      cutter.state.cutter.readPrint().map(({ corner, sideways, down }) => [corner, { sideways, down }]),
    );
    const gap = (name: 'sideways' | 'down', from: string, to: string) =>
      (corners[to]![name] - corners[from]![name]) / 10;
    // The cutter is 0.0008 too large, the print `scale`: 217 mm apart down the sheet, each end read to 0.05 mm.
    const wanted = 217 * (1.0008 / scale - 1);
    expect(Math.abs(gap('down', 'top left', 'bottom left') - wanted)).toBeLessThan(0.13);
  });

  it('is refused at its marks when it was fitted to the page, and the next one is not', async () => {
    await fetch(`http://127.0.0.1:${printer.port}/fault/wrongSize`, { method: 'POST' });
    await print();
    expect(await load()).toBe(false);
    await print();
    expect(await load()).toBe(true);
    // Put in at once, its ink is wet: the marks stand out less, and are still read.
    expect(cutter.state.cutter.seenMarks.map(({ isRead, contrast }) => [isRead, contrast])).toEqual(
      Array.from({ length: 4 }, () => [true, 0.55]),
    );
  });
});
