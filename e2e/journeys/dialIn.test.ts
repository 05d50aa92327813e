import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  ADDRESS,
  api,
  go,
  hearNothing,
  holdReads,
  PHONE_SIZE,
  settle,
  visit,
  type Visitor,
  setUp,
} from '#e2e/support/app.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';
import { unknownFilm } from '#e2e/support/unknownFilm.ts';

/** Finding a setting for sheets nobody has cut: each story has a sheet of its own, on a machine of its own. */
let ines: Visitor;
let tove: Visitor;
let machineId = 0;
let conditionId = 0;
let sheets = 0;

beforeAll(async () => {
  machineId = (await setUp<{ id: number }>('/api/machines', 'POST', rollCutter('Petrel 300'))).id;
  ines = await visit('Ines', machineId);
  tove = await visit('Tove', machineId, PHONE_SIZE);
});
afterAll(() => Promise.all([ines.leave(), tove.leave()]));

beforeEach(async () => {
  sheets += 1;
  const material = unknownFilm(`Skarv film ${sheets}`);
  conditionId = (await setUp<{ conditionId: number }>('/api/materials', 'POST', material)).conditionId;
  await api(`/api/stations/${machineId}`, 'PATCH', { conditionId });
});

const cutsOf = ({ page }: Visitor) => page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
const forceOf = async ({ page }: Visitor) => Number(await page.getByLabel(/cut next at/).inputValue());
const ready = ({ page }: Visitor) =>
  expect.poll(() => page.getByRole('button', { name: /^0 / }).isEnabled()).toBe(true);

/** What a sheet shows whose face comes free at 90 gf and whose liner is scored from 110, gouged from 135. */
const seenAt = (force: number) =>
  force < 50 ? 0 : force < 80 ? 1 : force < 90 ? 2 : force < 110 ? 3 : force < 135 ? 4 : force < 180 ? 5 : 6;

async function tap(visitor: Visitor, grade: number): Promise<void> {
  const before = await cutsOf(visitor).count();
  await visitor.page.getByRole('button', { name: new RegExp(`^${grade} `) }).click();
  await expect.poll(() => cutsOf(visitor).count()).toBe(before + 1);
  await ready(visitor);
}

describe('one at a time', () => {
  it('finds the window in at most six cuts, says how sure it is, keeps it and tells what it taught', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    await page.getByText('Only a prediction').waitFor();
    await page
      .getByText(/\d+ gf predicted/)
      .last()
      .waitFor();
    const stop = page.getByText('Stop cutting: keep');
    let cuts = 0;
    for (; cuts < 6 && !(await stop.isVisible()); cuts++) await tap(ines, seenAt(await forceOf(ines)));
    await stop.waitFor();
    await page.getByText(/cuts right/).waitFor();
    await page.getByRole('button', { name: /^Keep \d+ gf$/ }).click();
    const kept = page.getByText(/^Kept: /);
    await kept.waitFor();
    const force = Number(/Kept: (\d+) gf/.exec((await kept.textContent()) ?? '')?.[1]);
    expect(force).toBeGreaterThan(88);
    expect(force).toBeLessThan(135);
    await page.getByText(/What it taught about others|No other prediction/).waitFor();
    expect(ines.errors).toEqual([]);
  });

  it('asks for a repeat after a grade that nothing pointed to, and goes on when it was misread', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    for (const force of [80, 100, 120]) {
      await page.getByLabel(/cut next at/).fill(String(force));
      await page.getByLabel(/cut next at/).press('Enter');
      await tap(ines, seenAt(force));
    }
    await page.getByLabel(/cut next at/).fill('105');
    await page.getByLabel(/cut next at/).press('Enter');
    await tap(ines, 7);
    await page.getByText('Cut 105 gf once more.').waitFor();
    expect(await forceOf(ines)).toBe(105);
    await tap(ines, 3);
    await expect.poll(() => page.getByText('Cut 105 gf once more.').isVisible()).toBe(false);
  });

  it('takes grades back one after the other', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    await tap(ines, 1);
    await tap(ines, 3);
    await page.getByRole('button', { name: /^Take back the cut/ }).click();
    await expect.poll(() => cutsOf(ines).count()).toBe(1);
    await ready(ines);
    await page.keyboard.press('u');
    await expect.poll(() => cutsOf(ines).count()).toBe(0);
  });
});

describe('by card', () => {
  it('cuts a ladder, is graded by its two marks with the keyboard, then confirms', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    await page.getByRole('button', { name: 'Cut a card of 6' }).click();
    await page.getByRole('heading', { name: /Ladder card, 6 forces/ }).waitFor();
    const card = page.getByRole('region', { name: 'Card', exact: true });
    const forces = (await card.getByRole('listitem').allTextContents()).map((text) => parseInt(text, 10));
    expect(forces).toHaveLength(6);
    const from = (limit: number) => forces.filter((force) => force < limit).length;
    await move(ines, 'from here it lifts', from(90));
    await move(ines, 'from here the liner is deeply scored', from(180));
    await page.getByRole('button', { name: 'Record all 6 cells' }).click();
    await expect.poll(() => cutsOf(ines).count()).toBe(6);
    await page.getByRole('button', { name: /^Cut a card of [36]$/ }).click();
    await page.getByRole('region', { name: 'Card', exact: true }).waitFor();
    await page
      .getByRole('region', { name: 'Card', exact: true })
      .getByRole('listitem')
      .first()
      .getByRole('button')
      .click();
    await page.getByText(/^Cell 1,/).waitFor();
    await page.keyboard.press('3');
    await expect.poll(() => cutsOf(ines).count()).toBe(7);
    await page.getByRole('button', { name: 'Put the card away ungraded' }).click();
    await page.getByLabel(/cut next at/).waitFor();
    expect(ines.errors).toEqual([]);
  });

  it('gives a card back when its grades are taken back', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    await page.getByRole('button', { name: 'Cut a card of 6' }).click();
    // Nothing can be recorded before somebody has said where the card changes.
    expect(await page.getByRole('button', { name: 'Record all 6 cells' }).isDisabled()).toBe(true);
    await leaveMarks(ines);
    await page.getByRole('button', { name: 'Record all 6 cells' }).click();
    await expect.poll(() => cutsOf(ines).count()).toBe(6);
    await page.getByLabel(/cut next at/).waitFor();
    await page.getByRole('button', { name: /^Take back the cut/ }).click();
    await page.getByRole('heading', { name: /Ladder card, 6 forces/ }).waitFor();
    await expect.poll(() => cutsOf(ines).count()).toBe(0);
  });

  it('draws the card for the machine, as a picture and as a print guide', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    await page.getByRole('button', { name: 'Cut a card of 6' }).click();
    await page.getByRole('heading', { name: /Ladder card/ }).waitFor();
    const [open] = (await api<{ id: number }[]>(`/api/dial-ins?machineId=${machineId}`)).reply;
    const read = async (format: string) =>
      (await fetch(`${ADDRESS}/api/dial-ins/${open!.id}/piece?card=waiting&format=${format}`)).text();
    expect((await read('hpgl')).match(/FS\d+/g)!.length).toBeGreaterThanOrEqual(6);
    expect(await read('svg')).toMatch(/^<svg[^>]* width="150mm"/);
    expect(await read('guide')).toContain('stroke-dasharray');
  });

  it('cuts the finest spot of a job instead, drawn beside its name', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    await tap(ines, 1);
    const shapes = page.getByLabel('shape');
    const [job] = (await api<{ id: number; name: string }[]>('/api/jobs')).reply;
    await shapes.selectOption(`job${job!.id}`);
    await page.getByRole('img', { name: `The finest spot of ${job!.name}` }).waitFor();
    const [open] = (await api<{ id: number }[]>(`/api/dial-ins?machineId=${machineId}`)).reply;
    const drawn = await (await fetch(`${ADDRESS}/api/dial-ins/${open!.id}/piece?format=svg`)).text();
    expect(drawn).toMatch(/^<svg[^>]* width="150mm"/);
    await shapes.selectOption('square');
    await expect.poll(() => page.getByRole('img', { name: /^The finest spot/ }).count()).toBe(0);
  });
});

describe('interrupted, and by two people', () => {
  it('goes on at a phone where the desk left off, with the card that lies on the bench', async () => {
    await go(ines.page, '/test-cuts?operation=kiss');
    await tap(ines, 1);
    await ines.page.getByRole('button', { name: /^Cut a card of/ }).click();
    await ines.page.getByRole('heading', { name: /card,/ }).waitFor();
    await go(tove.page, '/test-cuts?operation=kiss');
    await tove.page.getByRole('heading', { name: /card,/ }).waitFor();
    await tove.page.getByText(/Opened by Ines/).waitFor();
    await leaveMarks(tove);
    await tove.page.getByRole('button', { name: /^Record all/ }).click();
    await expect.poll(() => cutsOf(tove).count()).toBeGreaterThan(3);
    await expect.poll(() => cutsOf(ines).count()).toBe(await cutsOf(tove).count());
    expect(await tove.page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
      PHONE_SIZE.width,
    );
  });

  it('takes one grade per cell: who comes second is told and loses nothing', async () => {
    await hearNothing(ines);
    await go(ines.page, '/test-cuts?operation=kiss');
    await ines.page.getByRole('button', { name: 'Cut a card of 6' }).click();
    await ines.page.getByRole('heading', { name: /Ladder card/ }).waitFor();
    const [open] = (
      await api<{ id: number; card: { load: number } }[]>(`/api/dial-ins?machineId=${machineId}`)
    ).reply;
    const cell = { load: open!.card.load, grades: [{ cell: 0, grade: 1 }] };
    const path = `/api/dial-ins/${open!.id}/grades`;
    // Nor does it read by itself what the others did, however slow this machine is.
    const letThrough = await holdReads(ines, `**/api/dial-ins/${open!.id}`);
    const both = await Promise.all([api(path, 'POST', cell), api(path, 'POST', cell)]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    await leaveMarks(ines);
    await ines.page.getByRole('button', { name: 'Record all 6 cells' }).click();
    await expect.poll(() => ines.page.getByRole('alert').textContent()).toMatch(/graded cell 1 already/);
    await letThrough();
    await ines.page.getByRole('button', { name: 'Record the other 5 cells' }).click();
    await expect.poll(() => cutsOf(ines).count()).toBe(6);
  });
});

describe('an unknown sheet', () => {
  it('is named by what is seen, loaded, and asks for its first cut', async () => {
    const { page } = ines;
    await go(page, '/test-cuts/unknown');
    await page.getByRole('button', { name: 'cardstock' }).click();
    await page.getByRole('button', { name: 'dark or strongly coloured' }).click();
    await page.getByLabel(/Thickness of all layers/).fill('9');
    await page.getByRole('button', { name: /Load it/ }).click();
    await expect.poll(() => page.getByRole('alert').textContent()).toMatch(/not between 30 and 3000/);
    await page.getByLabel(/Thickness of all layers/).fill('310');
    await page.getByRole('button', { name: /Load it/ }).click();
    await page.waitForURL(/test-cuts$/);
    await settle(page);
    await page
      .getByText(/Unnamed cardstock/)
      .first()
      .waitFor();
    await page.getByText('Only a prediction').waitFor();
    await page.getByRole('link', { name: 'Score' }).waitFor();
  });
});

/** Says of both marks that they are right where they stand. */
async function leaveMarks({ page }: Visitor): Promise<void> {
  const marks = page.getByRole('region', { name: 'Card', exact: true }).getByRole('slider');
  for (const mark of await marks.all()) await mark.press('Enter');
}

async function move({ page }: Visitor, label: string, to: number): Promise<void> {
  const mark = page.getByLabel(label);
  await mark.focus();
  await page.keyboard.press('Home');
  for (let step = 0; step < to; step++) await page.keyboard.press('ArrowRight');
  await expect.poll(() => mark.inputValue()).toBe(String(to));
}
