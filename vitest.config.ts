import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'unit', include: ['core/**/*.test.ts', 'web/**/*.test.{ts,tsx}'] } },
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
          name: 'devices',
          include: ['devices/**/*.test.ts', 'commands/**/*.test.ts'],
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 90_000,
          hookTimeout: 120_000,
          globalSetup: ['e2e/support/startApp.ts'],
        },
      },
    ],
  },
});
