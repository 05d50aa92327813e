import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
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
  {
    name: 'job-roles',
    path: '/jobs/4',
    prepare: (page) => page.getByRole('tab', { name: '2 Roles' }).click(),
  },
  { name: 'job-sheet', path: '/jobs/5', prepare: fillTheSheet },
  { name: 'job-passes', path: '/jobs/5', prepare: (page) => page.getByText('Will the pieces').waitFor() },
  {
    name: 'job-run-sheet',
    path: '/jobs/1',
    station: 2,
    prepare: async (page) => {
      await page.getByRole('tab', { name: '5 Run sheet' }).click();
      await page.getByText('Crease with the back tool').waitFor();
    },
  },
  { name: 'run', path: '/jobs/5', prepare: cutTheJob },
  { name: 'log', path: '/log' },
  { name: 'charts', path: '/log/charts' },
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
  const context = await openBrowser(size);
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
