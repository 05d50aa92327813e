import { execFile } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { timeRival, type RivalTiming } from '#benchmarks/clmmRival.ts';
import { timeFits, writeBook, type FitTiming } from '#benchmarks/fitSpeed.ts';
import { share, shareOr } from '#benchmarks/referee/figures.ts';
import { playFormer, tellFormer, type FormerScore } from '#benchmarks/referee/formerSelf.ts';
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
/** Worlds beside the plain one are judged on fewer sheets: workshops, sheets a machine, sheets each machine knows. */
const SIZES_OF: Readonly<Record<string, readonly [number, number, number]>> = {
  plain: [WORKSHOPS, SHEETS_PER_MACHINE, 20],
  hard: [5, 20, 20],
  wide: [5, 20, 20],
  wild: [5, 20, 20],
  narrow: [4, 20, 20],
  long: [4, 20, 200],
};
/** For timing alone. */
const FEW_SHEETS = [2, 10, 20] as const;
/** A book of so many trials has about 5,000 on layered sheets. */
const RIVAL_BOOK = 8_800;
const SIZES = [50, 500, 5_000, 50_000];
const run = promisify(execFile);

type Others = Readonly<Record<'hard' | 'wide' | 'wild' | 'narrow' | 'long', WorldResult>>;

async function runOthers(): Promise<Others> {
  return {
    wide: await runWorld('wide', 'one at a time'),
    wild: await runWorld('wild', 'one at a time'),
    narrow: await runWorld('narrow', 'one at a time'),
    long: await runWorld('long', 'warm'),
    hard: await runWorld('hard'),
  };
}

async function runWorld(
  name: string,
  only = '',
  sizes: readonly number[] = SIZES_OF[name] ?? [],
): Promise<WorldResult> {
  const script = join(ROOT, 'benchmarks/referee/runWorld.ts');
  const given = ['--import', 'tsx', script, name, ...sizes.map(String), only];
  const { stdout } = await run(process.execPath, given, { cwd: ROOT, maxBuffer: 1e8 });
  return JSON.parse(stdout) as WorldResult;
}

interface Goal {
  readonly words: string;
  readonly measured: string;
  readonly isMet: boolean;
}

function checkGoals(
  plain: WorldResult,
  { wide, wild, narrow, long }: Others,
  timings: readonly FitTiming[],
  proposalMs: number,
): readonly Goal[] {
  const find = (name: string, { scores } = plain) =>
    scores.find((score) => score.name === name) as PrintedScore;
  const one = find('ours, one at a time, warm');
  const card = find('ours, two cards, warm');
  const stairs = find('up-down staircase');
  const predicted = find('ours, no cut, warm');
  const longPredicted = find('ours, no cut, warm', long);
  const longOne = find('ours, one at a time, warm', long);
  const wideOne = find('ours, one at a time, cold', wide);
  const wildOne = find('ours, one at a time, warm', wild);
  const narrowOne = find('ours, one at a time, warm', narrow);
  const worse = Object.entries(stairs.byFamily).filter(
    ([family, mean]) => (one.byFamily[family] ?? 0) < mean || (card.byFamily[family] ?? 0) < mean,
  );
  const fit = timings.find(({ trials }) => trials === 5_000) as FitTiming;
  const coverages = [one, card, longOne, wideOne, wildOne, narrowOne].map(({ coverage }) => coverage ?? 0);
  const off = (score: PrintedScore) => Math.abs((score.claimed ?? 0) - score.real);
  return [
    atMost('one at a time: cuts', one.cuts, 3.3),
    atLeast('one at a time: mean', one.mean, 0.965),
    atLeast('one at a time: within 0.9 of the best', one.shareGood, 0.91),
    atMost('one at a time, 400 other sheets: cuts', longOne.cuts, 2.5),
    atLeast('one at a time, 400 other sheets: mean', longOne.mean, 0.965),
    atMost('wide world, nothing known: cuts', wideOne.cuts, 4.5),
    atLeast('wide world, nothing known: mean', wideOne.mean, 0.95),
    atLeast('one grade in five at random: mean', wildOne.mean, 0.94),
    atLeast('one grade in five at random: 90 % intervals cover', wildOne.coverage ?? 0, 0.84),
    atLeast('windows under 8 %: mean', narrowOne.narrow ?? 0, 0.94),
    atMost('harm done per found setting', one.harm, 0.35),
    atMost('harm done by the first cut', one.firstHarm ?? 1, 0.1),
    atMost('keeps that claim over .9 and are under .7', one.sureButWrong ?? 1, 0.02),
    atLeast('least coverage of 90 % intervals, all worlds', Math.min(...coverages), 0.88),
    atMost('most coverage of 90 % intervals, all worlds', Math.max(...coverages), 0.92),
    atMost('before the first cut, 40 other sheets: claimed and real apart', off(predicted), 0.03),
    atMost('before the first cut, 400 other sheets: claimed and real apart', off(longPredicted), 0.03),
    atMost('cards: loads', card.loads, 2),
    atLeast('cards: mean', card.mean, 0.96),
    atMost('next proposal, ms', proposalMs, 25),
    atMost('5,000 trials fitted, s', fit.coldMs / 1000, 1),
    goal(
      'never worse than the staircase on any family',
      worse.length === 0 ? 'on none' : worse.map(([family]) => family).join(', '),
      worse.length === 0,
    ),
  ];
}

function atMost(words: string, measured: number, bound: number): Goal {
  return goal(`${words}: at most ${figure(bound)}`, figure(measured), measured <= bound);
}

function atLeast(words: string, measured: number, bound: number): Goal {
  return goal(`${words}: at least ${figure(bound)}`, figure(measured), measured >= bound);
}

function figure(value: number): string {
  return value < 1 ? share(value) : value.toFixed(value < 10 ? 2 : 0);
}

function goal(words: string, measured: string, isMet: boolean): Goal {
  return { words, measured, isMet };
}

function writeReport(plain: WorldResult, others: Others, speed: Speed, goals: readonly Goal[]): string {
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
    `${(100 * plain.poor).toFixed(0)} % of the sheets have no setting that is right nine times in ten. Harm is a cut liner where it`,
    'should hold, or a scarred mat, by its true chance: in a whole search, and by its first cut.',
    '',
    '## Goals',
    '| goal | measured | met |',
    '|---|---|---|',
    ...goals.map(({ words, measured, isMet }) => `| ${words} | ${measured} | ${isMet ? 'yes' : 'no'} |`),
    '',
    '## Plain world',
    ...tabulate(plain),
    '',
    ...tellFormer(speed.former),
    '',
    '### Mean P by family',
    ...tabulateFamilies(plain),
    '',
    ...tellWorlds(others),
    ...tellSpeed(speed),
  ].join('\n');
}

function tellWorlds({ hard, wide, wild, narrow, long }: Others): readonly string[] {
  return [
    '## Harder world',
    'Grades misjudged 10 %, noise with heavy tails (Student, 4 degrees of freedom), calipers wrong by 15 %. The model is',
    `told nothing of this. ${(100 * hard.poor).toFixed(0)} % of its sheets have no setting that is right nine times in ten.`,
    '',
    ...tabulate(hard),
    '',
    '## Wide world',
    'Usual forces of families differ from workshop to workshop (spread .55 in ln); levels that nobody weighed are up to',
    'twenty times off and bent; blades of one kind differ by a tenth, kinds of blade by a sixth.',
    `${wide.sheets} sheets.`,
    '',
    ...tabulate(wide),
    '',
    '## Wild grades',
    `One grade in five is any grade at all. ${wild.sheets} sheets.`,
    '',
    ...tabulate(wild),
    '',
    '## Narrow windows',
    'Single layers whose mat is scarred 3 to 8 % above the force at which they part: the best force there is cuts them',
    `right four to eight times in ten. ${narrow.sheets} sheets.`,
    '',
    ...tabulate(narrow),
    '',
    '## A long book',
    `Each machine knows 200 sheets. ${long.sheets} sheets.`,
    '',
    ...tabulate(long),
    '',
  ];
}

interface Speed {
  readonly former: readonly FormerScore[] | null;
  readonly timings: readonly FitTiming[];
  readonly rival: RivalTiming;
  readonly proposalMs: number;
}

function tellSpeed({ timings, rival, proposalMs }: Omit<Speed, 'former'>): readonly string[] {
  return [
    '## Speed',
    `A proposal takes ${proposalMs.toFixed(0)} ms while nothing else runs; in the tables above two worlds shared the cores.`,
    '',
    'Fitting a whole book, and what is believed of one sheet of it with its own trials taken out.',
    '',
    ...tabulateTimings(timings),
    '',
    ...tellRival(rival),
    '',
  ];
}

function tellRival({ trials, ours, clmm }: RivalTiming): readonly string[] {
  const own = `${ours.seconds.toFixed(2)} s, log likelihood ${ours.logLikelihood.toFixed(0)}`;
  return [
    `The ${trials} trials of the layered sheets of a book, fitted by ours and by R's \`ordinal::clmm\` (grades by ln force, a`,
    'random effect of the material and of the machine, probit, Laplace), in one run. Both likelihoods are marginal; ours',
    'knows the stack, the blade and what each machine is told to be, and pays for its priors.',
    '',
    `* ours: ${own}`,
    clmm
      ? `* clmm of ordinal ${clmm.version}: ${clmm.seconds.toFixed(2)} s, log likelihood ${clmm.logLikelihood.toFixed(0)}`
      : '* clmm: R with its package ordinal is not installed here',
  ];
}

function tabulateTimings(timings: readonly FitTiming[]): readonly string[] {
  return [
    '| trials | fit, cold, s | steps | fit after five new trials, s | belief of one sheet, ms |',
    '|---|---|---|---|---|',
    ...timings.map(
      ({ trials, coldMs, iterations, warmMs, believeMs }) =>
        `| ${trials} | ${(coldMs / 1000).toFixed(2)} | ${iterations} | ${(warmMs / 1000).toFixed(2)} | ${believeMs.toFixed(0)} |`,
    ),
  ];
}

const COLUMNS: readonly (readonly [heading: string, of: (score: PrintedScore) => string])[] = [
  ['strategy', ({ name }) => name],
  ['cuts', ({ cuts }) => cuts.toFixed(2)],
  ['loads', ({ loads }) => loads.toFixed(2)],
  ['P, mean', ({ mean }) => share(mean)],
  ['P, tenth percentile', ({ tenth }) => share(tenth)],
  ['within 0.9 of best', ({ shareGood }) => share(shareGood)],
  ['90 % interval covers', ({ coverage }) => shareOr(coverage)],
  ['claimed', ({ claimed }) => shareOr(claimed)],
  ['real', ({ real }) => share(real)],
  ['sure but wrong', ({ sureButWrong }) => shareOr(sureButWrong)],
  ['harm', ({ harm }) => share(harm)],
  ['first cut', ({ firstHarm }) => shareOr(firstHarm)],
  ['ms per proposal', ({ msPerProposal }) => (msPerProposal === null ? '–' : msPerProposal.toFixed(0))],
];

function tabulate({ scores }: WorldResult): readonly string[] {
  const row = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
  return [
    row(COLUMNS.map(([heading]) => heading)),
    row(COLUMNS.map(() => '---')),
    ...scores.map((one) => row(COLUMNS.map(([, of]) => of(one)))),
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

await reportFailure(async () => {
  // Two at a time, the longest beside all others.
  const [plain, others] = await Promise.all([runWorld('plain'), runOthers()]);
  // What is timed is timed while nothing else runs.
  const alone = await runWorld('plain', 'one at a time, warm', FEW_SHEETS);
  const proposalMs = alone.scores[0]?.msPerProposal ?? Infinity;
  const former = await playFormer([WORKSHOPS, SHEETS_PER_MACHINE]);
  const timings = timeFits(SIZES);
  const rival = timeRival(writeBook(RIVAL_BOOK));
  const goals = checkGoals(plain, others, timings, proposalMs);
  const text = writeReport(plain, others, { timings, rival, former, proposalMs }, goals);
  writeFileSync(join(ROOT, 'docs/referee.md'), text);
  console.log(text);
  if (goals.some(({ isMet }) => !isMet)) process.exitCode = 1;
});
