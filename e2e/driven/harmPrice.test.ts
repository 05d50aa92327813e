import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { askPath } from '#e2e/support/askEndpoint.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { addTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { cut, now, openTestStore } from '#store/tests/testStore.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import type { WorkshopReply } from '#web/schemas/workshop.ts';

/** A workshop says what a spoiled liner or mat costs it, and its test cuts are as bold as that. */
let db: Store;
let machineId: number;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  let conditionId: number;
  ({ db, machineId, conditionId } = await openTestStore());
  await changeStation(db, machineId, { conditionId }, 'Ines', now);
  // One cut far too light: the next one leaps, and how far is a question of its price.
  await addTestCut(db, { ...cut, force: 30, forceGf: 30, grade: 1, conditionId, machineId }, now);
});
afterAll(() => db.destroy());

const price = (harmCuts: number) => askPath('PUT', '/api/workshop', { body: { harmCuts } });
async function advised() {
  const { reply } = await askPath('GET', `/api/stations/${machineId}/answers/through`, {});
  return (reply as BenchAnswer).answer!.advice.next;
}

it('is as much as four test cuts where nobody said, and what was said afterwards', async () => {
  const { reply } = await askPath('GET', '/api/workshop', {});
  expect((reply as WorkshopReply).harmCuts).toBe(4);
  expect(((await price(12)).reply as WorkshopReply).harmCuts).toBe(12);
  expect(((await askPath('GET', '/api/workshop', {})).reply as WorkshopReply).harmCuts).toBe(12);
});

it('is what the next cut is judged by: the dearer, the less it is worth and the less it spoils', async () => {
  await price(0);
  const free = await advised();
  await price(50);
  const dear = await advised();
  expect(free.harm).toBeGreaterThan(0.05);
  expect(dear.harm).toBeLessThanOrEqual(free.harm);
  expect(dear.gain).toBeLessThan(free.gain - 0.02);
});

it('is refused in words beyond 50', async () => {
  const { status, reply } = await price(51);
  expect(status).toBe(400);
  expect(JSON.stringify(reply)).toMatch(/at most 50 test cuts/);
});
