import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { CONTENDERS } from '#benchmarks/referee/contenders.ts';
import { dealSheets, judge, meanOf, type Contender, type Score } from '#benchmarks/referee/judge.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import { HARM_CUTS } from '#core/dialIn/proposeNextCut.ts';
import { machineOf } from '#core/knowledge/sharedEffects.ts';
import { PLAIN_WORLD, WIDE_WORLD, type World } from '#core/practice/worlds.ts';
import { believeLessons, takeLessons, withLessons } from '#core/sharing/lessons.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';

/**
 * A new workshop that takes in what others learnt, beside one that does not, on the same hidden sheets; writes
 * docs/sharing.md. Workshops differ more than sheets of one do: differences are told with the standard error over
 * workshops.
 */
const ROUNDS = 4;
const GIVERS = 20;
const RECEIVERS = 10;
const SHEETS_PER_MACHINE = 20;
const SEED = 20261129;

/** One new workshop: its searches with the common beliefs, and the same with what was told. */
interface Pair {
  readonly alone: Score;
  readonly told: Score;
}

interface Compared {
  readonly world: string;
  readonly pairs: readonly Pair[];
  readonly effects: number;
}

const COLD = CONTENDERS.find((one) => one.name === 'ours, one at a time, cold') as Contender;

function compare(name: string, world: World): Compared {
  const rounds = Array.from({ length: ROUNDS }, (_, round) => playRound(world, SEED + 1000 * round));
  return {
    world: name,
    pairs: rounds.flatMap(({ pairs }) => pairs),
    effects: Math.max(...rounds.map(({ effects }) => effects)),
  };
}

/** Twenty workshops tell ten others. */
function playRound(world: World, seed: number): Pick<Compared, 'pairs' | 'effects'> {
  const books = new Set(dealSheets(GIVERS, 1, world, seed).map(({ knowledge }) => knowledge));
  const packages = [...books].map((knowledge) => {
    const ids = knowledge.names.flatMap((effect) => machineOf(effect) ?? []);
    return takeLessons(knowledge, COMMON_PRIORS, new Map(ids.map((id) => [id, 'rollFed' as const])));
  });
  const dealt = dealSheets(RECEIVERS, SHEETS_PER_MACHINE, world, seed + 1);
  const machines = [...new Set(dealt.map(({ place }) => place.machineId))];
  const moved = believeLessons(
    packages,
    machines.map((id) => ({ id, kind: 'rollFed' })),
  );
  const told: Contender = { ...COLD, name: 'told', priors: withLessons(COMMON_PRIORS, moved) };
  const workshops = groupBy(dealt, ({ knowledge }) => knowledge);
  const pairs = [...workshops.values()].map((sheets, index): Pair => {
    const chance = seed + 2 + 100 * index;
    return { alone: judge(COLD, sheets, chance), told: judge(told, sheets, chance) };
  });
  const effects = moved.filter(({ name: effect }) => machineOf(effect) === null).length;
  return { pairs, effects };
}

/** What a search costs: its cuts, and what it spoilt at the price that the tool is set to. */
const costOf = ({ cuts, harm }: Score) => cuts + HARM_CUTS * harm;
const FIGURES: readonly ((score: Score) => number)[] = [
  ({ cuts }) => cuts,
  ({ harm }) => harm,
  costOf,
  ({ mean }) => mean,
  ({ coverage }) => coverage ?? NaN,
  ({ firstHarm }) => firstHarm ?? NaN,
];

/** Standard error of a mean. */
function errorOf(values: readonly number[]): number {
  const middle = meanOf(values);
  const squares = values.reduce((sum, value) => sum + (value - middle) ** 2, 0);
  return Math.sqrt(squares / (values.length - 1) / values.length);
}

function rowsOf({ world, pairs }: Compared): readonly string[] {
  const means = (of: (pair: Pair) => Score) =>
    FIGURES.map((figure) => meanOf(pairs.map((pair) => figure(of(pair)))).toFixed(3)).join(' | ');
  const differences = FIGURES.map((figure) => {
    const values = pairs.map(({ alone, told }) => figure(told) - figure(alone));
    return `${meanOf(values).toFixed(3)} ± ${errorOf(values).toFixed(3)}`;
  });
  return [
    `| ${world} | common beliefs | ${means(({ alone }) => alone)} |`,
    `| ${world} | with what ${GIVERS} others told | ${means(({ told }) => told)} |`,
    `| ${world} | difference | ${differences.join(' | ')} |`,
  ];
}

await reportFailure(() => {
  const worlds = [compare('plain', PLAIN_WORLD), compare('wide', WIDE_WORLD)];
  const workshops = ROUNDS * RECEIVERS;
  const text = `# What others learnt

Written by \`./feather sharing\` on ${cpus()[0]?.model ?? 'some machine'}, seed ${SEED}. ${ROUNDS} times ${GIVERS} hidden workshops of two machines, 20 sheets a machine, each give away what their books taught. ${workshops} others in all, which have cut nothing yet, find a setting one cut at a time on ${workshops * 2 * SHEETS_PER_MACHINE} sheets: with the common beliefs, and with what was told in their place (${worlds.map(({ world, effects }) => `${effects} effects in the ${world} world`).join(', ')}). The worlds are those of the [referee](referee.md): in the wide one usual forces differ between workshops by more than half, so that there is less to learn from each other.

Harm is a liner or a mat cut, by its true chance; *cost* is the cuts of a search and its harm, at the price of ${HARM_CUTS} cuts each that the tool starts with. Differences stand with their standard errors over the ${workshops} workshops.

| world | believes | cuts | harm | cost | mean of the best | 90 % intervals cover | harm of the first cut |
|---|---|---|---|---|---|---|---|
${worlds.flatMap(rowsOf).join('\n')}

How it is pooled: \`core/sharing/poolLessons.ts\` (DerSimonian and Laird 1986). A new workshop is never taken to be surer than workshops are alike.
`;
  writeFileSync(join(ROOT, 'docs/sharing.md'), text);
  console.log(text);
  return Promise.resolve();
});
