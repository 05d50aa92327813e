import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** A bench that counts in inches: what is typed is understood, and papers are its own. */
let nora: Visitor;
beforeAll(async () => {
  nora = await visit('Nora', 1);
});
afterAll(() => nora.leave());

async function countIn(system: 'inch' | 'metric'): Promise<void> {
  await nora.context.addCookies([{ name: 'feather_units', value: system, url: ADDRESS }]);
}

describe('a form in inches', () => {
  it('takes fractions, mils and millimetres, keeps what it cannot read, and says what it wants', async () => {
    const { page, errors } = nora;
    await countIn('inch');
    await go(page, '/jobs/4');
    await page.getByRole('tab', { name: /\d Sheet$/ }).click();
    const apart = page.getByLabel('Apart, in');
    const before = await apart.inputValue();
    await apart.fill('wide');
    await apart.press('Enter');
    await page.getByText('This wants a length, as 12, 3/8 in or 0.4 mm.').waitFor();
    expect(await apart.inputValue()).toBe('wide');
    const spacing = async () => (await api<JobReply>('/api/jobs/4')).reply.layout.spacingMm;
    for (const [typed, mm] of [
      ['3/8 in', 9.525],
      ['150 mil', 3.81],
      ['2,5 mm', 2.5],
      ['.2', 5.08],
    ] as const) {
      await apart.fill(typed);
      await apart.press('Enter');
      await expect.poll(spacing).toBeCloseTo(mm, 6);
    }
    await apart.fill(before);
    await apart.press('Enter');
    await expect.poll(spacing).toBeCloseTo(Number(before) * 25.4, 6);
    expect(errors.splice(0)).toEqual([]);
  });
});

describe('papers', () => {
  const LETTER = /\/MediaBox \[0 0 612 792\]/;
  const A4 = /\/MediaBox \[0 0 595.28 841.89\]/;

  it.each(['/api/jobs/4/run-sheet', '/api/labels?ids=1,2'])(
    '%s is on the paper of the bench',
    async (path) => {
      const read = async (address: string, cookie = '') =>
        (await fetch(ADDRESS + address, { headers: { cookie } })).text();
      const asked = path + (path.includes('?') ? '&' : '?');
      expect(await read(path)).toMatch(A4);
      expect(await read(path, 'feather_units=inch')).toMatch(LETTER);
      expect(await read(`${asked}units=inch`)).toMatch(LETTER);
      expect(await read(`${asked}units=metric`, 'feather_units=inch')).toMatch(A4);
    },
  );
});
