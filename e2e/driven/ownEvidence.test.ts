import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { askPath } from '#e2e/support/askEndpoint.ts';
import { believedThreshold } from '#e2e/support/believedThreshold.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { addTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { cut, now, openTestStore } from '#store/tests/testStore.ts';

/** A fit of the book has seen a sheet's own cuts: they must not be counted a second time with the sheet. */
let db: Store;
let machineId: number;
let conditionId: number;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  ({ db, machineId, conditionId } = await openTestStore());
  await changeStation(db, machineId, { conditionId }, 'Ines', now);
});
afterAll(() => db.destroy());

it('is believed the same before its own cuts, whether the book was fitted with them or not', async () => {
  const before = await believedThreshold(db, machineId);
  // The face hangs at a third more than expected: a clear lesson, were it learnt from itself.
  for (const force of [74, 78, 82]) {
    await addTestCut(db, { ...cut, force, forceGf: force, grade: 2, conditionId, machineId }, now);
  }
  expect((await askPath('POST', '/api/knowledge/refits', {})).status).toBe(200);

  expect(await believedThreshold(db, machineId)).toBeCloseTo(before, 2);
});
