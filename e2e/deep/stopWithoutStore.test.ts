import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { addDrivenRun, drivenContext } from '#e2e/support/drivenRun.ts';
import { continueRun, stopRun } from '#server/runs/runOrders.ts';
import { driveRun, isDriven } from '#server/runs/runLoop.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { migrationSource } from '#store/migrations/listMigrations.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { furnish, machine, now } from '#store/tests/testStore.ts';

/** The database is gone while a machine cuts: a stop is obeyed at once, and written down when it is back. */
const home = mkdtempSync(join(tmpdir(), 'feather-away-'));
for (const folder of ['logs', 'run']) mkdirSync(join(home, folder));
let db: Store;
let cutter: CutterService;
let facts: { readonly machineId: number; readonly conditionId: number };

beforeAll(async () => {
  db = connectStore(await startDatabase(home));
  await db.migrate.latest({ migrationSource });
  const { conditionId } = await furnish(db);
  const linked = { ...machine, name: 'Linked', link: { kind: 'standIn', model: 'roll' } as const };
  facts = { conditionId, machineId: await addMachine(db, linked, now) };
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 2 });
}, 120_000);
afterAll(async () => {
  await cutter.close();
  await db.destroy();
  await stopDatabase(home);
  rmSync(home, { recursive: true, force: true });
});
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

it('stops at once, says that it is not written yet, and writes it when the database is back', async () => {
  const context = drivenContext(db, cutter);
  const { runId, strokes } = await addDrivenRun(db, { ...facts, now, key: 'store away' }, 40, false);
  await driveRun(runId, context);
  await expect.poll(() => cutter.state.cutter.strokesCut, { timeout: 30_000 }).toBeGreaterThan(2);
  process.kill(Number(readFileSync(join(home, 'run', 'mariadbd.pid'), 'utf8')), 'SIGKILL');
  await pause(300);
  const before = cutter.state.cutter.strokesCut;
  const answered = stopRun(runId, context).catch((error: unknown) => error);
  await pause(200);
  expect(cutter.state.isBusy).toBe(false);
  expect(cutter.state.cutter.strokesCut - before).toBeLessThanOrEqual(1);
  expect(await answered).toMatchObject({ code: 'storeUnavailable', message: /Nothing more is sent/ });
  // Other orders are not taken to be done later, unseen.
  await expect(continueRun(runId, 'again', context)).rejects.toBeTruthy();
  await startDatabase(home);
  await expect.poll(() => isDriven(runId), { timeout: 30_000 }).toBe(false);
  const { state, outcomes } = await findRun(db, runId);
  expect(state).toBe('stopped');
  expect(outcomes).toHaveLength(cutter.state.cutter.sheetStrokes.length);
  expect(outcomes.length).toBeLessThan(strokes.length);
}, 120_000);
