import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { acceptAll, ADDRESS, api, arrive, go, visit, type Visitor } from '#e2e/support/app.ts';
import { conditionOf } from '#e2e/support/drawer.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** A sheet of stickers: files are dropped, laid out on carrier cards, printed and cut, and seen from above. */
const BORDER_MM = 1.6;
const DOTS_PER_MM = 12;
let art: readonly { readonly name: string; readonly mimeType: string; readonly buffer: Buffer }[];
const visitors: Visitor[] = [];
const folder = mkdtempSync(join(tmpdir(), 'stickers-'));

const picture = (body: string) =>
  sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="600" height="600">${body}</svg>`))
    .png()
    .toBuffer();

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

async function arriveAt(machineId: number): Promise<Visitor> {
  const visitor = await visit('Tove', machineId);
  visitors.push(visitor);
  return visitor;
}

/** Drops the files, and makes twelve of each with a border. @returns the id of the job */
async function dropAll({ page }: Visitor): Promise<number> {
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
async function layOut({ page }: Visitor): Promise<void> {
  await page.getByRole('tab', { name: /\d Sheet/ }).click();
  await page.getByLabel('Size', { exact: true }).selectOption('Letter');
  await page.getByLabel(/^Registration marks/).check();
  await page.getByLabel('On carrier cards, cut out of the sheet').check();
  await page.getByLabel('Cards (0: as needed)').fill('2');
  await page.getByLabel('Cards (0: as needed)').press('Enter');
  await page.getByText('48 pieces on 2 cards, one sheet.').waitFor();
}

async function printHere(page: Page): Promise<void> {
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

async function cut({ page }: Visitor): Promise<CutRun> {
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
async function drawPrint(jobId: number, name: string): Promise<PNG> {
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
  const mm = [inkLeft, inkTop, inkRight, inkBottom].map((at) => at / DOTS_PER_MM);
  return [mm[0]! - box[0], mm[1]! - box[1], box[2] - mm[2]!, box[3] - mm[3]!];
}

/** Every sticker has its border on all sides, to 0.3 mm, and two cards are cut around. */
async function expectStickers(jobId: number, run: CutRun, name: string): Promise<void> {
  const print = await drawPrint(jobId, name);
  const kissed = run.strokes.filter(({ operation }) => operation === 'kiss');
  const starts = new Set(kissed.map(({ points }) => `${points[0]?.x.toFixed(1)}/${points[0]?.y.toFixed(1)}`));
  expect(starts.size).toBe(48);
  const rims = kissed.map(({ points }) => rimOf(print, points));
  for (const rim of rims) for (const mm of rim) expect(Math.abs(mm - BORDER_MM)).toBeLessThanOrEqual(0.3);
  expect(run.outcomes.length).toBe(run.strokes.length);
}

describe('three pictures and a clip art', () => {
  it('become twelve of each on two cards of a Letter sheet, printed, kissed and perforated on the roll-fed machine', async () => {
    await api('/api/stations/1', 'PATCH', {
      conditionId: await conditionOf('Herringglass matt white', 'laminated'),
    });
    const visitor = await arriveAt(1);
    const jobId = await dropAll(visitor);
    await layOut(visitor);
    const { page } = visitor;
    await printHere(page);
    const run = await cut(visitor);
    await expectStickers(jobId, run, 'roll');
    expect(new Set(run.strokes.map(({ operation }) => operation))).toEqual(new Set(['kiss', 'perforated']));
    expect(visitor.errors).toEqual([]);
  });

  it('are cut through in light passes on the desk machine', async () => {
    await api('/api/stations/2', 'PATCH', { conditionId: await conditionOf('Drift label paper', 'printed') });
    const visitor = await arriveAt(2);
    const jobId = await dropAll(visitor);
    await layOut(visitor);
    const { page } = visitor;
    await page.getByRole('tab', { name: /\d Passes/ }).click();
    await page.getByRole('button', { name: 'Use several light passes' }).click();
    const run = await cut(visitor);
    await expectStickers(jobId, run, 'desk');
    expect(new Set(run.strokes.map(({ operation }) => operation))).toEqual(new Set(['kiss', 'through']));
    expect(visitor.errors).toEqual([]);
  });
});

describe('a page that is printed from elsewhere', () => {
  it('goes out with its marks alone, at real size, and comes back as art at the same place', async () => {
    const visitor = visitors[0]!;
    const { page } = visitor;
    const { reply: jobs } = await api<{ id: number; name: string }[]>('/api/jobs');
    const jobId = jobs.find(({ name }) => name.startsWith('picture 1'))!.id;
    const take = async (format: string) => {
      const reply = await fetch(`${ADDRESS}/api/jobs/${jobId}/marks-page?format=${format}`);
      expect(reply.status).toBe(200);
      return Buffer.from(await reply.arrayBuffer());
    };
    expect((await take('svg')).toString()).toMatch(/^<svg [^>]*width="215\.8999\d*mm" height="279\.4mm"/);
    writeFileSync(join(folder, 'marks.pdf'), await take('pdf'));
    expect(execFileSync('pdfinfo', [join(folder, 'marks.pdf')], { encoding: 'utf8' })).toMatch(
      /612(\.\d+)? x 792/,
    );
    const bare = await take('png');
    const { width, height, density } = await sharp(bare).metadata();
    expect([width, height, density]).toEqual([2550, 3300, 300]);
    // Somebody lays a dark disc in the middle of the page.
    const disc = Buffer.from(
      '<svg width="2550" height="3300"><circle cx="1275" cy="1650" r="236.2" fill="#222"/></svg>',
    );
    const painted = await sharp(bare)
      .composite([{ input: disc }])
      .flatten({ background: '#fff' })
      .png()
      .toBuffer();
    await go(page, `/jobs/${jobId}`);
    await page.getByRole('tab', { name: /\d Run sheet/ }).click();
    const chooser = page.getByLabel('Bring the painted page back');
    await chooser.setInputFiles({ name: 'small.png', mimeType: 'image/png', buffer: art[0]!.buffer });
    await page.getByText(/this picture has another shape/).waitFor();
    await chooser.setInputFiles({ name: 'painted page.png', mimeType: 'image/png', buffer: painted });
    await expect
      .poll(async () => (await api<JobReply>(`/api/jobs/${jobId}`)).reply.moreDrawings?.at(-1)?.name)
      .toBe('painted page');
    const print = await drawPrint(jobId, 'painted');
    const isDark = (xMm: number, yMm: number) =>
      (print.data[4 * (Math.round(yMm * DOTS_PER_MM) * print.width + Math.round(xMm * DOTS_PER_MM))] ?? 255) <
      90;
    // 20 mm around the middle of a Letter sheet, to 0.3 mm.
    const [x, y] = [215.9 / 2, 279.4 / 2];
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      expect(isDark(x + 19.7 * dx, y + 19.7 * dy)).toBe(true);
      expect(isDark(x + 20.3 * dx, y + 20.3 * dy)).toBe(false);
    }
  });
});

describe('a job that needs half a sheet', () => {
  it('takes one end with its marks around it; cut, the other lies on the shelf, is offered first, and its old marks are cut away', async () => {
    const visitor = visitors[0]!;
    const { page } = visitor;
    await go(page, '/jobs');
    await page.locator('input[type=file]').setInputFiles([...art]);
    await page.getByLabel('Longest side of pictures, mm').fill('16');
    await page.getByLabel(/^Copies of each/).fill('6');
    await page.getByLabel(/^Copies of each/).press('Enter');
    await page.getByRole('button', { name: 'Make the job' }).click();
    await arrive(page, /^\/jobs\/\d+$/);
    const jobId = Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
    await page.getByRole('tab', { name: /\d Sheet/ }).click();
    await page.getByLabel('Size', { exact: true }).selectOption('Letter');
    await page.getByLabel(/^Registration marks/).check();
    await page.getByRole('button', { name: /^Use one end only/ }).click();
    await page.getByText(/^This job takes \d+ of 279 mm/).waitFor();
    await expect
      .poll(async () => (await api<JobReply>(`/api/jobs/${jobId}`)).reply.sheet.wholeHeightMm)
      .toBeCloseTo(279.4, 6);
    const { sheet } = (await api<JobReply>(`/api/jobs/${jobId}`)).reply;
    const print = await drawPrint(jobId, 'one end');
    expect([print.width, print.height].map((dots) => dots / DOTS_PER_MM)).toEqual([
      expect.closeTo(215.9, 0),
      expect.closeTo(279.4, 0),
    ]);
    const isDark = (xMm: number, yMm: number) =>
      (print.data[4 * (Math.round(yMm * DOTS_PER_MM) * print.width + Math.round(xMm * DOTS_PER_MM))] ?? 255) <
      90;
    // Discs of 6 mm, 12 mm in: at the corners of the used end, none at those of the page.
    const top = 279.4 - sheet.heightMm;
    expect([isDark(15, top + 15), isDark(15, 279.4 - 15), isDark(15, 15)]).toEqual([true, true, false]);
    await page.getByText(/mm stay whole and go to the shelf when the run is done/).waitFor();
    await printHere(page);
    await cut(visitor);
    const offered = page.getByLabel('Size', { exact: true }).locator('option').first();
    const firstOffered = async () => {
      await go(page, `/jobs/${jobId}`);
      await page.getByRole('tab', { name: /\d Sheet/ }).click();
      return offered.textContent();
    };
    await expect.poll(firstOffered).toMatch(/^started sheet, \d+ of 279 mm left/);
    await page.getByLabel('Size', { exact: true }).selectOption({ index: 0 });
    await page.getByText(/was used before: cut it off after printing, with its old marks/).waitFor();
    expect(visitor.errors).toEqual([]);
  });
});
