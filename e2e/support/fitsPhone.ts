import { expect } from 'vitest';
import { BENCH_SIZE, PHONE_SIZE, type Visitor } from '#e2e/support/app.ts';

/** A page turned to the size of a phone scrolls up and down alone, once what is drawn to measure was drawn anew. */
export async function expectFitsPhone({ page }: Visitor): Promise<void> {
  await page.setViewportSize(PHONE_SIZE);
  const over = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  await expect.poll(over).toBeLessThanOrEqual(0);
  await page.setViewportSize(BENCH_SIZE);
}
