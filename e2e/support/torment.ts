import { spawn, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { ROOT } from '#commands/homeFolder.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { timesCut } from '#e2e/support/timesCut.ts';
import { addDrivenRun, drivenContext, type DrivenRun } from '#e2e/support/drivenRun.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { migrationSource } from '#store/migrations/listMigrations.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { addMaterial, listMaterials } from '#store/repositories/book/materials.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { furnish, machine, material, now } from '#store/tests/testStore.ts';
import { unloadRun } from '#server/runs/runOrders.ts';

const SEED = 20;
const CIRCLES = 40;

/**
 * Only for tests. The server or the database is killed without warning at random moments of runs, or both in the same
 * moment, as when the plug of the computer is pulled. Afterwards everything that was acknowledged is still known, and
 * every stroke of every run lies on its sheet once.
 *
 * @param isPlug all processes at once
 */
export function tormentRuns(most: number, isPlug = false): void {
  const home = mkdtempSync(join(tmpdir(), 'feather-stress-'));
  for (const folder of ['logs', 'run']) mkdirSync(join(home, folder));
  const random = seededRandom(SEED);
  let url: string;
  let db: Store;
  let cutter: CutterService;
  let server: ChildProcess;
  let facts: { readonly machineId: number; readonly conditionId: number };

  beforeAll(async () => {
    url = await startDatabase(home);
    db = connectStore(url);
    await db.migrate.latest({ migrationSource });
    const { conditionId } = await furnish(db);
    const linked = { ...machine, name: 'Linked', link: { kind: 'standIn', model: 'roll' } as const };
    facts = { conditionId, machineId: await addMachine(db, linked, now) };
    cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 1.6 });
    server = startServer();
  }, 120_000);

  afterAll(async () => {
    server.kill('SIGKILL');
    await cutter.close();
    await db.destroy();
    await stopDatabase(home);
    rmSync(home, { recursive: true, force: true });
  });

  function startServer(): ChildProcess {
    return spawn(process.execPath, ['--import', 'tsx', join(ROOT, 'e2e/support/driveProcess.ts')], {
      cwd: ROOT,
      stdio: 'ignore',
      env: {
        ...process.env,
        FEATHER_DATABASE_URL: url,
        FEATHER_DATA_PORT: String(cutter.dataPort),
        FEATHER_PANEL_PORT: String(cutter.panelPort),
      },
    });
  }

  async function killServer(): Promise<void> {
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGKILL');
    await gone;
    server = startServer();
  }

  async function killDatabase(): Promise<void> {
    process.kill(Number(readFileSync(join(home, 'run', 'mariadbd.pid'), 'utf8')), 'SIGKILL');
    await pause(300 * random());
    await startDatabase(home);
  }

  let written = 0;
  /** What somebody writes while the plug is pulled: all of it that was acknowledged is there afterwards. */
  async function pullPlug(): Promise<void> {
    const names = [...Array(6)].map(() => `Gale ${(written += 1)}`);
    const writing = Promise.allSettled(names.map((name) => addMaterial(db, { ...material, name }, now)));
    // From before the first of them is kept to after the last.
    await pause(250 * random());
    const gone = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGKILL');
    process.kill(Number(readFileSync(join(home, 'run', 'mariadbd.pid'), 'utf8')), 'SIGKILL');
    await gone;
    const outcomes = await writing;
    const acknowledged = names.filter((_, place) => outcomes[place]?.status === 'fulfilled');
    promises.push(...acknowledged);
    await pause(300 * random());
    await startDatabase(home);
    server = startServer();
    const there = new Set((await patiently(() => listMaterials(db))).map(({ name }) => name));
    expect(promises.filter((name) => !there.has(name))).toEqual([]);
  }
  /** Everything that was acknowledged so far. */
  const promises: string[] = [];

  const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

  const read = (runId: number) => patiently(() => findRun(db, runId));

  /** Reads while the store may be away for a moment. */
  async function patiently<Result>(look: () => Promise<Result>): Promise<Result> {
    for (let tries = 0; ; tries++) {
      try {
        return await look();
      } catch (error) {
        if (tries > 100) throw error;
        await pause(100);
      }
    }
  }

  /** Kills until a run is cut. Returns how many kills it saw. */
  async function torment(run: DrivenRun, left: number): Promise<number> {
    let kills = 0;
    let acknowledged = new Set<number>();
    for (;;) {
      await pause(60 + 900 * random());
      const seen = await read(run.runId);
      const known = new Set(seen.outcomes.map(({ index }) => index));
      expect([...acknowledged].filter((index) => !known.has(index))).toEqual([]);
      acknowledged = known;
      if (seen.state === 'looking') return kills;
      expect(['sending', 'cutting']).toContain(seen.state);
      // A server that is still starting has nothing to lose.
      if (kills >= left || !cutter.state.isBusy) continue;
      kills += 1;
      if (isPlug) await pullPlug();
      else await (random() < 0.3 ? killDatabase() : killServer());
    }
  }

  const what = isPlug ? 'power cuts' : 'kills';
  it(`keeps what was acknowledged and cuts nothing twice through ${most} ${what}`, async () => {
    let kills = 0;
    for (let round = 0; kills < most; round++) {
      const run = await addDrivenRun(db, { ...facts, now, key: `stress-${round}` }, CIRCLES, false);
      kills += await torment(run, most - kills);
      const { outcomes } = await read(run.runId);
      expect(outcomes.map(({ index }) => index)).toEqual(run.strokes.map((_, index) => index));
      expect(timesCut(cutter, run.strokes)).toEqual(run.strokes.map(() => 1));
      await unloadRun(run.runId, drivenContext(db, cutter));
    }
    expect(kills).toBe(most);
    // Some of what was being written got through: else nothing was shown.
    if (isPlug) expect(promises.length).toBeGreaterThan(most);
  }, 1_200_000);
}
