import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ownWorkshop } from '#e2e/support/ownWorkshop.ts';

/** A disk of its own that is filled up under a workshop: it says so, loses nothing, and goes on when there is room. */
const folder = mkdtempSync(join(tmpdir(), 'feather-full-'));
const disk = join(folder, 'disk');
const ballast = join(disk, 'ballast');
const { address, feather, signIn } = await ownWorkshop(disk, folder);

let headers = { cookie: '' };

function asRoot(...words: readonly string[]): void {
  const [command = '', ...given] = userInfo().uid === 0 ? words : ['sudo', '-n', ...words];
  const { status, stderr } = spawnSync(command, given, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${words.join(' ')}: ${stderr}`);
}

beforeAll(async () => {
  mkdirSync(disk);
  asRoot('mount', '-t', 'tmpfs', '-o', `size=800m,uid=${userInfo().uid},mode=700`, 'tmpfs', disk);
  await feather('start');
  headers = await signIn();
});
afterAll(async () => {
  await feather('stop').catch(() => '');
  asRoot('umount', disk);
  rmSync(folder, { recursive: true, force: true });
});

async function add(name: string): Promise<{ status: number; message: string }> {
  const material = { name, maker: 'm'.repeat(60), family: 'cardstock', colourHex: '#ffffff', darkness: 0 };
  const stack = [{ role: 'body', caliperUm: 300, isMeasured: false }];
  const response = await fetch(`${address}/api/materials`, {
    method: 'POST',
    headers: { ...headers, 'content-type': 'application/json' },
    body: JSON.stringify({ ...material, stack }),
  });
  const { error } = (await response.json()) as { error?: { message: string } };
  return { status: response.status, message: error?.message ?? '' };
}

async function countMaterials(): Promise<number> {
  return ((await (await fetch(`${address}/api/materials`, { headers })).json()) as unknown[]).length;
}

describe('a full disk', () => {
  it('is said to be full; what was told as kept is there, pages are read, and it goes on when there is room', async () => {
    fill();
    let kept = 0;
    let refused = { status: 0, message: '' };
    for (let tries = 0; tries < 500 && refused.status === 0; tries++) {
      const { status, message } = await add(`Sheet ${tries}`);
      if (status === 201) kept += 1;
      else refused = { status, message };
    }
    expect(refused.status).toBe(503);
    expect(refused.message).toMatch(/disk.* is full\. Nothing was changed/);
    expect((await fetch(address, { headers })).status).toBe(200);
    expect(await countMaterials()).toBe(kept);
    rmSync(ballast);
    await expect.poll(async () => (await add('With room again')).status, { timeout: 20_000 }).toBe(201);
    expect(await countMaterials()).toBe(kept + 1);
  });
});

/** Writes until nothing more goes in. */
function fill(): void {
  const block = Buffer.alloc(1024 * 1024);
  for (let megabytes = 0; megabytes < 2_000; megabytes++) {
    try {
      writeFileSync(ballast, block, { flag: 'a' });
    } catch {
      return;
    }
  }
  throw new Error('the disk did not fill up');
}
