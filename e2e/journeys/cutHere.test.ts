import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { GRADE_WORDS } from '#core/stack/depthGrade.ts';
import { go, PHONE_SIZE, setUp, visit, type Visitor } from '#e2e/support/app.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';

/** A sheet nobody knows, found from the screen alone at a phone: no file, no keyboard, by what is seen of each piece. */
let tove: Visitor;
let machineId = 0;

beforeAll(async () => {
  const link = { kind: 'standIn', model: 'roll' };
  machineId = (await setUp<{ id: number }>('/api/machines', 'POST', { ...rollCutter('Tern 340'), link })).id;
  const material = {
    name: 'Tern matt film',
    maker: 'unknown',
    family: 'printableVinyl',
    finish: 'matt',
    colourName: 'pale',
    colourHex: '#e4e2dc',
    darkness: 0,
    stack: [
      { role: 'face', caliperUm: 85, isMeasured: false },
      { role: 'adhesive', caliperUm: 25, isMeasured: false },
      { role: 'liner', caliperUm: 130, isMeasured: false },
    ],
  };
  const { conditionId } = await setUp<{ conditionId: number }>('/api/materials', 'POST', material);
  await setUp(`/api/stations/${machineId}`, 'PATCH', { conditionId });
  tove = await visit('Tove', machineId, PHONE_SIZE);
});
afterAll(() => tove.leave());

/** The grade whose look the picture shows. */
async function seenGrade(): Promise<number> {
  const picture = tove.page.getByRole('region', { name: 'On the machine' }).getByRole('img');
  const look = await picture.first().getAttribute('aria-label');
  const entry = Object.entries(GRADE_WORDS).find(([, words]) => words.look === look);
  return Number(entry?.[0] ?? NaN);
}

/** Cuts, looks, taps, until the page says stop; then keeps. */
async function find(operation: 'kiss' | 'through'): Promise<void> {
  const { page } = tove;
  await go(page, `/test-cuts?operation=${operation}`);
  const stop = page.getByText('Stop cutting: keep');
  const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
  const before = await cuts.count();
  for (let count = before; count < before + 9 && !(await stop.isVisible()); count++) {
    const cut = page.getByRole('button', { name: /^Cut \d+ gf on Tern 340$/ });
    await expect.poll(() => cut.isEnabled()).toBe(true);
    await cut.click();
    await expect.poll(() => cut.isEnabled()).toBe(false);
    await page.getByText('Look at it, then tap what you see').waitFor();
    const grade = await seenGrade();
    // Whatever is dialled meanwhile, the grade is of the piece that lies there.
    await page.getByRole('button', { name: 'One step more force' }).click();
    await page.getByRole('button', { name: new RegExp(`^${grade} `) }).click();
    await expect.poll(() => cuts.count()).toBe(count + 1);
  }
  await stop.waitFor();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await page.getByText('The last piece that was cut here').waitFor();
  await page.getByRole('button', { name: /^Keep \d+ gf$/ }).click();
  await page.getByText(/^Kept: \d+ gf/).waitFor();
}

afterEach(async () => {
  const { page, errors } = tove;
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
    PHONE_SIZE.width,
  );
  expect(errors).toEqual([]);
});

it('its kiss is cut on the machine, looked at, graded with a tap and kept', () => find('kiss'));

it('so is its through cut', () => find('through'));

it('then its tabs: a piece is cut, pushed out, judged by what was found, until one is right', async () => {
  const { page } = tove;
  await go(page, '/test-cuts?operation=perforated');
  const steps = ['fell out', 'loose', 'right', 'hard to pop', 'tore'];
  const found = [/dropped out/, /moves when the sheet/, /light push/, /both thumbs/, /tears beside/];
  for (let pieces = 0; pieces < 5; pieces++) {
    const cut = page.getByRole('button', { name: /^Cut the piece on Tern 340$/ });
    await expect.poll(() => cut.isEnabled()).toBe(true);
    await cut.click();
    await expect.poll(() => cut.isEnabled()).toBe(false);
    const told = page.getByText(/Tap what that is/).locator('..');
    await expect.poll(() => told.textContent()).toMatch(/dropped|moves|light push|thumbs|tears/);
    const words = (await told.textContent())!;
    const seen = found.findIndex((pattern) => pattern.test(words));
    await page.getByRole('button', { name: steps[seen]!, exact: true }).click();
    const judged = page.getByRole('region', { name: 'Pieces so far' }).getByRole('listitem');
    await expect.poll(() => judged.count()).toBe(pieces + 1);
    if (seen === 2) break;
    expect(pieces).toBeLessThan(4);
  }
  await page.getByRole('button', { name: 'Take it out' }).click();
  await page.getByText('The last piece was taken out.').waitFor();
  await page.getByRole('button', { name: /^Keep [\d.]+ mm tab/ }).click();
  await page.getByText(/Kept as revision 1/).waitFor();
});
