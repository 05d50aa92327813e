import { expose } from 'comlink';
import type { DayOrder } from '#core/prep/dayPlan.ts';
import { planDay, type PlannedDay } from '#core/prep/planDay.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/** A day put in order in a thread of its own. */
export type OrderDay = (order: DayOrder) => PlannedDay;

const SEED = 6;

const orderDay: OrderDay = (order) => planDay(order, seededRandom(SEED));

expose(orderDay);
