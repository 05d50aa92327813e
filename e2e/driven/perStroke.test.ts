import { afterAll, beforeAll, expect, it } from 'vitest';
import { serveCutter } from '#devices/cutter/serveCutter.ts';
import { addDrivenRun, drivenContext } from '#e2e/support/drivenRun.ts';
import { driveRun, isDriven } from '#server/runs/runLoop.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { machine, now, openTestStore } from '#store/tests/testStore.ts';

let db: Store;
let conditionId: number;
beforeAll(async () => {
  ({ db, conditionId } = await openTestStore());
});
afterAll(() => db.destroy());

it('writes a run of 2,000 strokes down with less than one statement a stroke', async () => {
  const cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 4, pace: 400 });
  const link = { kind: 'standIn', model: 'roll' } as const;
  const machineId = await addMachine(db, { ...machine, name: 'Linked', link }, now);
  const run = await addDrivenRun(db, { machineId, conditionId, now, key: 'per stroke' }, 1000, false);
  let statements = 0;
  db.on('query', () => (statements += 1));
  await driveRun(run.runId, drivenContext(db, cutter));
  await expect.poll(() => isDriven(run.runId), { timeout: 60_000 }).toBe(false);
  const counted = statements;
  const { outcomes, state } = await findRun(db, run.runId);
  await cutter.close();
  expect(state).toBe('looking');
  expect(outcomes).toHaveLength(2000);
  // Before runs were a state machine it was 1.003 statements a stroke; a stroke at a time it is one still.
  expect(counted / 2000).toBeLessThan(0.5);
});
