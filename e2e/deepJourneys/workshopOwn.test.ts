import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { DayReply } from '#web/schemas/day.ts';
import type { WorkshopReply } from '#web/schemas/workshop.ts';

/** What is the workshop's own: who works in it, and which clock counts. */
let ines: Visitor;
let zoneBefore: string;
beforeAll(async () => {
  ines = await visit('Ines');
  zoneBefore = (await api<WorkshopReply>('/api/workshop')).reply.timeZone;
});
afterEach(() => expect(ines.errors).toEqual([]));
afterAll(async () => {
  await api('/api/workshop', 'PUT', { timeZone: zoneBefore });
  await ines.leave();
});

describe('the people', () => {
  it('are added and put away by hand, and sign at the rail', async () => {
    const { page } = ines;
    await go(page, '/workshop');
    await page.getByLabel('Name', { exact: true }).fill('Maren');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByRole('button', { name: 'I am Maren' }).click();
    await page.waitForLoadState('load');
    await page.getByRole('complementary', { name: 'Station' }).getByText('Maren').waitFor();
    await page.getByRole('button', { name: 'I am Ines' }).click();
    await page.waitForLoadState('load');
    await page.getByRole('button', { name: 'Put Maren away' }).click();
    await page.getByText(/Put away: Maren/).waitFor();
    const { reply } = await api<WorkshopReply>('/api/workshop');
    expect(reply.people.find(({ name }) => name === 'Maren')?.isPutAway).toBe(true);
  });

  it('are there once each', async () => {
    const again = await api<{ error: { message: string } }>('/api/operators', 'POST', { name: 'Ines' });
    expect([again.status, again.reply.error.message]).toEqual([409, 'Ines works here already']);
  });
});

describe('the clock', () => {
  const step = {
    id: 's',
    words: 'cut',
    place: 'Gannet 600',
    minutes: 60,
    setUp: '',
    notBefore: 0,
    done: null,
  };
  const job = { id: 'j', words: 'Labels', steps: [step] };

  it.each([
    ['2027-03-28', '20270328T060000Z'],
    ['2027-10-31', '20271031T070000Z'],
  ])('of Berlin shows eight on the Sunday %s when its calendar says so', async (day, moment) => {
    const { page } = ines;
    await go(page, '/workshop');
    await page.getByLabel(/Time zone/).selectOption('Europe/Berlin');
    await expect
      .poll(async () => (await api<WorkshopReply>('/api/workshop')).reply.timeZone)
      .toBe('Europe/Berlin');
    const { reply: now } = await api<DayReply>(`/api/days/${day}`);
    await api(`/api/days/${day}`, 'PUT', { version: now.version, beginsAt: 480, jobs: [job], sequence: [0] });
    const calendar = await (await fetch(`${ADDRESS}/api/days/${day}/calendar.ics`)).text();
    expect(calendar).toContain(`DTSTART:${moment}`);
  });

  it('tells times of the log in its zone', async () => {
    const { page } = ines;
    await api('/api/workshop', 'PUT', { timeZone: 'Pacific/Kiritimati' });
    await go(page, '/log');
    expect(await page.evaluate(() => document.documentElement.dataset['timeZone'])).toBe(
      'Pacific/Kiritimati',
    );
    const { reply } = await api<{ error: { message: string } }>('/api/workshop', 'PUT', {
      timeZone: 'Mars/Base',
    });
    expect(reply.error.message).toMatch(/no time zone/);
  });
});
