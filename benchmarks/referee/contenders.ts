import type { Contender } from '#benchmarks/referee/judge.ts';
import { byCard, predictOnly } from '#benchmarks/referee/strategies.ts';
import { habit, oneAtATime, staircase } from '#core/practice/ways.ts';

const clock = () => performance.now();

/** The strategies of the referee, rivals first. Cold ones know only the stack, warm ones the book of their workshop. */
export const CONTENDERS: readonly Contender[] = [
  { name: 'habit, steps of 5 gf', isWarm: false, play: (task) => habit(task, 5) },
  { name: 'habit, steps of 10 gf', isWarm: false, play: (task) => habit(task, 10) },
  { name: 'up-down staircase', isWarm: false, play: staircase },
  { name: 'ours, no cut, cold', isWarm: false, play: predictOnly },
  { name: 'ours, no cut, warm', isWarm: true, play: predictOnly },
  {
    name: 'ours, one at a time, cold',
    isWarm: false,
    play: (...asked) => oneAtATime(...asked, undefined, clock),
  },
  {
    name: 'ours, one at a time, warm',
    isWarm: true,
    play: (...asked) => oneAtATime(...asked, undefined, clock),
  },
  {
    name: 'ours, warm, harm costs nothing',
    isWarm: true,
    play: (...asked) => oneAtATime(...asked, 0, clock),
  },
  {
    name: 'ours, warm, harm costs 25 cuts',
    isWarm: true,
    play: (...asked) => oneAtATime(...asked, 25, clock),
  },
  { name: 'ours, two cards, cold', isWarm: false, play: byCard },
  { name: 'ours, two cards, warm', isWarm: true, play: byCard },
];
