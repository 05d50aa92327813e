import { fallQuiet } from '#e2e/support/settle.ts';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { BENCH_SIZE, type Visitor } from '#e2e/support/app.ts';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  readonly violations: readonly {
    readonly id: string;
    readonly nodes: readonly { readonly html: string }[];
  }[];
}

/** Looks at the whole page at once: what is scrolled under the rail would count as covered, not as a target. */
export async function findViolations({ page }: Visitor): Promise<readonly string[]> {
  const size = page.viewportSize() ?? BENCH_SIZE;
  // What is fetched after the page lives makes it longer: the rail must not lie on it when it is measured.
  await fallQuiet(page);
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
