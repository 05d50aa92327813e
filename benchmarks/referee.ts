import { execFile } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { timeFits, type FitTiming } from '#benchmarks/fitSpeed.ts';
import type { Score } from '#benchmarks/referee/judge.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';

/**
 * Lets every strategy dial in the same hidden sheets and writes docs/referee.md, with the goal beside each figure;
 * fails when a goal is missed.
 */
type PrintedScore = Omit<Score, 'byFamily'> & { readonly byFamily: Readonly<Record<string, number>> };
interface WorldResult {
  readonly sheets: number;
  readonly poor: number;
  readonly scores: readonly PrintedScore[];
}

const WORKSHOPS = 10;
const SHEETS_PER_MACHINE = 20;
const SIZES = [50, 500, 5_000, 50_000];
const run = promisify(execFile);

await reportFailure(async () => {
  const [plain, hard] = await Promise.all([runWorld('plain'), runWorld('hard')]);
  const timings = timeFits(SIZES);
  const goals = checkGoals(plain, timings);
  const text = writeReport(plain, hard, timings, goals);
  writeFileSync(join(ROOT, 'docs/referee.md'), text);
  console.log(text);
  if (goals.some(({ isMet }) => !isMet)) process.exitCode = 1;
});

async function runWorld(name: string): Promise<WorldResult> {
  const script = join(ROOT, 'benchmarks/referee/runWorld.ts');
  const given = ['--import', 'tsx', script, name, String(WORKSHOPS), String(SHEETS_PER_MACHINE)];
  const { stdout } = await run(process.execPath, given, { cwd: ROOT, maxBuffer: 1e8 });
  return JSON.parse(stdout) as WorldResult;
}

interface Goal {
  readonly words: string;
  readonly measured: string;
  readonly isMet: boolean;
}

function checkGoals(plain: WorldResult, timings: readonly FitTiming[]): readonly Goal[] {
  const find = (name: string) => plain.scores.find((score) => score.name === name) as PrintedScore;
  const one = find('ours, one at a time, warm');
  const card = find('ours, two cards, warm');
  const stairs = find('up-down staircase');
  const worse = Object.entries(stairs.byFamily).filter(
    ([family, mean]) => (one.byFamily[family] ?? 0) < mean || (card.byFamily[family] ?? 0) < mean,
  );
  const covered = (score: PrintedScore) => (score.coverage ?? 0) >= 0.88 && (score.coverage ?? 1) <= 0.92;
  const fit = timings.find(({ trials }) => trials === 5_000) as FitTiming;
  return [
    goal('one at a time: at most 3.5 cuts', one.cuts.toFixed(2), one.cuts <= 3.5),
    goal('one at a time: mean .96', share(one.mean), one.mean >= 0.96),
    goal('one at a time: .90 within 0.9 of the best', share(one.shareGood), one.shareGood >= 0.9),
    goal('cards: 2 loads', card.loads.toFixed(0), card.loads <= 2),
    goal('cards: mean .96', share(card.mean), card.mean >= 0.96),
    goal('one at a time: 90 % intervals cover 88 to 92 %', share(one.coverage ?? 0), covered(one)),
    goal('cards: 90 % intervals cover 88 to 92 %', share(card.coverage ?? 0), covered(card)),
    goal(
      'next proposal within 50 ms',
      `${(one.msPerProposal ?? 0).toFixed(0)} ms`,
      (one.msPerProposal ?? 99) <= 50,
    ),
    goal('5,000 trials fitted in under 3 s', `${(fit.coldMs / 1000).toFixed(1)} s`, fit.coldMs < 3000),
    goal(
      'never worse than the staircase on any family',
      worse.length === 0 ? 'on none' : worse.map(([family]) => family).join(', '),
      worse.length === 0,
    ),
  ];
}

function goal(words: string, measured: string, isMet: boolean): Goal {
  return { words, measured, isMet };
}

function share(value: number): string {
  return value.toFixed(3).replace(/^0/, '');
}

function writeReport(
  plain: WorldResult,
  hard: WorldResult,
  timings: readonly FitTiming[],
  goals: readonly Goal[],
): string {
  const day = new Date().toISOString().slice(0, 10);
  return [
    '# The referee',
    '',
    `Written by \`./feather referee\` on ${day}, ${cpus().length} cores, Node ${process.version}.`,
    '',
    'Hidden sheets are dialled in by every strategy in one run. The truth is not the model: layers resist by their',
    'thickness and their stuff, force pays for depth, grades are read off the depth, 5 % of them wrongly; machines have',
    'a scale error, level scales an unmeasured zero; blades are worn; noise differs from sheet to sheet (4 to 8 %).',
    `${plain.sheets} sheets of ${WORKSHOPS} workshops with two machines each; warm strategies know 40 other sheets of their`,
    'workshop. P is the true chance of a right cut at the kept force, over the best any settable force has.',
    `${(100 * plain.poor).toFixed(0)} % of the sheets have no setting that is right nine times in ten.`,
    '',
    '## Goals',
    '| goal | measured | met |',
    '|---|---|---|',
    ...goals.map(({ words, measured, isMet }) => `| ${words} | ${measured} | ${isMet ? 'yes' : 'no'} |`),
    '',
    '## Plain world',
    ...tabulate(plain),
    '',
    '### Mean P by family',
    ...tabulateFamilies(plain),
    '',
    '## Harder world',
    'Grades misjudged 10 %, noise with heavy tails (Student, 4 degrees of freedom), calipers wrong by 15 %. The model is',
    `told nothing of this. ${(100 * hard.poor).toFixed(0)} % of its sheets have no setting that is right nine times in ten.`,
    '',
    ...tabulate(hard),
    '',
    '## Speed',
    'Fitting a whole book, and what is believed of one sheet of it with its own trials taken out.',
    '',
    '| trials | fit, cold, s | steps | fit after five new trials, s | belief of one sheet, ms |',
    '|---|---|---|---|---|',
    ...timings.map(
      ({ trials, coldMs, iterations, warmMs, believeMs }) =>
        `| ${trials} | ${(coldMs / 1000).toFixed(2)} | ${iterations} | ${(warmMs / 1000).toFixed(2)} | ${believeMs.toFixed(0)} |`,
    ),
    '',
  ].join('\n');
}

function tabulate({ scores }: WorldResult): readonly string[] {
  return [
    '| strategy | cuts | loads | P, mean | P, tenth percentile | within 0.9 of best | 90 % interval covers | ms per proposal |',
    '|---|---|---|---|---|---|---|---|',
    ...scores.map((one) =>
      [
        '',
        ` ${one.name} `,
        ` ${one.cuts.toFixed(2)} `,
        ` ${one.loads.toFixed(2)} `,
        ` ${share(one.mean)} `,
        ` ${share(one.tenth)} `,
        ` ${share(one.shareGood)} `,
        ` ${one.coverage === null ? '–' : share(one.coverage)} `,
        ` ${one.msPerProposal === null ? '–' : one.msPerProposal.toFixed(0)} `,
        '',
      ].join('|'),
    ),
  ];
}

function tabulateFamilies({ scores }: WorldResult): readonly string[] {
  const shown = ['up-down staircase', 'ours, one at a time, warm', 'ours, two cards, warm'];
  const chosen = scores.filter(({ name }) => shown.includes(name));
  const families = Object.keys(chosen[0]?.byFamily ?? {}).sort();
  return [
    `| family | ${chosen.map(({ name }) => name).join(' | ')} |`,
    `|---|${chosen.map(() => '---').join('|')}|`,
    ...families.map(
      (family) => `| ${family} | ${chosen.map(({ byFamily }) => share(byFamily[family] ?? 0)).join(' | ')} |`,
    ),
  ];
}
