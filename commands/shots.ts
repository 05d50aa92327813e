import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { buildApp } from '#commands/buildApp.ts';
import { homeFolder, ROOT } from '#commands/homeFolder.ts';
import { openBrowser } from '#commands/openBrowser.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { startFreshDemo } from '#commands/startFreshDemo.ts';

/** One picture of a main view: where it is and what to do before it is taken. */
interface Shot {
  readonly name: string;
  readonly path: string;
  readonly station?: 1 | 2;
  readonly prepare?: (page: Page) => Promise<void>;
}

const FOLDER = join(ROOT, 'docs/screenshots');
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
/** Slow enough that the picture of a run shows it going. */
const PACE = 2;

/** A puffin's head with a clear ground, as somebody drops it. */
const PICTURE = `<svg xmlns="http://www.w3.org/2000/svg" width="1100" height="900"><defs><linearGradient id="beak" x1="0" x2="1"><stop offset="0" stop-color="#d9572b"/><stop offset="1" stop-color="#e9b43c"/></linearGradient></defs><path d="M300 840C120 760 90 520 180 330C260 160 440 80 590 120C760 165 820 330 790 480C760 640 700 700 690 840Z" fill="#1e2a32"/><path d="M560 250C700 230 770 330 760 430C750 540 640 590 540 560C440 530 400 430 430 350C450 290 500 258 560 250Z" fill="#f3efe4"/><path d="M740 330C860 310 960 370 1010 470C930 520 830 560 730 540C770 470 770 400 740 330Z" fill="url(#beak)"/><path d="M800 328C840 400 840 480 800 552" fill="none" stroke="#6b3a24" stroke-width="16"/><circle cx="610" cy="390" r="34" fill="#1e2a32"/><circle cx="620" cy="380" r="10" fill="#fff"/></svg>`;

const SHOTS: readonly Shot[] = [
  { name: 'bench', path: '/' },
  { name: 'settings', path: '/settings' },
  { name: 'setting', path: '/settings/1' },
  {
    name: 'material',
    path: '/materials/1',
    prepare: (page) => page.getByRole('button', { name: 'laminated' }).click(),
  },
  { name: 'machine', path: '/machines/2', station: 2 },
  { name: 'test-cuts', path: '/test-cuts' },
  { name: 'knowledge', path: '/knowledge' },
  { name: 'picture', path: '/jobs', prepare: openAPicture },
  {
    name: 'job-roles',
    path: '/jobs/4',
    prepare: (page) => page.getByRole('tab', { name: '2 Roles' }).click(),
  },
  { name: 'job-sheet', path: '/jobs', prepare: layOutStickers },
  {
    name: 'job-passes',
    path: '/jobs/5',
    prepare: async (page) => {
      await fillTheSheet(page);
      await page.getByRole('tab', { name: '4 Passes' }).click();
      await page.getByText('Will the pieces').waitFor();
    },
  },
  {
    name: 'practice',
    path: '/practice/back-of-the-liner?seed=7',
    prepare: async (page) => {
      for (const force of ['40', '60', '75']) {
        await page.getByLabel('Force, gf').fill(force);
        await page.getByLabel('Force, gf').press('Enter');
        await page.getByRole('button', { name: 'Cut a piece' }).click();
      }
      await page.getByLabel('The tool advises').check();
      await page.getByRole('status').filter({ hasText: /gf\./ }).waitFor();
    },
  },
  { name: 'run', path: '/jobs/5', prepare: cutTheJob },
  { name: 'log', path: '/log' },
  {
    name: 'upkeep',
    path: '/upkeep',
    station: 2,
    prepare: async (page) => {
      const drift = page.getByRole('region', { name: 'Drift on Dunlin desk' });
      await drift.getByText(/what was done/i).waitFor();
      await drift.evaluate((region) => region.scrollIntoView());
    },
  },
  { name: 'day', path: '/day/2026-12-01', prepare: planTheDay },
  { name: 'faults', path: '/faults', station: 2, prepare: askAFault },
];

const PHONE_SHOTS: readonly Shot[] = [
  { name: 'phone-bench', path: '/' },
  { name: 'phone-test-cuts', path: '/test-cuts', prepare: layACard },
];

await reportFailure(async () => {
  const home = homeFolder('test');
  mkdirSync(FOLDER, { recursive: true });
  await buildApp();
  try {
    const address = await startFreshDemo(home, await startDatabase(home), PACE);
    await takeShots(address, DESK, SHOTS);
    await takeShots(address, PHONE, PHONE_SHOTS);
  } finally {
    await stopProcesses(home);
    await stopDatabase(home);
  }
});

/** Lays as many pieces on the sheet as it takes, between marks and beside the corner for a test cut. */
async function fillTheSheet(page: Page): Promise<void> {
  await page.getByRole('tab', { name: '3 Sheet' }).click();
  await page.getByLabel(/Registration marks/).check();
  await page.getByLabel(/Keep a corner free/).check();
  await page.getByRole('radio', { name: 'Each piece by itself' }).click();
  await page.getByText('Nothing lies on the sheet yet.').waitFor();
  await page.getByLabel(/Copies/).fill('0');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Lay out' }).click();
  await page.getByText(/\d+ pieces on one sheet/).waitFor({ timeout: 40_000 });
  await page.evaluate('scrollTo(0, 0)');
}

/** Drops four pictures, and lays them out on two carrier cards of a Letter sheet. */
async function layOutStickers(page: Page): Promise<void> {
  const coats = ['#1e2a32', '#2c6e7f', '#7a3b69', '#8a5a2b'];
  const names = ['puffin', 'puffin, blue', 'puffin, plum', 'puffin, brown'];
  const files = coats.map(async (coat, at) => ({
    name: `${names[at]}.png`,
    mimeType: 'image/png',
    buffer: await sharp(Buffer.from(PICTURE.replace('#1e2a32', coat)))
      .png()
      .toBuffer(),
  }));
  await page.locator('input[type=file]').setInputFiles(await Promise.all(files));
  await page.getByLabel(/Longest side/).fill('22');
  await page.getByLabel(/^Copies of each/).fill('8');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await page.waitForURL(/\/jobs\/\d+$/);
  await page.getByRole('tab', { name: '3 Sheet' }).click();
  await page.getByLabel('Size', { exact: true }).selectOption('Letter');
  await page.getByLabel(/Registration marks/).check();
  await page.getByLabel(/On carrier cards/).check();
  await page.getByLabel(/^Cards/).fill('2');
  await page.keyboard.press('Enter');
  await page.getByText('32 pieces on 2 cards, one sheet.').waitFor();
  await page.evaluate('scrollTo(0, 0)');
}

/** Drops a picture, so that its outline lies around it. */
async function openAPicture(page: Page): Promise<void> {
  const buffer = await sharp(Buffer.from(PICTURE)).png().toBuffer();
  const file = { name: 'puffin.png', mimeType: 'image/png', buffer };
  await page.locator('input[type=file]').setInputFiles(file);
  await page.getByText(/^One outline of/).waitFor();
}

/** Sends the job and waits until the stand-in has cut some of it. */
async function cutTheJob(page: Page): Promise<void> {
  await page.getByRole('tab', { name: '6 Cut' }).click();
  await page.getByRole('button', { name: /Send to/ }).click();
  await page.getByText(/[3-9] of \d+/).waitFor();
}

/** Lays a ladder card for the through cut, ready to be graded standing up. */
async function layACard(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Through' }).click();
  await page.getByRole('button', { name: /^Cut a card of/ }).click();
  await page.getByRole('heading', { name: /card,/ }).waitFor();
}

/** Puts four jobs on the day. */
async function planTheDay(page: Page): Promise<void> {
  for (const name of ['Tide-table', 'Jam-jar', 'Crate stencil', 'Seed packet']) {
    const value = await page.locator('option', { hasText: name }).first().getAttribute('value');
    await page.getByLabel('Add a job').selectOption(value);
    await page.getByRole('button', { name: new RegExp(`^${name}.*cut`) }).waitFor();
  }
  await page.getByText(/Ends at/).waitFor();
}

/** Says what is seen, so that causes and the next move stand beside it. */
async function askAFault(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'not through anywhere' }).click();
  await page.getByText('Do next').waitFor();
}

async function takeShots(address: string, size: typeof DESK, shots: readonly Shot[]): Promise<void> {
  const context = await openBrowser(size, { locale: 'en-GB' });
  const page = await context.newPage();
  for (const { name, path, station = 1, prepare } of shots) {
    await context.addCookies([
      { name: 'feather_operator', value: 'Ines', url: address },
      { name: 'feather_station', value: String(station), url: address },
    ]);
    await page.goto(`${address}${path}`, { waitUntil: 'networkidle' });
    await prepare?.(page);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    console.log(`docs/screenshots/${name}.png`);
  }
  await context.close();
}
