import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { askEndpoint } from '#e2e/support/askEndpoint.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addKnowledge, findNewestKnowledge } from '#store/repositories/dialIn/knowledge.ts';
import { askRefit, claimRefit, releaseRefit } from '#store/repositories/several/refits.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';
import { postRefit } from '#web/endpoints/dialIn/knowledge.ts';

let db: Store;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

it('the book is fitted once for two servers that want it in the same moment', async () => {
  await askRefit(db);
  expect(await claimRefit(db, 'another server')).not.toBeNull();
  const here = askEndpoint(postRefit);
  // It is asked for in the store, and not begun here.
  await expect.poll(async () => Number((await db('refits').first('asked')).asked)).toBe(2);
  await pause(600);
  expect(await findNewestKnowledge(db)).toBeNull();
  const fitted = fitKnowledge([]);
  await addKnowledge(db, { fitted, lastCutId: 0, milliseconds: 5 }, now);
  await releaseRefit(db, 'another server', 2);
  expect((await here).status).toBe(200);
  expect((await db('knowledge')).length).toBe(1);
});

it('what is wanted after the other one began is fitted here, when that one is done', async () => {
  const before = (await findNewestKnowledge(db))?.id ?? 0;
  await askRefit(db);
  const claim = await claimRefit(db, 'another server');
  const here = askEndpoint(postRefit);
  await expect
    .poll(async () => Number((await db('refits').first('asked')).asked))
    .toBe((claim?.asked ?? 0) + 1);
  await releaseRefit(db, 'another server', claim?.asked);
  expect((await here).status).toBe(200);
  expect((await findNewestKnowledge(db))?.id).toBeGreaterThan(before);
});
