import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { ADDRESS, api, arrive, go } from '#e2e/support/app.ts';
import { conditionOf } from '#e2e/support/drawer.ts';
import {
  arriveAt,
  art,
  cut,
  DOTS_PER_MM,
  drawPrint,
  dropAll,
  expectStickers,
  folder,
  haveStickers,
  layOut,
  printHere,
} from '#e2e/support/stickers.ts';
import type { JobReply } from '#web/schemas/job.ts';

haveStickers();

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
    await api('/api/stations/1', 'PATCH', {
      conditionId: await conditionOf('Herringglass matt white', 'laminated'),
    });
    const visitor = await arriveAt(1);
    const { page } = visitor;
    const jobId = await dropAll(visitor);
    await layOut(visitor);
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
    const visitor = await arriveAt(1);
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
