import { expect } from 'vitest';
import { GRADE_WORDS } from '#core/stack/depthGrade.ts';
import type { Page } from 'playwright-core';
import { go, type Visitor } from '#e2e/support/app.ts';

/** Somebody who finds settings from the screen alone: by what is seen of each piece, tapped, without a file or a key. */

/** The grade whose look the picture shows. */
export async function seenGrade(page: Page): Promise<number> {
  const picture = page.getByRole('region', { name: 'On the machine' }).getByRole('img');
  const look = await picture.first().getAttribute('aria-label');
  const entry = Object.entries(GRADE_WORDS).find(([, words]) => words.look === look);
  return Number(entry?.[0] ?? NaN);
}

/** Cuts, looks, taps, goes on another way where one is offered, until the page says stop; then keeps. */
export async function findCut(
  visitor: Visitor,
  machine: string,
  operation: 'kiss' | 'through',
): Promise<void> {
  const { page } = visitor;
  await go(page, `/test-cuts?operation=${operation}`);
  const stop = page.getByText('Stop cutting: keep');
  const goOn = page.getByRole('button', { name: /^Go on (in|at) / });
  const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
  for (let made = 0; made < 12 && !(await stop.isVisible()); made++) {
    if (await goOn.isVisible()) await goOn.click();
    const before = await cuts.count();
    const cut = page.getByRole('button', { name: new RegExp(`^Cut .+ on ${machine}$`) });
    await expect.poll(() => cut.isEnabled()).toBe(true);
    await cut.click();
    await expect.poll(() => cut.isEnabled()).toBe(false);
    await page.getByText('Look at it, then tap what you see').waitFor();
    const grade = await seenGrade(page);
    // Whatever is dialled meanwhile, the grade is of the piece that lies there.
    const more = page.getByRole('button', { name: 'One step more force' });
    await more.click();
    // Not the other way that is offered, such as "2 lighter passes".
    await page.getByRole('button', { name: new RegExp(`^${grade} (?!.*pass(es)?$)`) }).click();
    await expect.poll(() => cuts.count()).toBe(before + 1);
  }
  await stop.waitFor();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await page.getByText('The last piece that was cut here').waitFor();
  await page.getByRole('button', { name: /^Keep \D*[\d.]+\D*$/ }).click();
  await page.getByText(/^Kept: /).waitFor();
}

/** What is told of a piece that was pushed out, for each of the five judgements. */
const TOLD = [/dropped out/, /moves when the sheet/, /light push/, /both thumbs/, /tears beside/];
const STEPS = ['fell out', 'loose', 'right', 'hard to pop', 'tore'];

/** Cuts a perforated piece, pushes it out and judges it by what was found, until one is right; then keeps its tabs. */
export async function findTabs({ page }: Visitor, machine: string): Promise<void> {
  await go(page, '/test-cuts?operation=perforated');
  const judged = page.getByRole('region', { name: 'Pieces so far' }).getByRole('listitem');
  for (let pieces = 0; pieces < 6; pieces++) {
    const cut = page.getByRole('button', { name: `Cut the piece on ${machine}` });
    await expect.poll(() => cut.isEnabled()).toBe(true);
    await cut.click();
    await expect.poll(() => cut.isEnabled()).toBe(false);
    const told = page.getByText(/Tap what that is/).locator('..');
    await expect.poll(() => told.textContent()).toMatch(/dropped|moves|light push|thumbs|tears/);
    const words = (await told.textContent()) ?? '';
    const seen = TOLD.findIndex((pattern) => pattern.test(words));
    await page.getByRole('button', { name: STEPS[seen] ?? '', exact: true }).click();
    await expect.poll(() => judged.count()).toBe(pieces + 1);
    if (STEPS[seen] === 'right') break;
    expect(pieces).toBeLessThan(5);
  }
  await page.getByRole('button', { name: 'Take it out' }).click();
  await page.getByText('The last piece was taken out.').waitFor();
  await page.getByRole('button', { name: /^Keep [\d.]+ mm tab/ }).click();
  await page.getByText(/Kept as revision 1/).waitFor();
}
