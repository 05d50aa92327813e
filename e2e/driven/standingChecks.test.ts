import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { askPath } from '#e2e/support/askEndpoint.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addFaultCase, answerCase, listStandingCases } from '#store/repositories/log/faultCases.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';

/** What helped at a machine for good is kept up there until somebody puts it away (common practice, no source: T38). */
let db: Store;
let machineId: number;
let conditionId: number;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => ({ db, machineId, conditionId } = await openTestStore()));
afterAll(() => db.destroy());

async function tried(action: 'shadeMarks' | 'moreForce', hasHelped: boolean): Promise<number> {
  const found = {
    machineId,
    conditionId,
    operation: 'kiss' as const,
    symptoms: ['marksNotRead' as const],
    cause: 'glare' as const,
    action,
    changeWords: '',
    author: 'Ines',
  };
  const id = await addFaultCase(db, found, now);
  await answerCase(db, id, hasHelped, now);
  return id;
}
const standing = async () => (await listStandingCases(db, machineId)).map(({ id, action }) => [id, action]);

it('is what helped and stays, once for each action; a number that was changed is in its setting', async () => {
  await tried('shadeMarks', false);
  await tried('moreForce', true);
  expect(await standing()).toEqual([]);
  await tried('shadeMarks', true);
  const last = await tried('shadeMarks', true);
  expect(await standing()).toEqual([[last, 'shadeMarks']]);
});

it('is put away by hand, and stands again when it helps again', async () => {
  const [[id] = []] = await standing();
  const { status, reply } = await askPath('DELETE', `/api/faults/${id}/standing`, {});
  expect([status, reply]).toEqual([200, { isPutAway: true }]);
  expect(await standing()).toEqual([]);
  const again = await tried('shadeMarks', true);
  expect(await standing()).toEqual([[again, 'shadeMarks']]);
  expect((await askPath('DELETE', '/api/faults/987654/standing', {})).status).toBe(404);
});
