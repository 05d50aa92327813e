import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BadAir } from '#e2e/support/badAir.ts';
import { findViolations } from '#e2e/support/axe.ts';
import { ADDRESS, api, PHONE_SIZE, settle, setUp, visit, type Visitor } from '#e2e/support/app.ts';

/** A phone at a machine, where the network comes and goes. */
let phone: Visitor;
let air: BadAir;
beforeAll(async () => {
  air = await BadAir.to(ADDRESS);
  phone = await visit('Ines', 1, PHONE_SIZE, 'allow');
  await setUp('/api/dial-ins', 'POST', { machineId: 1, operation: 'kiss' });
});
afterAll(async () => {
  await phone.leave();
  await air.cut().catch(() => undefined);
});

interface Cut {
  readonly id: number;
  readonly grade: number;
}

const open = async (path: string) => {
  await phone.page.goto(air.address + path, { waitUntil: 'load' });
  await settle(phone.page);
};
/** What the book has of the search, the newest last. */
const cuts = async () => (await api<{ cuts: readonly Cut[] }>('/api/stations/1/answers/kiss')).reply.cuts;
const bar = () => phone.page.getByRole('region', { name: 'Network' });

describe('a phone in bad air', () => {
  it('shows the Bench and the open search as they were, and says from when', async () => {
    const { page } = phone;
    await open('/');
    await page.evaluate(() => navigator.serviceWorker.ready);
    // The worker keeps what it sees: from the second time on.
    await open('/');
    await open('/test-cuts?operation=kiss');
    await expect.poll(() => page.evaluate(() => caches.has('pages-1'))).toBe(true);
    await air.cut();
    await open('/');
    await bar()
      .getByText(/No network\. What you see is from \d/)
      .waitFor();
    await open('/test-cuts?operation=kiss');
    await page.getByRole('heading', { level: 1, name: 'Test cuts' }).waitFor();
    expect(await findViolations(phone)).toEqual([]);
  });

  it('keeps a grade that is given there, sends it once when the network is back, and shows it', async () => {
    const { page } = phone;
    const before = (await cuts()).length;
    const shown = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
    const seen = await shown.count();
    await page.getByRole('button', { name: /^3 / }).click();
    await bar()
      .getByText(/One entry is kept on this device/)
      .waitFor();
    expect(await cuts()).toHaveLength(before);
    // It survives the page, and the browser’s being closed: it lies on the device.
    await open('/test-cuts?operation=kiss');
    await bar()
      .getByText(/One entry is kept on this device/)
      .waitFor();
    await air.clear();
    await expect.poll(async () => (await cuts()).length).toBe(before + 1);
    expect((await cuts()).at(-1)?.grade).toBe(3);
    await bar()
      .getByText(/kept on this device/)
      .waitFor({ state: 'detached' });
    await expect.poll(() => shown.count()).toBe(seen + 1);
    // Opened once more, it is not sent a second time.
    await open('/test-cuts?operation=kiss');
    expect(await cuts()).toHaveLength(before + 1);
  });

  it('shows what was refused meanwhile, holds back what belongs to it, and guesses nothing', async () => {
    const { page } = phone;
    await air.cut();
    await page.getByRole('button', { name: /^3 / }).click();
    await bar()
      .getByText(/One entry is kept/)
      .waitFor();
    // Meanwhile somebody ends the search.
    const [dialIn] = (await api<readonly { id: number }[]>('/api/dial-ins?machineId=1')).reply;
    await setUp(`/api/dial-ins/${dialIn?.id}/close`, 'POST', {});
    const before = (await cuts()).length;
    await air.clear();
    await bar()
      .getByText(/Not taken: a grade of/)
      .waitFor();
    expect(await cuts()).toHaveLength(before);
    await bar().getByRole('button', { name: 'Throw away' }).click();
    await bar()
      .getByText(/Not taken/)
      .waitFor({ state: 'detached' });
    expect(phone.errors).toEqual([]);
  });

  it('waits for a workshop that is slow, and shows no older page as if it were this one', async () => {
    const { page } = phone;
    await open('/');
    const asked = Date.now();
    air.slowDown('/', 6_000);
    await open('/');
    const madeAt = /madeAt[^}]*?(\d{4}-\d\d-\d\dT[\d:.]+Z)/.exec(await page.content())?.[1] ?? '';
    expect(Date.parse(madeAt)).toBeGreaterThan(asked);
    expect(await bar().count()).toBe(0);
  });

  it('is shown nothing any more once it is signed out', async () => {
    const { page } = phone;
    await page.evaluate(() => fetch('/api/sessions/current', { method: 'DELETE' }));
    await expect.poll(() => page.evaluate(() => caches.has('pages-1'))).toBe(false);
  });
});

it('can be put on the screen of a phone', async () => {
  const manifest = (await (await fetch(`${ADDRESS}/manifest.webmanifest`)).json()) as {
    icons: readonly { src: string }[];
  };
  for (const { src } of manifest.icons) {
    const icon = await fetch(ADDRESS + src);
    expect(icon.headers.get('content-type')).toBe('image/png');
  }
  const worker = await fetch(`${ADDRESS}/sw.js`);
  expect(worker.headers.get('content-security-policy')).toBe("default-src 'self'");
});
