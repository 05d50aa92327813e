import { mkdtempSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { startWebAnywhere, stopProcesses } from '#commands/startApp.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { NO_MACHINES } from '#e2e/support/bareWorkshop.ts';
import { withStore } from '#store/connection/withStore.ts';

/** An application of its own, whose server and database are killed without warning. */
let home: string;

beforeAll(() => {
  home = mkdtempSync(join(tmpdir(), 'feather-kill-'));
  for (const folder of ['run', 'logs']) mkdirSync(join(home, folder));
});
afterAll(async () => {
  await stopProcesses(home);
  await stopDatabase(home);
  rmSync(home, { recursive: true, force: true });
});

async function start(): Promise<string> {
  const url = await startDatabase(home);
  await withStore(url, migrateUp);
  return startWebAnywhere(home, url, NO_MACHINES);
}

function killNow(name: string): void {
  process.kill(Number(readFileSync(join(home, 'run', `${name}.pid`), 'utf8')), 'SIGKILL');
}

describe('a killed server and a killed database', () => {
  it('lose nothing that was acknowledged', { timeout: 90_000 }, async () => {
    let address = await start();
    const material = (place: number) => ({
      name: `Sheet ${place}`,
      maker: 'Storm',
      family: 'plainVinyl',
      colourHex: '#ffffff',
      darkness: 0,
      stack: [{ role: 'face', caliperUm: 80, isMeasured: true }],
    });
    const acknowledged: number[] = [];
    for (let place = 0; place < 12; place++) {
      const response = await fetch(`${address}/api/materials`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(material(place)),
      });
      if (response.status === 201) acknowledged.push(place);
    }
    killNow('web');
    killNow('database');
    address = await start();
    const kept = (await (await fetch(`${address}/api/materials`)).json()) as { name: string }[];
    expect(acknowledged).toHaveLength(12);
    expect(kept.map(({ name }) => name).sort()).toEqual(acknowledged.map((place) => `Sheet ${place}`).sort());
    const { hits } = (await (await fetch(`${address}/api/lookup?text=shet%207`)).json()) as {
      hits: { name: string }[];
    };
    expect(hits[0]?.name).toBe('Sheet 7');
  });
});
