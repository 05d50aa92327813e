import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Run } from '#core/run/run.ts';
import { acceptAll, ADDRESS, api, arrive, go, press, visit, type Visitor } from '#e2e/support/app.ts';
import { orderStandIn } from '#e2e/support/orderStandIn.ts';
import type { RegistrationReply } from '#web/schemas/registration.ts';

/**
 * Print and cut on the stand-ins: a card is printed there, put in, misread for light and for stray ink, cut, read under
 * the glass, and found again in the log. What the printer did to the sheet arrives at the blade.
 */
let tove: Visitor;
let glass = '';
beforeAll(async () => {
  tove = await visit('Tove', 1);
});
afterAll(() => tove.leave());

const state = async () =>
  (await (await fetch(new URL('/state', glass))).json()) as {
    marks: { corner: string; said: string; contrast: string }[];
    readings: { corner: string; sideways: number; down: number }[];
    reason: string;
  };
const arm = (fault: string) => orderStandIn(glass, { order: 'fault', fault, afterStrokes: 0 });
const runId = () => Number(/\d+$/.exec(new URL(tove.page.url()).pathname)![0]);
const runNow = async () => (await api<Run>(`/api/runs/${runId()}`)).reply;

describe('a card that is printed and cut on the stand-ins', () => {
  it('is made for the machine, printed, and its ink is waited for', async () => {
    const { page } = tove;
    await go(page, '/machines/1');
    await page.getByRole('button', { name: 'Make a card to print and cut' }).click();
    await arrive(page, /^\/jobs\/\d+$/);
    await page.getByRole('tab', { name: '5 Run sheet' }).click();
    await page.getByRole('button', { name: /stand-in printer/ }).click();
    await page.getByText(/Printed\. Its ink is dry in \d+ min/).waitFor();
  });

  it('is held where light of the room blinds the sensor, and says how many marks stood out', async () => {
    const { page } = tove;
    const job = new URL(page.url()).pathname;
    const { reply: jobs } = await api<{ id: number; name: string }[]>('/api/jobs');
    expect(jobs.some(({ id, name }) => job === `/jobs/${id}` && name.startsWith('Print-to-cut card'))).toBe(
      true,
    );
    await page.getByRole('tab', { name: '6 Cut' }).click();
    // The page of the cutter is linked from any run of it; its faults are armed before this one begins.
    const { reply: log } = await api<{ link: string | null }[]>('/api/log?kind=run&machine=1&limit=1');
    await go(page, log[0]!.link!);
    glass = (await page.getByRole('link', { name: /its stand-in/ }).getAttribute('href'))!;
    await arm('roomLight');
    await go(page, job);
    await page.getByRole('tab', { name: '6 Cut' }).click();
    await acceptAll(page);
    await page.getByRole('button', { name: /^Send to/ }).click();
    await arrive(page, /^\/runs\/\d+$/);
    await page.getByText(/the marks were not found: none of the four stands out/).waitFor();
    const { marks } = await state();
    expect(marks).toHaveLength(4);
    expect(marks.every(({ said, contrast }) => said === 'not read' && parseInt(contrast) < 30)).toBe(true);
    expect((await runNow()).outcomes).toEqual([]);
  });

  it('is held again over stray ink, and cut once both are put right, every stroke once', async () => {
    const { page } = tove;
    await arm('strayInk');
    await page
      .getByRole('button', { name: /^Go on/ })
      .first()
      .click();
    await page.getByText(/what was read does not fit by \d\.\d mm/).waitFor();
    await page
      .getByRole('button', { name: /^Go on/ })
      .first()
      .click();
    await page.getByRole('button', { name: /unload/ }).waitFor({ timeout: 60_000 });
    const { strokes, outcomes } = await runNow();
    expect(outcomes.map(({ index }) => index)).toEqual(strokes.map((_, index) => index));
    expect((await state()).marks.every(({ said }) => said === 'read')).toBe(true);
  });

  it('shows under the glass what the machine and the printer did, and the card finds it', async () => {
    const { page } = tove;
    const { readings } = await state();
    expect(readings).toHaveLength(4);
    // Off by the machine's half a mm, give or take the sheet: nowhere more than 1.5 mm.
    expect(readings.every(({ sideways, down }) => Math.hypot(sideways, down) < 15)).toBe(true);
    expect(readings.some(({ sideways, down }) => Math.hypot(sideways, down) >= 2)).toBe(true);
    await page.getByRole('button', { name: /unload/ }).click();
    await page.getByText('Done', { exact: true }).waitFor();
    await go(page, '/machines/1');
    for (const { corner, sideways, down } of readings) {
      await page.getByLabel(`${corner}, sideways`).fill(String(sideways));
      await page.getByLabel(`${corner}, up or down`).fill(String(down));
    }
    await press(page, page.getByRole('button', { name: 'Keep this reading' }), /registration-sheets$/);
    await page.getByText(/Steady part/).waitFor();
    const { reply } = await api<RegistrationReply>('/api/machines/1/registration');
    const [sheet] = reply.sheets;
    const mean = (pick: (one: (typeof readings)[number]) => number) =>
      readings.reduce((sum, one) => sum + pick(one), 0) / 40;
    // The fit's shift is that of the middle of the card; what an eye reads is rounded to a tenth.
    expect(Math.abs(sheet!.shift.x - mean(({ sideways }) => sideways))).toBeLessThan(0.1);
    expect(Math.abs(sheet!.shift.y - mean(({ down }) => down))).toBeLessThan(0.1);
  });

  it('is found in the log by day, machine and kind, on the page by keyboard and in its file', async () => {
    const { page } = tove;
    const today = new Date().toISOString().slice(0, 10);
    await go(page, '/log');
    await page.getByRole('button', { name: 'Runs' }).focus();
    await page.keyboard.press('Enter');
    await page.getByLabel('Machine').selectOption({ label: 'Gannet 600' });
    await page.getByLabel('From').fill(today);
    await expect.poll(() => new URL(page.url()).search).toBe(`?from=${today}&machine=1&kind=run`);
    await page
      .getByRole('link', { name: /Print-to-cut card/ })
      .first()
      .waitFor();
    const href = await page.getByRole('link', { name: 'CSV' }).getAttribute('href');
    const csv = await (await fetch(`${ADDRESS}${href}`)).text();
    expect(csv.split('\n')[0]).toMatch(/at,kind,what,detail,by/);
    expect(csv).toMatch(/Print-to-cut card/);
    expect(
      csv
        .trim()
        .split('\n')
        .slice(1)
        .every((line) => line.startsWith(today) && line.includes(',run,')),
    ).toBe(true);
    await page.reload();
    await page
      .getByRole('link', { name: /Print-to-cut card/ })
      .first()
      .waitFor();
    expect(await page.getByLabel('From').inputValue()).toBe(today);
    await page.getByRole('button', { name: 'Show all again' }).click();
    await expect.poll(() => new URL(page.url()).search).toBe('?kind=run');
    expect(tove.errors).toEqual([]);
  });
});
