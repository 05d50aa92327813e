import { expect, it } from 'vitest';
import { SharedReads } from '#server/events/sharedReads.ts';

/** A store whose answers come when they are let through. */
function slowStore() {
  const waiting: (() => void)[] = [];
  let value = 0;
  let asked = 0;
  const look = () => {
    asked += 1;
    const seen = value;
    return new Promise<number>((resolve) => waiting.push(() => resolve(seen)));
  };
  const answer = async () => {
    waiting.shift()?.();
    await new Promise((resolve) => setTimeout(resolve, 0));
  };
  return { look, answer, set: (to: number) => (value = to), asked: () => asked };
}

it('is asked twice for fifty who want the same: once for the first, once for all who came meanwhile', async () => {
  const store = slowStore();
  const reads = new SharedReads(store.look);
  const first = reads.read('jobs/4');
  store.set(1);
  const others = Array.from({ length: 49 }, () => reads.read('jobs/4'));
  expect(store.asked()).toBe(1);
  await store.answer();
  expect(await first).toBe(0);
  await store.answer();
  // What was kept before they asked is seen by all of them.
  expect(new Set(await Promise.all(others))).toEqual(new Set([1]));
  expect(store.asked()).toBe(2);
});

it('keeps keys apart, and goes on after a refusal', async () => {
  let isAway = true;
  const reads = new SharedReads((key) =>
    isAway ? Promise.reject(new Error('away')) : Promise.resolve(`of ${key}`),
  );
  const first = reads.read('a');
  const second = reads.read('a');
  await expect(first).rejects.toThrow('away');
  await expect(second).rejects.toThrow('away');
  isAway = false;
  expect(await Promise.all([reads.read('a'), reads.read('b')])).toEqual(['of a', 'of b']);
});
