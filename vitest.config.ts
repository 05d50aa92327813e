import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** The files that take longest: begun first, so that none of them runs on alone at the end. */
const LONG_FILES = [
  'driven/kills',
  'referee/referee',
  'journeys/views',
  'journeys/dialIn',

  'driven/links',
  'backup/backup',
];

class LongFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const isLong = ({ moduleId }: TestSpecification) =>
      LONG_FILES.some((name) => moduleId.endsWith(`/${name}.test.ts`));
    const sorted = await super.sort(files);
    return [...sorted.filter(isLong), ...sorted.filter((file) => !isLong(file))];
  }
}

/** Seeded tests of core that are repeated oftener in a deep run. */
const OFTEN = [
  'threshold/sheetModel/sheetModel',
  'sheet/nest/packBoxes',
  'sheet/nest/nestPieces',
  'artwork/trace/trace',
  'practice/practice',
  'passes/orderTravel',
].map((name) => `core/${name}.test.ts`);

/** That package says it holds modules and names a file that is none. */
const ALIASES = { 'maxrects-packer': 'maxrects-packer/dist/maxrects-packer.mjs' };

/** Files that put one module in another's place. */
const MOCKED = ['web/tests/onePlace.test.ts', 'web/http/endpoints.test.ts'];

/** One file at a time on each database, or each demo, that there is. */
const hasSeveral = (variable: string) => (process.env[variable] ?? '').includes(' ');

/**
 * How long a test waits for what does not come, wherever no bound is meant: long enough for a machine whose host gives
 * it a fifth of its time. What has to be quick is measured and compared.
 */
const PATIENCE = { testTimeout: 240_000, hookTimeout: 120_000, expect: { poll: { timeout: 30_000 } } };

/** Store, outside and browser tests need what `./feather test` starts; core, unit and device tests stand alone. */
export default defineConfig({
  test: {
    sequence: { sequencer: LongFirst },
    experimental: { fsModuleCache: true },
    projects: [
      {
        resolve: { alias: ALIASES },
        test: {
          // Core keeps nothing between calls: its files share their modules.
          name: 'core',
          include: ['core/**/*.test.ts'],
          pool: 'threads',
          isolate: false,
          ...PATIENCE,
        },
      },
      {
        test: {
          // So do these, which saves a third of their time; those that put one module in another's place do not.
          name: 'unit',
          isolate: false,
          exclude: MOCKED,
          include: [
            'benchmarks/**/*.test.ts',
            'web/**/*.test.{ts,tsx}',
            'server/**/*.test.ts',
            'commands/**/*.test.ts',
          ],
          ...PATIENCE,
        },
      },
      { test: { name: 'mocked', include: MOCKED, ...PATIENCE } },
      { test: { name: 'devices', include: ['devices/**/*.test.ts'], ...PATIENCE } },
      { test: { name: 'outside', include: ['e2e/outside/**/*.test.ts'], ...PATIENCE } },
      {
        test: {
          // Each file has a database that was emptied, and repositories keep nothing in between.
          name: 'store',
          isolate: false,
          include: ['store/**/*.test.ts'],
          fileParallelism: hasSeveral('FEATHER_TEST_STORE_URL'),
          ...PATIENCE,
        },
      },
      {
        test: {
          name: 'driven',
          include: ['e2e/driven/**/*.test.ts'],
          fileParallelism: hasSeveral('FEATHER_TEST_STORE_URL'),
          ...PATIENCE,
        },
      },
      {
        resolve: { alias: ALIASES },
        test: {
          name: 'deep',
          include: ['e2e/deep/**/*.test.ts', ...OFTEN],
          provide: { isDeep: true },
          fileParallelism: false,
          testTimeout: 900_000,
          hookTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'deep journeys',
          include: ['e2e/deepJourneys/**/*.test.ts'],
          globalSetup: 'e2e/support/sharedBrowser.ts',
          setupFiles: ['e2e/support/leaveAsFound.ts'],
          fileParallelism: false,
          ...PATIENCE,
        },
      },
      {
        test: {
          // What is measured is measured while nothing else runs.
          name: 'quiet',
          include: ['e2e/quiet/**/*.test.ts'],
          globalSetup: 'e2e/support/sharedBrowser.ts',
          fileParallelism: false,
          ...PATIENCE,
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/journeys/**/*.test.ts'],
          globalSetup: 'e2e/support/sharedBrowser.ts',
          setupFiles: ['e2e/support/leaveAsFound.ts'],
          fileParallelism: hasSeveral('FEATHER_TEST_ADDRESS'),
          ...PATIENCE,
        },
      },
    ],
  },
});
