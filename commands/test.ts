import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { BUILT_THREADS, buildApp } from '#commands/buildApp.ts';
import { ownAddress } from '#commands/database/databaseUrl.ts';
import { homeFolder, ROOT } from '#commands/homeFolder.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { startFreshDemo } from '#commands/startFreshDemo.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';

interface Check {
  readonly name: string;
  readonly arguments: readonly string[];
}

/** Runs every check and every test, and ends with one line that counts them. */
const CHECKS: readonly Check[] = [
  { name: 'lint', arguments: ['node_modules/eslint/bin/eslint.js', '.'] },
  {
    name: 'format',
    arguments: ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'],
  },
  { name: 'types of core', arguments: ['node_modules/typescript-native/bin/tsc', '-p', 'core'] },
];
/** After the build: it writes types that both are checked against. Pages alone take a fifth of what pages and all else take. */
const TYPES: readonly Check[] = [
  { name: 'types', arguments: ['node_modules/typescript-native/bin/tsc', '-p', '.'] },
  {
    name: 'types of pages',
    arguments: [
      'node_modules/astro/astro.js',
      'check',
      '--minimumSeverity',
      'warning',
      '--tsconfig',
      'tsconfig.pages.json',
    ],
  },
];
/** The stand-ins hurry in tests: nobody watches. */
const TEST_PACE = 40;
/**
 * `./feather test store browser` runs these kinds alone, while working on one; without names everything runs but what
 * takes long: `./feather test deep`.
 */
const chosen = process.argv.slice(2);
const isChosen = (kind: string) => (chosen.length === 0 ? kind !== 'deep' : chosen.includes(kind));

interface Tally {
  passed: number;
  failed: number;
}

const tally: Tally = { passed: 0, failed: 0 };
/** What runs beside something else has its own database, application and stand-ins. */
const home = homeFolder('test');
const beside = homeFolder('test-beside');

try {
  const built = buildApp();
  const url = await startDatabase(home, true);
  const urlBeside = ['store', 'driven', 'browser'].some(isChosen) ? await startDatabase(beside, true) : url;
  // Checks keep a core busy from the start, units the other; what mostly waits for machines or the store runs beside them.
  await Promise.all([runChecks(built), runTests(built, url, urlBeside)]);
  if (isChosen('deep')) await runDeep(url);
  if (isChosen('browser')) await runJourneys(url, urlBeside);
} catch (error) {
  tally.failed += 1;
  console.error(`feather: ${error instanceof Error ? error.message : String(error)}`);
} finally {
  for (const one of [home, beside]) {
    await stopProcesses(one);
    await stopDatabase(one);
  }
}
console.log(`${tally.passed} passed, ${tally.failed} failed`);
process.exitCode = tally.failed > 0 || tally.passed === 0 ? 1 : 0;

/** What needs a database: two files at once, each with its own. */
async function runOnStores(url: string, urlBeside: string): Promise<void> {
  const projects = ['store', 'driven'].filter(isChosen);
  if (projects.length === 0) return;
  const { FEATHER_TEST_STORE_URL: scratch, ...rest } = scratchOf(url);
  const scratches = `${scratch} ${scratchOf(urlBeside).FEATHER_TEST_STORE_URL}`;
  await runVitest(projects, { ...rest, FEATHER_TEST_STORE_URL: scratches }, ['--maxWorkers=2']);
}

/** What takes long, and journeys that take long on a demo of their own. */
async function runDeep(url: string): Promise<void> {
  await runVitest(['deep'], scratchOf(url));
  const address = await startFreshDemo(home, url, TEST_PACE);
  const demo = { FEATHER_TEST_ADDRESS: address, FEATHER_TEST_DATABASE_URL: url };
  await runVitest(['deep journeys'], demo);
}

/** Journeys on two demos at once, one a core, then what is measured while nothing else runs. */
async function runJourneys(url: string, urlBeside: string): Promise<void> {
  const [address, addressBeside] = await Promise.all([
    startFreshDemo(home, url, TEST_PACE),
    startFreshDemo(beside, urlBeside, TEST_PACE),
  ]);
  await runVitest(
    ['browser'],
    {
      FEATHER_TEST_ADDRESS: `${address} ${addressBeside}`,
      FEATHER_TEST_DATABASE_URL: `${url} ${urlBeside}`,
    },
    ['--maxWorkers=2'],
  );
  await runVitest(['quiet'], { FEATHER_TEST_ADDRESS: address });
}

function scratchOf(url: string) {
  return { FEATHER_TEST_STORE_URL: ownAddress(url).scratchUrl, FEATHER_THREADS: BUILT_THREADS };
}

/** One after the other: the build, then units keep the other core busy meanwhile. */
async function runChecks(built: Promise<void>): Promise<void> {
  if (isChosen('checks')) for (const check of CHECKS) await runCheck(check);
  await built;
  if (isChosen('checks')) for (const check of TYPES) await runCheck(check);
}

/** Units beside what waits for machines, then what waits for the store. */
async function runTests(built: Promise<void>, url: string, urlBeside: string): Promise<void> {
  await Promise.all([runUnits(built, url), runOutside(built, url)]);
  await runOnStores(url, urlBeside);
}

async function runUnits(built: Promise<void>, url: string): Promise<void> {
  await built;
  if (isChosen('unit')) await runVitest(['core', 'unit', 'mocked'], scratchOf(url), ['--maxWorkers=2']);
}

async function runOutside(built: Promise<void>, url: string): Promise<void> {
  await built;
  for (const project of ['devices', 'outside'].filter(isChosen)) await runVitest([project], scratchOf(url));
}

async function runCheck({ name, arguments: given }: Check): Promise<void> {
  const start = Date.now();
  const child = spawn(process.execPath, given, {
    cwd: ROOT,
    env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += String(part)));
  const isGood = await new Promise<boolean>((resolve) => {
    child.on('error', () => resolve(false));
    child.on('close', (status) => resolve(status === 0));
  });
  tally[isGood ? 'passed' : 'failed'] += 1;
  console.log(`${isGood ? 'ok  ' : 'FAIL'} ${name} (${((Date.now() - start) / 1000).toFixed(1)} s)`);
  if (!isGood) console.log(said.trim().slice(-6000));
}

/** Runs projects together and adds their counts from their report; a run without a report counts as failed. */
async function runVitest(
  projects: readonly string[],
  environment: Readonly<Record<string, string>>,
  options: readonly string[] = [],
): Promise<void> {
  const name = projects.join(', ');
  const report = join(home, `report-${projects.join('-').replaceAll(' ', '-')}.json`);
  rmSync(report, { force: true });
  const start = Date.now();
  const child = spawn(
    process.execPath,
    [
      'node_modules/vitest/vitest.mjs',
      'run',
      ...projects.flatMap((project) => ['--project', project]),
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${report}`,
      ...options,
    ],
    { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...environment } },
  );
  const status = await new Promise<number | null>((resolve) => {
    child.on('error', () => resolve(1));
    child.on('close', resolve);
  });
  const { passed, failed } = readReport(report);
  tally.passed += passed;
  tally.failed += failed + (status !== 0 && failed === 0 ? 1 : 0);
  console.log(
    `${status === 0 ? 'ok  ' : 'FAIL'} ${name}: ${passed} tests (${((Date.now() - start) / 1000).toFixed(1)} s)`,
  );
}

function readReport(file: string): Tally {
  try {
    const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(file, 'utf8')) as {
      numPassedTests: number;
      numFailedTests: number;
    };
    return { passed: numPassedTests, failed: numFailedTests + (numPassedTests === 0 ? 1 : 0) };
  } catch {
    return { passed: 0, failed: 1 };
  }
}
