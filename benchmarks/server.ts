import { readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { visitPages } from '#benchmarks/load/visitPages.ts';
import { countWritten, writeAtOnce, type Ask } from '#benchmarks/load/manyWriters.ts';
import { measureHealth } from '#benchmarks/load/measureHealth.ts';
import { measureBigBook } from '#benchmarks/load/measureBigBook.ts';
import { buildApp } from '#commands/buildApp.ts';
import { homeFolder, ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { stopProcesses } from '#commands/startApp.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { startFreshDemo } from '#commands/startFreshDemo.ts';
import { connectStore } from '#store/connection/connectStore.ts';

/** Measures the server under load on the demo, beside a bare endpoint in the same run. Writes docs/server.md. */
interface Line {
  readonly what: string;
  readonly measured: string;
  readonly beside: string;
  readonly goal: string;
  readonly isMet: boolean;
}

const SECONDS = 4;
const WRITERS = 8;
const WRITES_EACH = 125;
const round = (value: number, digits = 0) => value.toLocaleString('en', { maximumFractionDigits: digits });

await reportFailure(async () => {
  const home = homeFolder('bench');
  await buildApp();
  const url = await startDatabase(home);
  try {
    const address = await startFreshDemo(home, url, 40);
    const lines: Line[] = [];
    for (const measure of [
      () => measurePages(address),
      () => measureHealthLine(address),
      () => measureWrites(address, url),
      () => measureBook(address, url),
      () => measureFrozen(address, home),
    ]) {
      for (const line of [await measure()].flat()) {
        console.log(`${line.what}: ${line.measured}`);
        lines.push(line);
      }
    }
    const text = write(lines);
    writeFileSync(join(ROOT, 'docs/server.md'), text);
    if (lines.some(({ isMet }) => !isMet)) process.exitCode = 1;
  } finally {
    await stopProcesses(home);
    await stopDatabase(home);
  }
});

async function measurePages(address: string): Promise<readonly Line[]> {
  for (const path of ['/', '/settings', '/api/health']) await visitPages(address, path, 10, 2);
  const bare = await visitPages(address, '/api/health', 10, SECONDS);
  const lines: Line[] = [];
  for (const [name, path] of [
    ['Bench', '/'],
    ['Settings', '/settings'],
  ] as const) {
    const ten = await visitPages(address, path, 10, SECONDS);
    lines.push({
      what: `${name}, 10 clients`,
      measured: `${round(ten.perSecond)} a second, p99 ${round(ten.p99Ms)} ms`,
      beside: `${round(bare.perSecond)} a second of a bare endpoint (SELECT 1); before: 17`,
      goal: 'a tenth of the bare endpoint, p99 under 300 ms',
      isMet: ten.perSecond >= bare.perSecond / 10 && ten.p99Ms < 300 && ten.failed === 0,
    });
    const fifty = await visitPages(address, path, 50, SECONDS);
    lines.push({
      what: `${name}, 50 clients`,
      measured: `${round(fifty.answers)} answers, ${fifty.failed} failed, p99 ${round(fifty.p99Ms)} ms`,
      beside: '',
      goal: 'no error',
      isMet: fifty.failed === 0,
    });
  }
  lines.push(await measureWhileWriting(address, bare.perSecond));
  return lines;
}

/** Pages are made anew when something was written: how many are made while somebody writes ten times a second. */
async function measureWhileWriting(address: string, bare: number): Promise<Line> {
  let written = 0;
  const writing = setInterval(() => {
    written += 1;
    void fetch(`${address}/api/settings/1/lock`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ isLocked: written % 2 === 1 }),
    }).then((response) => response.text());
  }, 100);
  const ten = await visitPages(address, '/', 10, SECONDS);
  clearInterval(writing);
  await new Promise((resolve) => setTimeout(resolve, 500));
  return {
    what: 'Bench, 10 clients, while somebody writes ten times a second',
    measured: `${round(ten.perSecond)} a second, p99 ${round(ten.p99Ms)} ms, ${ten.failed} failed`,
    beside: `${round(bare)} a second of a bare endpoint without writing`,
    goal: 'a tenth of the bare endpoint, p99 under 300 ms',
    isMet: ten.perSecond >= bare / 10 && ten.p99Ms < 300 && ten.failed === 0,
  };
}

async function measureHealthLine(address: string): Promise<Line> {
  const health = await measureHealth(address);
  return {
    what: `\`/api/health\` while ${health.heavy} heavy files are opened, reasons are asked for and PDFs drawn`,
    measured: `slowest of ${health.asked} answers ${round(health.slowestMs)} ms, p99 ${round(health.p99Ms)} ms`,
    beside: `without that: slowest ${round(health.idleMs)} ms; before: over a minute`,
    goal: 'within 100 ms',
    isMet: health.slowestMs <= 100,
  };
}

async function measureWrites(address: string, url: string): Promise<Line> {
  const ask: Ask = async (method, path, { body, key }) => {
    const response = await fetch(`${address}${path}`, {
      method,
      headers: { 'content-type': 'application/json', ...(key ? { 'idempotency-key': key } : {}) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    return { status: response.status, reply: await response.json() };
  };
  const store = connectStore(url);
  try {
    const before = await countWritten(store);
    const begun = performance.now();
    const told = await writeAtOnce(WRITERS, WRITES_EACH, 1, 2611, ask);
    const seconds = (performance.now() - begun) / 1000;
    const kept = await countWritten(store);
    const failed = [...told.statuses].filter(([status]) => status >= 500).map(([, count]) => count);
    const isTrue =
      kept.materials.length === told.materials.length &&
      kept.blades.length - before.blades.length === told.blades.length &&
      kept.cuts - before.cuts === told.cuts &&
      kept.revisions - before.revisions >= told.revisions;
    const answers = [...told.statuses.values()].reduce((sum, count) => sum + count, 0);
    return {
      what: `${WRITERS * WRITES_EACH} mixed writes by ${WRITERS} writers, a third sent twice`,
      measured: `${answers} answers in ${round(seconds)} s, ${failed.reduce((sum, one) => sum + one, 0)} of 500 and more; the book holds ${isTrue ? 'exactly what was answered' : 'something else than was answered'}`,
      beside: 'before: 18 of 24 answers were 500',
      goal: 'no 500, every answer true',
      isMet: failed.length === 0 && isTrue,
    };
  } finally {
    await store.destroy();
  }
}

async function measureBook(address: string, url: string): Promise<readonly Line[]> {
  const { importSeconds, rows, driftSeconds, driftStatements, settings } = await measureBigBook(address, url);
  return [
    {
      what: `reading a file of ${round(rows)} settings in`,
      measured: `${round(importSeconds, 1)} s`,
      beside: 'before: 48 s for 400',
      goal: 'under 10 s',
      isMet: importSeconds < 10,
    },
    {
      what: `a drift alarm over ${round(settings)} settings`,
      measured: `${round(driftSeconds, 2)} s, ${driftStatements} statements`,
      beside: 'before: 8,005 statements for 2,000',
      goal: 'under 1 s, a bounded number of statements',
      isMet: driftSeconds < 1 && driftStatements < 40,
    },
  ];
}

/** The database stops answering, as on a machine that sleeps. */
async function measureFrozen(address: string, home: string): Promise<Line> {
  const pid = Number(readFileSync(join(home, 'run', 'database.pid'), 'utf8'));
  const slowest: number[] = [];
  const statuses = new Set<number>();
  let after = 0;
  process.kill(pid, 'SIGSTOP');
  try {
    for (const path of ['/settings', '/log', '/api/materials']) {
      const begun = performance.now();
      const response = await fetch(`${address}${path}`);
      slowest.push(performance.now() - begun);
      statuses.add(response.status);
      after = Number(response.headers.get('retry-after'));
    }
  } finally {
    process.kill(pid, 'SIGCONT');
  }
  await new Promise((resolve) => setTimeout(resolve, 1_500));
  const healed = (await fetch(`${address}/settings`)).status;
  const seconds = Math.max(...slowest) / 1000;
  const isRight = statuses.size === 1 && statuses.has(503) && after > 0 && healed === 200;
  return {
    what: 'a frozen database',
    measured: `${[...statuses].join(', ')} with Retry-After after ${round(seconds, 1)} s at most; ${healed} when it goes on`,
    beside: 'before: 500 after 8 s',
    goal: '503 with Retry-After in 3 s, heals by itself',
    isMet: isRight && seconds <= 3,
  };
}

function write(lines: readonly Line[]): string {
  const [cpu] = cpus();
  const rows = lines.map(
    ({ what, measured, beside, goal, isMet }) =>
      `| ${what} | ${measured} | ${beside} | ${goal} | ${isMet ? 'met' : '**missed**'} |`,
  );
  return [
    '# The server under load',
    '',
    `Written by \`./feather load\`: the demo on its own database, ${cpus().length} × ${cpu?.model.trim() ?? 'unknown processor'}, Node ${process.version}. Clients, server and database share the machine. "Before" was measured by hand with the demo of an earlier day, on a machine of the same kind.`,
    '',
    '| what | measured | beside | goal | |',
    '|---|---|---|---|---|',
    ...rows,
    '',
    'What is small of each runs in every test run: `e2e/driven/manyWriters.test.ts`, `e2e/quiet/underLoad.test.ts`, `store/repositories/book/bigBook.test.ts`, `store/repositories/workshop/requestKeys.test.ts`, `core/tests/smallAndHeavy.test.ts`, `e2e/outside/fuzzImporters.test.ts`. `./feather test deep` runs 10,000 mutated files for each importer, a hundred kills, and a workshop from its empty start to a restored copy.',
    '',
  ].join('\n');
}
