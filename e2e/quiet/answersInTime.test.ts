import { describe, expect, it } from 'vitest';
import { TimeGiven } from '#store/tests/timeGiven.ts';
import { BENCH_SIZE, go, visit } from '#e2e/support/app.ts';
import { VIEWS } from '#e2e/support/views.ts';

/** So often a view is tried: a machine that is shared has seconds in which it is half as fast as in others. */
const MOST_TRIES = 8;

/** Measured while nothing else runs. */
describe('every main view', () => {
  it('is usable within a second, warm (best of eight: other work may share the machine)', async () => {
    const visitor = await visit('Ines', 1, BENCH_SIZE);
    for (const [name, path] of VIEWS) {
      const times: number[] = [];
      // The best counts, so one that is good enough ends it.
      for (let round = 0; round < MOST_TRIES && !times.some((time) => time < 1000); round++) {
        const time = new TimeGiven();
        await go(visitor.page, path);
        times.push(time.ms());
      }
      expect(Math.min(...times), name).toBeLessThan(1000);
    }
    await visitor.leave();
  });
});
