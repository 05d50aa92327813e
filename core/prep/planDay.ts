import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { layOutDay, type DayOrder, type DayPlan } from '#core/prep/dayPlan.ts';
import type { Random } from '#core/random/seededRandom.ts';

/** Rounds of improvement; a day of a workshop takes a fraction of a second. */
const ROUNDS = 24_000;
const STARTS = 6;
/** How warm each start begins and ends, in minutes of the day's end. */
const WARM = 8;
const COLD = 0.15;
/** One change of material or blade is worth so many minutes beside the time it takes: hands and attention. */
const CHANGE_COST = 2;
/** Of two days that end alike the one is better whose jobs are out of the way earlier. */
const FLOW_WEIGHT = 0.002;

/** A planned day with the order it came from. */
export interface PlannedDay extends DayPlan {
  readonly sequence: readonly number[];
}

/**
 * Orders the steps of a day to end early with few changes: simulated annealing over the order in which steps are taken,
 * from several starts. Waits cost nobody anything, so that other jobs fill them.
 *
 * Source: the permutation with repetition of Bierwirth 1995 for job shops, with insertion and swap moves; checked
 * against FT06 of Fisher and Thompson 1963 and against every order of small days.
 * @param rounds how long it may try; the answer is the best found
 * @example planDay({ jobs: [], changeMinutes: 5, now: 480, setUps: {} }, () => 0.5).sequence // []
 */
export function planDay(order: DayOrder, random: Random, rounds = ROUNDS): PlannedDay {
  const open = order.jobs.flatMap((job, index) =>
    job.steps.filter(({ done }) => done === null).map(() => index),
  );
  let best = evaluate(order, open);
  for (let start = 0; start < STARTS; start++) {
    const found = anneal(order, shuffle(open, random), random, Math.ceil(rounds / STARTS));
    if (costOf(found) < costOf(best) - ROUNDING) best = found;
  }
  return best;
}

function anneal(order: DayOrder, from: readonly number[], random: Random, rounds: number): PlannedDay {
  let current = evaluate(order, from);
  let best = current;
  if (from.length < 2) return best;
  for (let round = 0; round < rounds; round++) {
    const heat = WARM * (COLD / WARM) ** (round / rounds);
    const next = evaluate(order, move(current.sequence, random));
    const rise = costOf(next) - costOf(current);
    if (rise <= 0 || random() < Math.exp(-rise / heat)) current = next;
    if (costOf(current) < costOf(best) - ROUNDING) best = current;
  }
  return best;
}

function evaluate(order: DayOrder, sequence: readonly number[]): PlannedDay {
  return { ...layOutDay(order, sequence), sequence };
}

function costOf({ endsAt, changes, steps }: DayPlan): number {
  const flow = steps.reduce((sum, { to }) => sum + to, 0) / Math.max(1, steps.length);
  return endsAt + CHANGE_COST * changes + FLOW_WEIGHT * flow;
}

/** One step taken earlier or later, or two exchanged. */
function move(sequence: readonly number[], random: Random): readonly number[] {
  const next = [...sequence];
  const pick = () => Math.floor(random() * next.length);
  const [from, to] = [pick(), pick()];
  if (random() < 0.5) {
    [next[from], next[to]] = [itemAt(next, to), itemAt(next, from)];
    return next;
  }
  const [taken] = next.splice(from, 1);
  next.splice(to, 0, taken as number);
  return next;
}

function shuffle(items: readonly number[], random: Random): readonly number[] {
  const mixed = [...items];
  for (let index = mixed.length - 1; index > 0; index--) {
    const other = Math.floor(random() * (index + 1));
    [mixed[index], mixed[other]] = [itemAt(mixed, other), itemAt(mixed, index)];
  }
  return mixed;
}
