import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { afterAll, describe, expect, it } from 'vitest';
import { openBrowser } from '#commands/openBrowser.ts';
import { OWNER, ownWorkshop } from '#e2e/support/ownWorkshop.ts';

/** A stranger starts empty, works a morning, backs up, deletes everything, restores and goes on. */
const folder = mkdtempSync(join(tmpdir(), 'feather-workshop-'));
const home = join(folder, 'book');
const copy = join(folder, 'morning.feather');
const { address, feather, signIn } = await ownWorkshop(home, folder);

const pidOf = (name: string) => Number(readFileSync(join(home, 'run', `${name}.pid`), 'utf8'));
const settled = (page: Page) => page.waitForFunction(() => !document.querySelector('astro-island[ssr]'));

afterAll(async () => {
  await feather('stop').catch(() => '');
  rmSync(folder, { recursive: true, force: true });
});

describe('a workshop of its own', () => {
  it('starts empty and leads by the hand to the first answer', async () => {
    const said = await feather('start');
    expect(said).toContain(home);
    expect(statSync(home).mode & 0o077).toBe(0);
    const context = await openBrowser({ width: 1280, height: 800 });
    const page = await context.newPage();
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(error.message));
    await page.goto(address);
    await settled(page);
    await page.getByLabel('Name', { exact: true }).fill(OWNER.name);
    await page.getByLabel('Password', { exact: true }).fill(OWNER.password);
    await page.getByRole('button', { name: 'This is my workshop' }).click();
    await page.getByRole('link', { name: 'Add a machine' }).click();
    await settled(page);
    await page.getByLabel('What you call it').fill('Kitchen cutter');
    await page.getByRole('button', { name: 'Keep it and work at it' }).click();
    await page.waitForURL((url) => url.pathname === '/');
    await page.goto(`${address}/upkeep#new-blade`);
    await settled(page);
    await page.getByRole('form', { name: 'New blade' }).getByRole('button').click();
    await page
      .getByText(/No\. 1, 45° fine/)
      .first()
      .waitFor();
    await page.goto(address);
    await settled(page);
    await page.getByRole('button', { name: /^Blade/ }).click();
    await page.getByRole('menuitem', { name: /No\. 1/ }).click();
    // The page reads itself anew: only then another one is asked for.
    await page.getByRole('button', { name: /^Blade.*No\. 1, 45° fine/ }).waitFor();
    await page.waitForLoadState('load');
    await settled(page);
    await page.goto(`${address}/materials/new`);
    await settled(page);
    await page.getByLabel('Name on the pack').fill('Corner shop vinyl');
    await page.getByLabel('Maker').fill('Nobody');
    await page.getByRole('button', { name: 'Keep it and load it here' }).click();
    await page.waitForURL((url) => url.pathname === '/');
    await page.getByRole('heading', { name: 'Corner shop vinyl' }).waitFor();
    await page.getByText('Never cut here.').waitFor();
    expect(errors).toEqual([]);
    await context.close();
  });

  it('is restarted when a process dies, with nothing lost', async () => {
    const headers = await signIn();
    for (const name of ['web', 'database']) {
      process.kill(pidOf(name), 'SIGKILL');
      await expect
        .poll(
          () =>
            fetch(`${address}/api/materials`, { headers }).then(
              (reply) => reply.status,
              () => 0,
            ),
          { timeout: 30_000, interval: 300 },
        )
        .toBe(200);
    }
    const materials = (await (await fetch(`${address}/api/materials`, { headers })).json()) as {
      name: string;
    }[];
    expect(materials.map(({ name }) => name)).toContain('Corner shop vinyl');
  });

  it('is copied while in use, deleted, brought back, and goes on', async () => {
    const before = await (await fetch(`${address}/api/materials`, { headers: await signIn() })).json();
    expect(await feather('backup', copy)).toMatch(/read back and is the same/);
    await feather('stop');
    rmSync(home, { recursive: true });
    expect(await feather('restore', copy)).toMatch(/are back/);
    await feather('start');
    // The owner came back with the book; where they were signed in did not.
    const headers = await signIn();
    expect(await (await fetch(`${address}/api/materials`, { headers })).json()).toEqual(before);
    const people = (await (await fetch(`${address}/api/workshop`, { headers })).json()) as {
      people: { name: string }[];
    };
    expect(people.people.map(({ name }) => name)).toEqual(['Runa']);
    const added = await fetch(`${address}/api/operators`, {
      method: 'POST',
      headers: { ...headers, 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Odd' }),
    });
    expect(added.status).toBe(201);
    const said = await feather('owner-password');
    const password = /signs in with: (\S+)/.exec(said)?.[1];
    const again = await fetch(`${address}/api/sessions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: OWNER.name, password }),
    });
    expect(again.status).toBe(201);
    // Whoever was signed in with the lost password is no more.
    expect((await fetch(`${address}/api/materials`, { headers })).status).toBe(401);
    expect(existsSync(join(home, 'copies'))).toBe(true);
    await expect
      .poll(() => readdirSync(join(home, 'copies')).some((name) => name.startsWith('daily-')), {
        timeout: 30_000,
      })
      .toBe(true);
  });
});
