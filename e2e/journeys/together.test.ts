import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, go, setUp, visit, type Visitor } from '#e2e/support/app.ts';

/** Several people at one thing: each sees who else is there and what they change. How soon: `e2e/quiet/toldSoon.test.ts`. */
let ines: Visitor;
let bo: Visitor;
beforeAll(async () => {
  [ines, bo] = await Promise.all([visit('Ines'), visit('Bo')]);
});
afterAll(() => Promise.all([ines.leave(), bo.leave()]));

/** Until both pages are there at all. */
const THERE_MS = 30_000;

async function bothGo(path: string): Promise<void> {
  await Promise.all([go(ines.page, path), go(bo.page, path)]);
  await Promise.all([
    ines.page.getByText('Bo is here too').waitFor({ timeout: THERE_MS }),
    bo.page.getByText('Ines is here too').waitFor({ timeout: THERE_MS }),
  ]);
}

describe('two people at one job', () => {
  it('see each other, and each change, also one that a script makes', async () => {
    await bothGo('/jobs/4');
    const { version, name } = (await api<{ version: number; name: string }>('/api/jobs/4')).reply;
    await setUp('/api/jobs/4', 'PATCH', { version, name: `${name} again` });
    await Promise.all(
      [ines, bo].map(({ page }) =>
        page.getByRole('heading', { level: 1, name: `${name} again` }).waitFor({ timeout: THERE_MS }),
      ),
    );
    const now = (await api<{ version: number }>('/api/jobs/4')).reply.version;
    await setUp('/api/jobs/4', 'PATCH', { version: now, name });
  });

  it('are told when one leaves', async () => {
    await go(bo.page, '/words');
    await ines.page.getByText('Bo is here too').waitFor({ state: 'detached' });
  });
});

describe('two people at one search', () => {
  it('each see the grade of the other, who gave it, and the next force that comes of it', async () => {
    await setUp('/api/dial-ins', 'POST', { machineId: 1, operation: 'kiss' });
    await bothGo('/test-cuts');
    const before = await bo.page.locator('main').innerText();
    await ines.page.keyboard.press('3');
    await ines.page.waitForResponse((reply) => reply.url().endsWith('/grades'));
    await bo.page.getByText('Ines changed it last').waitFor({ timeout: THERE_MS });
    await expect.poll(() => bo.page.locator('main').innerText()).not.toBe(before);
    expect([...ines.errors, ...bo.errors]).toEqual([]);
  });
});

describe('the stream of a topic', () => {
  it.each(['jobs', 'jobs/0', 'jobs/1/edge', 'people/1', ''])('is refused for "%s"', async (topic) => {
    expect((await fetch(`${ADDRESS}/api/events?topic=${topic}`)).status).toBe(400);
  });
});
