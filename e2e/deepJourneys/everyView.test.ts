import type { Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, go, visit, type Visitor } from '#e2e/support/app.ts';
import { fallQuiet } from '#e2e/support/settle.ts';
import { expectFitsPhone } from '#e2e/support/fitsPhone.ts';
import { findViolations } from '#e2e/support/axe.ts';
import { VIEWS } from '#e2e/support/views.ts';

/** Every view as a bench counts and writes: no length of the other system is left, and no decimal of another region. */
let nora: Visitor;
beforeAll(async () => {
  nora = await visit('Nora', 1);
});
afterAll(() => nora.leave());

async function choose(
  name: 'feather_units' | 'feather_writing' | 'feather_look',
  value: string,
): Promise<void> {
  await nora.context.addCookies([{ name, value, url: ADDRESS }]);
}

/** Opens a view, or a step of a job. */
async function open(path: string, step: string): Promise<void> {
  const { page } = nora;
  await go(page, path);
  if (!step) return;
  await page.getByRole('tab', { name: new RegExp(`\\d ${step}$`) }).click();
  await page.getByRole('img', { name: /Tide-table stickers/ }).waitFor();
}

/** Figures as another bench says them, as they can be read or are read out; what people typed themselves is theirs. */
async function strayFigures(page: Page, wanted: RegExp): Promise<readonly string[]> {
  const texts = await page.evaluate(() => {
    for (const closed of document.querySelectorAll('details')) closed.open = true;
    const named = [...document.querySelectorAll('[aria-label], [title], [alt], [placeholder]')].flatMap(
      (one) => ['aria-label', 'title', 'alt', 'placeholder'].map((name) => one.getAttribute(name) ?? ''),
    );
    return [document.body.innerText, ...named].join('\n').split('\n');
  });
  // The letters of a sheet's code are no figures.
  const spoken = texts.filter((line) => !line.trimStart().startsWith('FEATHER'));
  const said = spoken.map((line) => line.replaceAll(TOOL, '').trim());
  return [...new Set(said.filter((line) => wanted.test(line)))];
}
const TOOL = 'ball 1.5 mm';
/** Speeds are dialled as the panel has them; a tool is called as its owner called it. */
const METRIC = /\d ?(mm|cm|µm)\b(?!\/s)|, mm\b|\bmm²|\d m\b(?!in)/;
/** A decimal point that is of no address or version. */
const POINT = /(?<![\d.\w])\d+\.\d+(?!\.?\d)/;
const INCH = /\d (in(?=[.,;:)×]|$)|mil\b|ft\b)|, in$/;

const STEPS = ['Drawing', 'Roles', 'Sheet', 'Passes', 'Run sheet', 'Cut'].map(
  (step) => [`step ${step} of a job`, '/jobs/4', step] as const,
);
/** What goes over the wire is metric everywhere. */
const ALL = [
  ...VIEWS.filter(([, path]) => path !== '/api').map(([name, path]) => [name, path, ''] as const),
  ...STEPS,
];
const LOOKED_AT = [...ALL, ['the HTTP interface', '/api', ''] as const];

describe.each([
  ['inch', 'en-GB', [METRIC]],
  ['metric', 'de', [INCH, POINT]],
] as const)('at a bench that counts in %s and writes as %s', (system, region, strays) => {
  it.each(ALL)('%s has no other unit and no other mark', async (_, path, step) => {
    const { page, errors } = nora;
    await choose('feather_units', system);
    await choose('feather_writing', region);
    await open(path, step);
    await fallQuiet(page);
    for (const stray of strays) expect(await strayFigures(page, stray)).toEqual([]);
    expect(errors.splice(0)).toEqual([]);
  });
});

describe('by day', () => {
  it.each(LOOKED_AT)(
    '%s keeps the axe-core rules for WCAG 2.2 AA and fits a phone',
    async (_, path, step) => {
      const { errors } = nora;
      await choose('feather_look', 'light');
      await open(path, step);
      expect(await findViolations(nora)).toEqual([]);
      await expectFitsPhone(nora);
      expect(errors.splice(0)).toEqual([]);
    },
  );
});

describe('by night', () => {
  it.each(ALL)('%s keeps the axe-core rules for WCAG 2.2 AA', async (_, path, step) => {
    const { page, errors } = nora;
    await choose('feather_look', 'dark');
    await open(path, step);
    expect(await page.evaluate(() => getComputedStyle(document.documentElement).colorScheme)).toBe('dark');
    expect(await findViolations(nora)).toEqual([]);
    expect(errors.splice(0)).toEqual([]);
  });
});
