import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { CONTENDERS } from '#benchmarks/referee/contenders.ts';
import { dealSheets, judge, type Contender, type Score } from '#benchmarks/referee/judge.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { machineOf } from '#core/knowledge/sharedEffects.ts';
import { PLAIN_WORLD, WIDE_WORLD, type World } from '#core/practice/worlds.ts';
import { believeLessons, takeLessons, withLessons } from '#core/sharing/lessons.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';

/**
 * A new workshop that takes in what others learnt, beside one that does not, on the same hidden sheets; writes
 * docs/sharing.md.
 */
const GIVERS = 20;
const RECEIVERS = 10;
const SHEETS_PER_MACHINE = 20;
const SEED = 20261129;

interface Compared {
  readonly world: string;
  readonly alone: Score;
  readonly told: Score;
  readonly effects: number;
}

function compare(name: string, world: World): Compared {
  const books = new Set(dealSheets(GIVERS, 1, world, SEED).map(({ knowledge }) => knowledge));
  const packages = [...books].map((knowledge) => {
    const ids = knowledge.names.flatMap((effect) => machineOf(effect) ?? []);
    return takeLessons(knowledge, COMMON_PRIORS, new Map(ids.map((id) => [id, 'rollFed' as const])));
  });
  const dealt = dealSheets(RECEIVERS, SHEETS_PER_MACHINE, world, SEED + 1);
  const machines = [...new Set(dealt.map(({ place }) => place.machineId))];
  const moved = believeLessons(
    packages,
    machines.map((id) => ({ id, kind: 'rollFed' })),
  );
  const cold = CONTENDERS.find((one) => one.name === 'ours, one at a time, cold') as Contender;
  const told: Contender = { ...cold, name: 'told', priors: withLessons(COMMON_PRIORS, moved) };
  return {
    world: name,
    alone: judge(cold, dealt, SEED + 2),
    told: judge(told, dealt, SEED + 2),
    effects: moved.filter(({ name: effect }) => machineOf(effect) === null).length,
  };
}

const cells = ({ cuts, mean, coverage, harm, firstHarm }: Score) =>
  [cuts, mean, coverage ?? NaN, harm, firstHarm ?? NaN].map((value) => value.toFixed(3)).join(' | ');

await reportFailure(() => {
  const worlds = [compare('plain', PLAIN_WORLD), compare('wide', WIDE_WORLD)];
  const rows = worlds.flatMap(({ world, alone, told }) => [
    `| ${world} | common beliefs | ${cells(alone)} |`,
    `| ${world} | with what ${GIVERS} others told | ${cells(told)} |`,
  ]);
  const text = `# What others learnt

Written by \`./feather sharing\` on ${cpus()[0]?.model ?? 'some machine'}, seed ${SEED}. ${GIVERS} hidden workshops of two machines, 20 sheets a machine, each give away what their books taught. ${RECEIVERS} others, which have cut nothing yet, find a setting one cut at a time on ${RECEIVERS * 2 * SHEETS_PER_MACHINE} sheets: with the common beliefs, and with what was told in their place (${worlds.map(({ world, effects }) => `${effects} effects in the ${world} world`).join(', ')}). The worlds are those of the [referee](referee.md): in the wide one usual forces differ between workshops by more than half, so that there is less to learn from each other.

| world | believes | cuts | mean of the best | 90 % intervals cover | harm | harm of the first cut |
|---|---|---|---|---|---|---|
${rows.join('\n')}

How it is pooled: \`core/sharing/poolLessons.ts\` (DerSimonian and Laird 1986). A new workshop is never taken to be surer than workshops are alike.
`;
  writeFileSync(join(ROOT, 'docs/sharing.md'), text);
  console.log(text);
  return Promise.resolve();
});
