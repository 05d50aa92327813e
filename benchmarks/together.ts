import { readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { Material } from '#core/stack/material.ts';
import { watchTopic, type WatchingBrowser } from '#benchmarks/load/watchTopic.ts';
import { buildApp } from '#commands/buildApp.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { homeFolder, ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { startWebAnywhere, stopProcesses } from '#commands/startApp.ts';
import { startFreshDemo } from '#commands/startFreshDemo.ts';

/**
 * Two hundred browsers that watch, while fifty people grade, change and look: how soon all are told, how long pages and
 * changes take, what the server needs. On one server and on two that share a store. Writes docs/together.md.
 */
const BROWSERS = 200;
const PEOPLE = 50;
const SECONDS = 30;
/** Somebody at a bench does something so often, ms: five looks, then a grade. A test cut takes longer than that by hand. */
const EVERY_MS = 3_000;
const LOOKS = 5;
const TOPICS = ['jobs/4', 'jobs/3', 'dial-ins/1', 'runs/1'] as const;
const PAGES = ['/', '/test-cuts', '/jobs/4', '/runs/1', '/log'] as const;

interface Measured {
  readonly servers: number;
  readonly toldMs: readonly number[];
  readonly missed: number;
  readonly pageMs: readonly number[];
  readonly gradeMs: readonly number[];
  readonly failed: number;
  readonly cpuShare: number;
  readonly memoryMb: number;
}

/** Seconds of processor time that a process has used. Source: proc(5), fields 14 and 15 of stat, in ticks of 10 ms. */
function cpuSeconds(pid: number): number {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

function memoryMb(pid: number): number {
  const kb = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
  return Number(kb) / 1000;
}

async function timed(act: () => Promise<Response>, into: number[]): Promise<boolean> {
  const start = performance.now();
  const reply = await act();
  const text = await reply.text();
  into.push(performance.now() - start);
  if (reply.status >= 400) console.error(`${reply.status} ${reply.url}: ${text.slice(0, 200)}`);
  return reply.status < 400;
}

async function measure(
  addresses: readonly string[],
  pids: readonly number[],
  benches: readonly number[],
): Promise<Measured> {
  const at = (place: number) => addresses[place % addresses.length] as string;
  const browsers = Array.from({ length: BROWSERS }, (_, place) =>
    watchTopic(at(place), TOPICS[place % TOPICS.length] as string, `browser-${place}`),
  );
  await Promise.all(browsers.map(({ ready }) => ready));
  const before = pids.map(cpuSeconds);
  const pageMs: number[] = [];
  const gradeMs: number[] = [];
  let failed = 0;
  const end = performance.now() + 1000 * SECONDS;
  const person = async (place: number) => {
    await pause((EVERY_MS * place) / PEOPLE);
    for (let step = place; performance.now() < end; step++) {
      const isGood = await doSomething(at(place), benches[place] as number, step, { pageMs, gradeMs });
      if (!isGood) failed += 1;
      await pause(EVERY_MS);
    }
  };
  const told: number[] = [];
  let missed = 0;
  const teller = async () => {
    for (let nth = 0; performance.now() < end - 3_000; nth++) {
      const { version } = (await (await fetch(`${at(nth)}/api/jobs/4`)).json()) as { version: number };
      const watching = browsers.filter((_, place) => TOPICS[place % TOPICS.length] === 'jobs/4');
      const counts = watching.map(({ heard }) => heard.length);
      const reply = await fetch(`${at(nth)}/api/jobs/4`, {
        method: 'PATCH',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ version, name: `Told ${nth}` }),
      });
      if (!reply.ok) continue;
      const kept = performance.now();
      await pause(2_000);
      watching.forEach(({ heard }: WatchingBrowser, place) => {
        const when = heard[counts[place] as number];
        if (when === undefined) missed += 1;
        else told.push(Math.max(0, when - kept));
      });
    }
  };
  await Promise.all([...Array.from({ length: PEOPLE }, (_, place) => person(place)), teller()]);
  const used = pids.map((pid, place) => cpuSeconds(pid) - (before[place] as number));
  for (const browser of browsers) browser.close();
  return {
    servers: addresses.length,
    toldMs: told,
    missed,
    pageMs,
    gradeMs,
    failed,
    cpuShare: used.reduce((sum, seconds) => sum + seconds, 0) / SECONDS,
    memoryMb: Math.max(...pids.map(memoryMb)),
  };
}

/** Five looks, then a grade. @returns whether it went well */
async function doSomething(
  address: string,
  bench: number,
  step: number,
  { pageMs, gradeMs }: { readonly pageMs: number[]; readonly gradeMs: number[] },
): Promise<boolean> {
  const look = () => fetch(address + (PAGES[step % PAGES.length] as string), { headers: seatOf(bench) });
  const isGrade = step % (LOOKS + 1) === 0;
  const done = isGrade ? timed(() => grade(address, bench, step), gradeMs) : timed(look, pageMs);
  return done.catch((error: unknown) => {
    console.error(String(error));
    return false;
  });
}

const seatOf = (bench: number) => ({ cookie: `feather_operator=Ines; feather_station=${bench}` });

/** A bench of its own for everybody: a machine like the first, with one of the sheets on it. @returns their ids */
async function furnishBenches(address: string): Promise<readonly number[]> {
  const send = async <Reply>(path: string, method: string, body: unknown): Promise<Reply> => {
    const headers = { 'content-type': 'application/json' };
    const reply = await fetch(address + path, { method, headers, body: JSON.stringify(body) });
    if (!reply.ok) throw new Error(`${method} ${path}: ${await reply.text()}`);
    return (await reply.json()) as Reply;
  };
  const ask = async <Reply>(path: string) => (await (await fetch(address + path)).json()) as Reply;
  const { machine } = await ask<{ machine: Record<string, unknown> }>('/api/stations/1');
  const { id: _, version: _version, isArchived: _archived, ...like } = machine;
  const materials = await ask<readonly Pick<Material, 'conditions'>[]>('/api/materials');
  // Sheets with a liner: grades of a kiss are asked of them.
  const sheets = materials.flatMap(({ conditions }) =>
    conditions.filter(({ stack }) => stack.some(({ role }) => role === 'liner')).map(({ id }) => id),
  );
  const benches: number[] = [];
  for (let place = 0; place < PEOPLE; place++) {
    const one = { ...like, name: `Bench ${place + 1}`, link: { kind: 'none' } };
    const { id } = await send<{ id: number }>('/api/machines', 'POST', one);
    await send(`/api/stations/${id}`, 'PATCH', { conditionId: sheets[place % sheets.length] });
    benches.push(id);
  }
  return benches;
}

/** A grade of a cut somebody made by hand. */
function grade(address: string, bench: number, step: number): Promise<Response> {
  return fetch(`${address}/api/stations/${bench}/test-cuts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      operation: 'kiss',
      force: 90 + (step % 40),
      passes: 1,
      speed: 200,
      exposureMm: 0.3,
      grade: 3 + (step % 2),
    }),
  });
}

function quantile(values: readonly number[], share: number): string {
  const sorted = [...values].sort((a, b) => a - b);
  return `${Math.round(sorted[Math.floor(share * (sorted.length - 1))] ?? NaN)}`;
}

function row(measured: Measured): string {
  const { servers, toldMs, missed, pageMs, gradeMs, failed, cpuShare, memoryMb } = measured;
  const three = (values: readonly number[]) =>
    [0.5, 0.95, 1].map((share) => quantile(values, share)).join(' / ');
  return `| ${servers} | ${three(toldMs)} | ${missed} of ${toldMs.length + missed} | ${three(pageMs)} | ${three(gradeMs)} | ${failed} | ${(100 * cpuShare).toFixed(0)} % | ${memoryMb.toFixed(0)} |`;
}

/** The second server drives no machine here. */
const NOWHERE = { dataPort: 1, panelPort: 1 };
const pidOf = (home: string) => Number(readFileSync(join(home, 'run', 'web.pid'), 'utf8'));

await reportFailure(async () => {
  const [home, beside] = [homeFolder('bench'), homeFolder('test-beside')];
  await buildApp();
  const url = await startDatabase(home);
  try {
    const first = await startFreshDemo(home, url, 40);
    const benches = await furnishBenches(first);
    const one = await measure([first], [pidOf(home)], benches);
    const second = await startWebAnywhere(beside, url, { desk: NOWHERE, roll: NOWHERE, flat: NOWHERE });
    await fetch(second);
    const two = await measure([first, second], [pidOf(home), pidOf(beside)], benches);
    const rate = (PEOPLE * 1000) / EVERY_MS;
    const each = one.cpuShare / PEOPLE;
    const cores = (benches: number) => Math.max(0.1, 2 * each * benches).toFixed(1);
    const text = `# Many at once

Written by \`./feather together\` on ${cpus().length} × ${cpus()[0]?.model ?? 'some processor'}; browsers, people, servers and the database share them. ${BROWSERS} lines are open on four things, ${PEOPLE} people do something every ${EVERY_MS / 1000} s (${rate.toFixed(0)} a second: five pages, then a grade; each at a bench of their own), for ${SECONDS} s. Told: from the answer to a change until each of ${BROWSERS / TOPICS.length} browsers that show the same heard of it. Figures are half / 95 in 100 / all, ms.

| servers | told, ms | not told within 2 s | a page, ms | a grade, ms | failed | processor, of one core | memory a server, MB |
|---|---|---|---|---|---|---|---|
${row(one)}
${row(two)}

## What a workshop needs
Reckoned from the first line, by what a busy bench costs (${(100 * each).toFixed(1)} % of such a core while somebody does something every ${EVERY_MS / 1000} s), and twice as many cores as that, for only cores that are half idle answer at once: 5 benches ${cores(5)} cores, 50 benches ${cores(50)} cores, 500 benches ${cores(500)} cores, shared among servers; ${one.memoryMb.toFixed(0)} MB a server and the database's own beside. What is measured here runs on ${cpus().length} cores together with its own browsers: where their share is above ${(100 * cpus().length * 0.75).toFixed(0)} %, pages wait for each other. A second server also does what one alone cannot: die without anybody noticing.
`;
    writeFileSync(join(ROOT, 'docs/together.md'), text);
    console.log(text);
    if (one.failed + two.failed + one.missed + two.missed > 0) process.exitCode = 1;
  } finally {
    for (const one of [home, beside]) await stopProcesses(one);
    await stopDatabase(home);
  }
});
