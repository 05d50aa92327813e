import type { BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openBrowser } from '#commands/openBrowser.ts';
import { bareWorkshop, NO_MACHINES, type BareWorkshop } from '#e2e/support/bareWorkshop.ts';
import { settle } from '#e2e/support/settle.ts';

/** A workshop that just began: no machine, no sheet, no setting. Every view says what to do first. */
let workshop: BareWorkshop;
let address: string;
let context: BrowserContext;
let page: Page;
const errors: string[] = [];

beforeAll(async () => {
  workshop = await bareWorkshop('empty', NO_MACHINES);
  address = workshop.address;
  context = await openBrowser({ width: 1280, height: 800 });
  page = await context.newPage();
  page.setDefaultTimeout(45_000);
  page.on('pageerror', (error) => errors.push(error.message));
});
afterAll(async () => {
  await context.close();
  await workshop.end();
});

const open = (path: string) => page.goto(`${address}${path}`, { waitUntil: 'networkidle' });

describe('an empty workshop', () => {
  it.each([
    ['/', 'Set up your bench'],
    ['/test-cuts', 'Set up your bench'],
    ['/settings', 'No cut setting matches'],
    ['/upkeep', 'No machine yet.'],
    ['/compare', 'Nothing to compare yet'],
    ['/log', 'Log'],
    ['/jobs', 'Jobs'],
    ['/book', 'Read a file in'],
    ['/settings/new', 'New setting'],
  ])('%s says "%s", not nothing', async (path, words) => {
    const response = await open(path);
    expect(response?.status()).toBe(200);
    await page.getByText(words, { exact: false }).first().waitFor();
    expect(errors).toEqual([]);
  });

  it.each(['/settings/1', '/materials/1', '/machines/1', '/runs/1', '/settings/x'])(
    '%s is not found, in words, with a way back',
    async (path) => {
      expect((await open(path))?.status()).toBe(404);
      await page.getByRole('heading', { name: /There is no such/ }).waitFor();
      await page.getByRole('link', { name: 'Back', exact: true }).waitFor();
    },
  );

  it('leads from nothing to a predicted answer: a machine, then a sheet', async () => {
    await open('/');
    await page.getByRole('main').getByRole('link', { name: 'Add a machine' }).click();
    await page.waitForURL(/machines.new$/, { waitUntil: 'load' });
    await settle(page);
    await page.getByLabel('What you call it').fill('First cutter');
    await page.getByRole('button', { name: 'Keep it and work at it' }).click();
    await page
      .getByRole('listitem')
      .filter({ hasText: /Add the machine you cut with\s*, done/ })
      .waitFor();
    await page.getByRole('main').getByRole('link', { name: 'Add a material by its layers' }).click();
    await page.waitForURL(/materials.new/, { waitUntil: 'load' });
    await settle(page);
    await page.getByLabel('Name on the pack').fill('First sheet');
    await page.getByLabel('Maker').fill('Somebody');
    await page.getByLabel('Family').selectOption('cardstock');
    await page.getByLabel('Layer 1 caliper').fill('80 lb cover');
    await page.getByText(/80 lb cover, 216 g\/m²/).waitFor();
    await page.getByRole('button', { name: 'Keep it and load it here' }).click();
    await page.getByRole('heading', { name: 'First sheet' }).waitFor();
    await page.getByText('Never cut here.').waitFor();
    await page.getByText('No blade is set at this station').waitFor();
    const next = page.getByRole('region', { name: 'First hour' });
    await next.getByRole('link', { name: /Find its first setting/ }).waitFor();
    await next.getByRole('link', { name: /Make the first job/ }).waitFor();
    expect(errors).toEqual([]);
  });
});
