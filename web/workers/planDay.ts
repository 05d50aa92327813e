import type { DayOrder } from '#core/prep/dayPlan.ts';
import { planDay, type PlannedDay } from '#core/prep/planDay.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/** A day to be put in order in a thread of its own. */
export interface DayQuestion {
  readonly id: number;
  readonly order: DayOrder;
}

export interface DayAnswer {
  readonly id: number;
  readonly plan: PlannedDay;
}

const SEED = 6;

self.onmessage = ({ data: { id, order } }: MessageEvent<DayQuestion>) => {
  const answer: DayAnswer = { id, plan: planDay(order, seededRandom(SEED)) };
  self.postMessage(answer);
};
