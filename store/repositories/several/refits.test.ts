import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { askRefit, claimRefit, releaseRefit, renewRefit } from '#store/repositories/several/refits.ts';
import { openTestStore } from '#store/tests/testStore.ts';

let db: Store;
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

it('is taken up by one of all who ask, who does it for all of them', async () => {
  const numbers = await Promise.all(['a', 'b', 'c'].map(() => askRefit(db)));
  expect(Math.max(...numbers)).toBe(3);
  const claims = await Promise.all(['a', 'b', 'c'].map((holder) => claimRefit(db, holder)));
  expect(claims.filter(Boolean)).toEqual([{ asked: 3, done: 0, holder: expect.any(String) as string }]);
  const winner = ['a', 'b', 'c'][claims.findIndex(Boolean)] ?? '';
  // What is asked meanwhile is not done with it.
  expect(await askRefit(db)).toBe(4);
  await releaseRefit(db, winner, 3);
  expect(await claimRefit(db, 'later')).toMatchObject({ asked: 4, done: 3 });
  await releaseRefit(db, 'later');
});

it('is taken up by another when who was at it died', async () => {
  await askRefit(db);
  expect(await claimRefit(db, 'dead')).not.toBeNull();
  expect(await claimRefit(db, 'alive')).toBeNull();
  await db('refits').update({ until: db.raw('NOW(3) - INTERVAL 1 SECOND') });
  expect(await claimRefit(db, 'alive')).not.toBeNull();
  // Woken again, the first one neither holds nor ends what is another's.
  await renewRefit(db, 'dead');
  await releaseRefit(db, 'dead', 99);
  expect(await claimRefit(db, 'third')).toBeNull();
  await releaseRefit(db, 'alive');
  expect((await claimRefit(db, 'third'))?.done).toBe(3);
  await releaseRefit(db, 'third');
});
