import { CONTENDERS } from '#benchmarks/referee/contenders.ts';
import { dealSheets, judge } from '#benchmarks/referee/judge.ts';
import {
  HARD_WORLD,
  NARROW_WORLD,
  PLAIN_WORLD,
  WIDE_WORLD,
  WILD_WORLD,
  type World,
} from '#core/practice/worlds.ts';

/** One world of the referee in a process of its own; prints its scores as JSON. */
const WORLDS: Readonly<Record<string, World>> = {
  plain: PLAIN_WORLD,
  hard: HARD_WORLD,
  wide: WIDE_WORLD,
  wild: WILD_WORLD,
  narrow: NARROW_WORLD,
};
const [name = 'plain', workshops = '10', sheets = '20', history = '20', only = ''] = process.argv.slice(2);
const SEED = 20261125;
const world = WORLDS[name] ?? PLAIN_WORLD;
const dealt = dealSheets(Number(workshops), Number(sheets), world, SEED, Number(history));
const scores = CONTENDERS.filter((contender) => contender.name.includes(only)).map((contender) => {
  const score = judge(contender, dealt, SEED + 1);
  return { ...score, byFamily: Object.fromEntries(score.byFamily) };
});
const poor = dealt.filter(({ best }) => best < 0.9).length / dealt.length;
console.log(JSON.stringify({ sheets: dealt.length, poor, scores }));
