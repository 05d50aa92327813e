import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { VIEWS } from '#e2e/support/views.ts';
import { BENCH_SIZE, go, PHONE_SIZE, visit, weighScripts, type Visitor } from '#e2e/support/app.ts';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  readonly violations: readonly {
    readonly id: string;
    readonly nodes: readonly { readonly html: string }[];
  }[];
}

let visitor: Visitor;
let phone: Visitor;
beforeAll(async () => {
  [visitor, phone] = await Promise.all([visit('Ines', 1, BENCH_SIZE), visit('Ines', 1, PHONE_SIZE)]);
});
afterAll(() => Promise.all([visitor.leave(), phone.leave()]));

/** Looks at the whole page at once: what is scrolled under the rail would count as covered, not as a target. */
async function findViolations({ page }: Visitor): Promise<readonly string[]> {
  const size = page.viewportSize() ?? BENCH_SIZE;
  // What is fetched after the page lives makes it longer: the rail must not lie on it when it is measured.
  await page.waitForLoadState('networkidle');
  const height = await page.evaluate(() => document.documentElement.scrollHeight);
  await page.setViewportSize({ width: size.width, height: Math.max(size.height, height + 200) });
  await page.evaluate(axe);
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
  // What passes is counted, not described: that takes as long as looking.
  const run = `axe.run(document, { runOnly: { type: 'tag', values: ${JSON.stringify(tags)} }, resultTypes: ['violations'] })`;
  const { violations } = (await page.evaluate(run)) as AxeResult;
  await page.setViewportSize(size);
  return violations.map(
    ({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`,
  );
}

/** A page turned to the size of a phone scrolls up and down alone, once what is drawn to measure was drawn anew. */
async function expectFitsPhone({ page }: Visitor): Promise<void> {
  await page.setViewportSize(PHONE_SIZE);
  const over = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  await expect.poll(over, { timeout: 3_000 }).toBeLessThanOrEqual(0);
  await page.setViewportSize(BENCH_SIZE);
}

describe('every main view', () => {
  it.each(VIEWS)(
    '%s keeps the axe-core rules for WCAG 2.2 AA, throws nothing, and fits a phone without scrolling sideways',
    async (_, path) => {
      visitor.errors.length = 0;
      await go(visitor.page, path);
      expect(await findViolations(visitor)).toEqual([]);
      await expectFitsPhone(visitor);
      expect(visitor.errors).toEqual([]);
    },
  );

  it.each(['Drawing', 'Roles', 'Sheet', 'Passes', 'Run sheet', 'Cut'])(
    'the step %s of a job keeps the rules and fits a phone',
    async (step) => {
      const { page, errors } = visitor;
      errors.length = 0;
      await go(page, '/jobs/4');
      await page.getByRole('tab', { name: new RegExp(`\\d ${step}$`) }).click();
      await page.getByRole('heading', { level: 2 }).first().waitFor();
      await page.getByRole('img', { name: /Tide-table stickers/ }).waitFor();
      expect(await findViolations(visitor)).toEqual([]);
      await expectFitsPhone(visitor);
      expect(errors).toEqual([]);
    },
  );

  it('Bench and Test cuts keep the rules on a phone too', async () => {
    for (const path of ['/', '/test-cuts']) {
      await go(phone.page, path);
      expect(await findViolations(phone)).toEqual([]);
    }
  });

  it('Bench ships at most 180 kB of gzipped script', async () => {
    const fresh = await visit('Ines', 1);
    const kilobytes = await weighScripts(fresh.page, '/');
    await fresh.leave();
    expect(kilobytes).toBeGreaterThan(20);
    expect(kilobytes).toBeLessThanOrEqual(180);
  });
});
