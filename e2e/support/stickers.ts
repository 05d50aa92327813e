import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, expect } from 'vitest';
import { acceptAll, ADDRESS, api, arrive, go, visit, type Visitor } from '#e2e/support/app.ts';

/** A sheet of stickers: files are dropped, laid out on carrier cards, printed and cut, and seen from above. */
const BORDER_MM = 1.6;
export const DOTS_PER_MM = 12;
export let art: readonly { readonly name: string; readonly mimeType: string; readonly buffer: Buffer }[];
const visitors: Visitor[] = [];
export const folder = mkdtempSync(join(tmpdir(), 'stickers-'));

const picture = (body: string) =>
  sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600">${body}</svg>`))
    .png()
    .toBuffer();

/** Draws the files before a file of tests, and lets everybody go after it. */
export function haveStickers(): void {
  beforeAll(async () => {
    const pictures = await Promise.all([
      picture('<circle cx="300" cy="300" r="280" fill="#7a2b1f"/>'),
      picture(
        '<path d="M300 20L380 220 590 230 425 360 480 570 300 450 120 570 175 360 10 230 220 220Z" fill="#1f4f4b"/>',
      ),
      picture('<rect x="20" y="120" width="560" height="340" rx="60" fill="#4a2340"/>'),
    ]);
    const leaf =
      '<svg xmlns="http://www.w3.org/2000/svg" width="14mm" height="17mm" viewBox="0 0 40 48"><linearGradient id="g"><stop offset="0" stop-color="#33571a"/><stop offset="1" stop-color="#1d3a12"/></linearGradient><path d="M20 2C36 12 38 34 20 46 2 34 4 12 20 2Z" fill="url(#g)"/></svg>';
    art = [
      ...pictures.map((buffer, at) => ({ name: `picture ${at + 1}.png`, mimeType: 'image/png', buffer })),
      { name: 'leaf.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(leaf) },
    ];
  });
  afterAll(async () => {
    for (const visitor of visitors) await visitor.leave();
    rmSync(folder, { recursive: true, force: true });
  });
}

export async function arriveAt(machineId: number): Promise<Visitor> {
  const visitor = await visit('Tove', machineId);
  visitors.push(visitor);
  return visitor;
}

/** Drops the files, and makes twelve of each with a border. @returns the id of the job */
export async function dropAll({ page }: Visitor): Promise<number> {
  await go(page, '/jobs');
  await page.locator('input[type=file]').setInputFiles([...art]);
  await page.getByRole('heading', { name: 'A sheet of 4 drawings' }).waitFor();
  await page.getByLabel('Longest side of pictures, mm').fill('16');
  await page.getByLabel(/^Copies of each/).fill('12');
  await page.getByLabel(/^Copies of each/).press('Enter');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await arrive(page, /^\/jobs\/\d+$/);
  return Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
}

/** Letter, with marks, two cards. */
export async function layOut({ page }: Visitor): Promise<void> {
  await page.getByRole('tab', { name: /\d Sheet/ }).click();
  await page.getByLabel('Size', { exact: true }).selectOption('Letter');
  await page.getByLabel(/^Registration marks/).check();
  await page.getByLabel('On carrier cards, cut out of the sheet').check();
  await page.getByLabel('Cards (0: as needed)').fill('2');
  await page.getByLabel('Cards (0: as needed)').press('Enter');
  await page.getByText('48 pieces on 2 cards, one sheet.').waitFor();
}

export async function printHere(page: Page): Promise<void> {
  await page.getByRole('tab', { name: /\d Run sheet/ }).click();
  await page.getByRole('button', { name: /stand-in printer/ }).click();
  await page.getByText(/^Printed\./).waitFor();
  await page.getByRole('tab', { name: /\d Cut/ }).click();
  // Its ink is wet: that needs a word.
  await page
    .getByRole('checkbox', { name: /send it anyway/ })
    .first()
    .waitFor();
}

interface CutRun {
  readonly state: string;
  readonly strokes: readonly {
    readonly operation: string;
    readonly points: readonly { readonly x: number; readonly y: number }[];
  }[];
  readonly outcomes: readonly { readonly index: number }[];
}

export async function cut({ page }: Visitor): Promise<CutRun> {
  await page.getByRole('tab', { name: /\d Cut/ }).click();
  await acceptAll(page);
  await page.getByRole('button', { name: /^Send to/ }).click();
  await arrive(page, /^\/runs\/\d+$/);
  const id = Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
  const unload = page.getByRole('button', { name: /unload/ });
  const goOn = page.getByRole('button', { name: /^Go on|Done by hand, go on/ }).first();
  for (let stop = 0; stop < 8; stop++) {
    await unload.or(goOn).first().waitFor({ timeout: 90_000 });
    if (await unload.isVisible()) break;
    await goOn.click();
    await goOn.waitFor({ state: 'hidden' });
  }
  await unload.click();
  return (await api<CutRun>(`/api/runs/${id}`)).reply;
}

/** The printed sheet as pixels. */
export async function drawPrint(jobId: number, name: string): Promise<PNG> {
  const reply = await fetch(`${ADDRESS}/api/jobs/${jobId}/print-sheet`);
  expect(reply.status).toBe(200);
  const file = join(folder, `${name}.pdf`);
  writeFileSync(file, Buffer.from(await reply.arrayBuffer()));
  const dpi = String(DOTS_PER_MM * 25.4);
  execFileSync('pdftoppm', ['-r', dpi, '-png', '-singlefile', file, join(folder, name)]);
  return PNG.sync.read(readFileSync(join(folder, `${name}.png`)));
}

/** How far the ink within a cut line stays from it, left, top, right and bottom, mm. */
function rimOf({ width, data }: PNG, points: CutRun['strokes'][number]['points']) {
  const xs = points.map(({ x }) => x);
  const ys = points.map(({ y }) => y);
  const box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] as const;
  const [left, top, right, bottom] = box.map((mm) => Math.round(mm * DOTS_PER_MM)) as [
    number,
    number,
    number,
    number,
  ];
  let [inkLeft, inkTop, inkRight, inkBottom] = [right, bottom, left, top];
  for (let y = top; y <= bottom; y++) {
    for (let x = left; x <= right; x++) {
      const at = 4 * (y * width + x);
      if ((data[at] ?? 255) + (data[at + 1] ?? 255) + (data[at + 2] ?? 255) > 420) continue;
      inkLeft = Math.min(inkLeft, x);
      inkRight = Math.max(inkRight, x + 1);
      inkTop = Math.min(inkTop, y);
      inkBottom = Math.max(inkBottom, y + 1);
    }
  }
  const ink = (at: number) => at / DOTS_PER_MM;
  return [ink(inkLeft) - box[0], ink(inkTop) - box[1], box[2] - ink(inkRight), box[3] - ink(inkBottom)];
}

/** Every sticker has its border on all sides, to 0.3 mm, and two cards are cut around. */
export async function expectStickers(jobId: number, run: CutRun, name: string): Promise<void> {
  const print = await drawPrint(jobId, name);
  const kissed = run.strokes.filter(({ operation }) => operation === 'kiss');
  const starts = new Set(kissed.map(({ points }) => `${points[0]?.x.toFixed(1)}/${points[0]?.y.toFixed(1)}`));
  expect(starts.size).toBe(48);
  const rims = kissed.map(({ points }) => rimOf(print, points));
  for (const rim of rims) for (const mm of rim) expect(Math.abs(mm - BORDER_MM)).toBeLessThanOrEqual(0.3);
  expect(run.outcomes.length).toBe(run.strokes.length);
}
