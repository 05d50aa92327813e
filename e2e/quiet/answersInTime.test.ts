import { describe, expect, it } from 'vitest';
import { BENCH_SIZE, go, visit } from '#e2e/support/app.ts';
import { VIEWS } from '#e2e/support/views.ts';

/** Measured while nothing else runs. */
describe('every main view', () => {
  it('is usable within a second, warm (best of three: other work may share the machine)', async () => {
    const visitor = await visit('Ines', 1, BENCH_SIZE);
    for (const [name, path] of VIEWS) {
      const times: number[] = [];
      // The best counts, so one that is good enough ends it.
      for (let round = 0; round < 3 && !times.some((time) => time < 1000); round++) {
        const start = performance.now();
        await go(visitor.page, path);
        times.push(performance.now() - start);
      }
      expect(Math.min(...times), name).toBeLessThan(1000);
    }
    await visitor.leave();
  });
});
