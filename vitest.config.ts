import { defineConfig } from 'vitest/config';

/** Store, outside and browser tests need what `./feather test` starts; unit and device tests stand alone. */
export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: [
            'core/**/*.test.ts',
            'web/**/*.test.{ts,tsx}',
            'server/**/*.test.ts',
            'commands/**/*.test.ts',
            'benchmarks/**/*.test.ts',
          ],
          testTimeout: 20_000,
        },
      },
      { test: { name: 'devices', include: ['devices/**/*.test.ts'], testTimeout: 30_000 } },
      { test: { name: 'outside', include: ['e2e/outside/**/*.test.ts'], testTimeout: 30_000 } },
      {
        test: {
          name: 'store',
          include: ['store/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 20_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'driven',
          include: ['e2e/driven/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 20_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'deep',
          include: ['e2e/deep/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 900_000,
          hookTimeout: 120_000,
        },
      },
      {
        test: {
          // What is measured is measured while nothing else runs.
          name: 'quiet',
          include: ['e2e/quiet/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 60_000,
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/journeys/**/*.test.ts'],
          setupFiles: ['e2e/support/leaveAsFound.ts'],
          // A page that is asked again until it shows something may take as long as a click may.
          expect: { poll: { timeout: 10_000 } },
          // One file at a time on each demo that there is.
          fileParallelism: (process.env['FEATHER_TEST_ADDRESS'] ?? '').includes(' '),
          testTimeout: 120_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
