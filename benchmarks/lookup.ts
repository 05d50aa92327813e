import { existsSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import {
  buildBook,
  listBenchMaterials,
  MATERIAL_COUNT,
  SETTING_COUNT,
  type BenchMaterial,
} from '#benchmarks/buildBook.ts';
import { checkPlans, type PlanStep } from '#benchmarks/checkPlans.ts';
import { buildApp } from '#commands/buildApp.ts';
import { homeFolder, ROOT } from '#commands/homeFolder.ts';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { startStandIns, startWebAnywhere, stopProcesses } from '#commands/startApp.ts';
import { startDatabase, stopDatabase } from '#commands/database/startDatabase.ts';
import { seededRandom, type Random } from '#core/random/seededRandom.ts';
import { connectStore } from '#store/connection/connectStore.ts';

/**
 * Measures looking things up in a book of 100,000 settings, at the HTTP edge, beside a bare endpoint that runs
 * SELECT 1, in turns in the same run. Writes docs/benchmarks.md; fails when a goal is missed.
 */
const ROUNDS = 600;
const WARM_UP = 60;
const GOALS = { timesBare: 5, p95Ms: 100 } as const;

interface Asked {
  readonly kind: string;
  readonly text: string;
  /** The material that is meant. */
  readonly wanted: string;
}

await reportFailure(async () => {
  const home = homeFolder('bench');
  await buildApp();
  const url = await startDatabase(home);
  try {
    const plans = await prepareBook(home, url);
    const address = await startWebAnywhere(home, url, await startStandIns(home, 40));
    const measured = await measure(address);
    const report = writeReport(measured, plans);
    writeFileSync(join(ROOT, 'docs/benchmarks.md'), report.text);
    console.log(report.text);
    if (!report.isGood) process.exitCode = 1;
  } finally {
    await stopProcesses(home);
    await stopDatabase(home);
  }
});

async function prepareBook(home: string, url: string): Promise<readonly PlanStep[]> {
  const built = join(home, 'built');
  const db = connectStore(url);
  try {
    if (!existsSync(built)) {
      await db.raw('DROP DATABASE feather');
      await db.raw('CREATE DATABASE feather CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
    }
  } finally {
    await db.destroy();
  }
  const book = connectStore(url);
  try {
    await migrateUp(book);
    if (!existsSync(built)) {
      await buildBook(book, (words) => console.log(words));
      writeFileSync(built, '');
    }
    return await checkPlans(book);
  } finally {
    await book.destroy();
  }
}

interface Measured {
  readonly bare: readonly number[];
  readonly byKind: ReadonlyMap<string, readonly number[]>;
  /** Pages of the book, from its first to its last, every one read. */
  readonly pages: readonly number[];
  readonly found: number;
  readonly asked: number;
}

async function measure(address: string): Promise<Measured> {
  const random = seededRandom(7);
  const materials = listBenchMaterials();
  const bare: number[] = [];
  const byKind = new Map<string, number[]>();
  let found = 0;
  for (let round = -WARM_UP; round < ROUNDS; round++) {
    const asked = ask(materials[Math.floor(random() * materials.length)] as BenchMaterial, round, random);
    const bareMs = await timed(() => fetch(`${address}/api/health`).then((reply) => reply.text()));
    let text = '';
    const query = new URLSearchParams({ text: asked.text, machineId: '1' });
    const lookupMs = await timed(async () => {
      text = await (await fetch(`${address}/api/lookup?${query}`)).text();
    });
    if (round < 0) continue;
    bare.push(bareMs);
    byKind.set(asked.kind, [...(byKind.get(asked.kind) ?? []), lookupMs]);
    if (text.includes(JSON.stringify(asked.wanted))) found += 1;
  }
  return { bare, byKind, pages: await readPages(address), found, asked: ROUNDS };
}

/** Reads the whole book page by page, as somebody who scrolls to its end. */
async function readPages(address: string): Promise<readonly number[]> {
  const times: number[] = [];
  let after: string | null = '';
  while (after !== null) {
    const from: string = after ? `?after=${encodeURIComponent(after)}` : '';
    const start = performance.now();
    const page = (await (await fetch(`${address}/api/settings${from}`)).json()) as { next: string | null };
    times.push(performance.now() - start);
    after = page.next;
  }
  return times;
}

/** What somebody may type who means a material. */
function ask({ name, maker, lot }: BenchMaterial, round: number, random: Random): Asked {
  const [first = '', second = '', colour = '', place = ''] = name.split(' ');
  const kinds: readonly Omit<Asked, 'wanted'>[] = [
    { kind: 'name', text: `${first} ${second} ${place}` },
    { kind: 'beginnings', text: `${first.slice(0, 5)} ${second.slice(0, 5)} ${place}` },
    { kind: 'one slip in each word', text: `${slip(first, random)} ${slip(second, random)}` },
    { kind: 'maker, colour and part of the name', text: `${maker} ${colour} ${first}` },
    { kind: 'lot', text: lot },
  ];
  const one = kinds[Math.abs(round) % kinds.length] as Omit<Asked, 'wanted'>;
  return { ...one, wanted: name };
}

/** A word as a hurried finger types it: a letter swapped with the next, left out, or doubled. */
function slip(word: string, random: Random): string {
  const at = 1 + Math.floor(random() * (word.length - 2));
  const way = Math.floor(random() * 3);
  if (way === 0) return word.slice(0, at) + (word[at + 1] ?? '') + (word[at] ?? '') + word.slice(at + 2);
  if (way === 1) return word.slice(0, at) + word.slice(at + 1);
  return word.slice(0, at) + (word[at] ?? '') + word.slice(at);
}

async function timed(act: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await act();
  return performance.now() - start;
}

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Number.NaN;
}

function writeReport(
  { bare, byKind, pages, found, asked }: Measured,
  plans: readonly PlanStep[],
): { readonly text: string; readonly isGood: boolean } {
  const all = [...byKind.values()].flat();
  const times = quantile(all, 0.5) / quantile(bare, 0.5);
  const p95 = quantile(all, 0.95);
  const scans = plans.filter(({ isFullScan }) => isFullScan);
  const ms = (value: number) => value.toFixed(1);
  const row = (name: string, values: readonly number[]) =>
    `| ${name} | ${values.length} | ${ms(quantile(values, 0.5))} | ${ms(quantile(values, 0.95))} |`;
  const isGood = times <= GOALS.timesBare && p95 <= GOALS.p95Ms && scans.length === 0;
  const text = [
    '# Benchmarks',
    '',
    `Written by \`./feather bench\` on ${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores, Node ${process.version}.`,
    '',
    `## Looking up in a book of ${SETTING_COUNT.toLocaleString('en')} settings over ${MATERIAL_COUNT.toLocaleString('en')} materials`,
    'One request at a time over HTTP on loopback, in turns with a bare endpoint that runs `SELECT 1`, in one run.',
    '',
    '| asked | requests | median, ms | 95th percentile, ms |',
    '|---|---|---|---|',
    row('`SELECT 1` (the rival)', bare),
    row('**lookup, all kinds**', all),
    ...[...byKind].map(([kind, values]) => row(`lookup by ${kind}`, values)),
    row('a page of the book, whole materials, from the first to the last', pages),
    '',
    '| goal | measured | met |',
    '|---|---|---|',
    `| median at most ${GOALS.timesBare} times the bare one | ${times.toFixed(1)} times | ${times <= GOALS.timesBare ? 'yes' : 'no'} |`,
    `| 95th percentile under ${GOALS.p95Ms} ms | ${ms(p95)} ms | ${p95 <= GOALS.p95Ms ? 'yes' : 'no'} |`,
    `| no query scans a whole table | ${scans.length} of ${plans.length} steps do | ${scans.length === 0 ? 'yes' : 'no'} |`,
    '',
    `The material meant was among the first twelve answers ${found} times of ${asked}.`,
    '',
    '| query | table | access | key | rows |',
    '|---|---|---|---|---|',
    ...plans.map(
      ({ query, table, access, key, rows }) => `| ${query} | ${table} | ${access} | ${key} | ${rows} |`,
    ),
    '',
  ].join('\n');
  return { text, isGood };
}
