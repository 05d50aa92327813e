import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ADDRESS, api, go, visit, type Visitor } from '#e2e/support/app.ts';
import { python } from '#e2e/support/drawer.ts';

/** A day is planned over two machines. */
let ines: Visitor;
const folder = mkdtempSync(join(tmpdir(), 'feather-plan-'));
beforeAll(async () => {
  ines = await visit('Ines', 1);
});
afterAll(async () => {
  await ines.leave();
  rmSync(folder, { recursive: true, force: true });
});

it('plans three jobs over both machines, by keyboard too, and gives the day to a calendar', async () => {
  const { page } = ines;
  await go(page, '/day/2026-12-01');
  for (const name of ['Tide-table', 'Jam-jar', 'Crate stencil']) {
    const value = await page.locator('option', { hasText: name }).first().getAttribute('value');
    await page.getByLabel('Add a job').selectOption(value);
    await page.getByRole('button', { name: new RegExp(`^${name}.*cut 1 sheet`) }).waitFor();
  }
  await page.getByText(/Ends at/).waitFor();
  const bar = page.getByRole('button', { name: /^Crate stencil.*cut 1 sheet/ });
  // A slow network: what is changed while a change is under way is neither lost nor refused.
  await page.route('**/api/days/*', (route) => setTimeout(() => void route.continue(), 400));
  await bar.focus();
  await bar.press('ArrowRight');
  await bar.press('ArrowRight');
  await page.getByText(/not before/).waitFor();
  await page.getByRole('button', { name: 'Start as early as possible' }).click();
  await expect.poll(() => page.getByText(/not before/).count()).toBe(0);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await page.getByRole('button', { name: 'Not done after all' }).waitFor();
  const doneOf = async () => {
    const { reply } = await api<{ jobs: { steps: { notBefore: number; done: object | null }[] }[] }>(
      '/api/days/2026-12-01',
    );
    return reply.jobs.flatMap(({ steps }) => steps).map(({ notBefore, done }) => [notBefore, done !== null]);
  };
  await expect.poll(doneOf).toContainEqual([0, true]);
  expect((await doneOf()).every(([notBefore]) => notBefore === 0)).toBe(true);
  // Another person's plan is not overwritten.
  const { reply: day } = await api<{ version: number; jobs: object[] }>('/api/days/2026-12-01');
  const late = await api<{ error: { code: string } }>('/api/days/2026-12-01', 'PUT', {
    ...day,
    version: day.version - 1,
  });
  expect(late.reply.error.code).toBe('conflict');
  const file = join(folder, 'day.ics');
  writeFileSync(
    file,
    await fetch(`${ADDRESS}/api/days/2026-12-01/calendar.ics`).then((reply) => reply.text()),
  );
  const count = python(
    'import sys\nfrom icalendar import Calendar\nprint(len(Calendar.from_ical(open(sys.argv[1], "rb").read()).walk("VEVENT")))',
    file,
  );
  expect(Number(count)).toBeGreaterThanOrEqual(8);
  expect(ines.errors).toEqual([]);
});
