import { learnLife } from '#core/wear/learnLife.ts';
import { tackIndex, type MatWear } from '#core/wear/tackIndex.ts';

/** What to do with a mat. */
export type MatAdvice = 'good' | 'wash' | 'roll' | 'restick';

/** Loads after which every sheet is rolled down. Common practice, no source (T14). */
const ROLL_AFTER = 20;
/** Below this index little holds on it. Common practice, no source. */
const SPENT = 25;
/** Washing is worth its while when it brings back so much. */
const WORTH_WASHING = 6;
/** A mat is looked ahead for at most so many loads. */
const MOST_LOADS = 200;

/** A mat judged: what to do now, and how many loads it still has before it is spent. */
export interface JudgedMat {
  readonly advice: MatAdvice;
  readonly reason: string;
  /** Loads until its tack is spent, washed as often as it needs: in eight cases of ten between these. */
  readonly loadsLeft: { readonly low: number; readonly high: number };
  /** Mats of its class that were given up here: what the loads are learnt from. */
  readonly changes: number;
}

/**
 * Judges a mat by how much of its tack is lint, which washing brings back, and how much is gone for good.
 *
 * @param givenUpAt loads after which mats of its class were re-stuck or retired here
 * @example judgeMat({ tack: 'standard', uses: 0, ageDays: 0, usesSinceCleaned: 0 }).advice // 'good'
 */
export function judgeMat(wear: MatWear, givenUpAt: readonly number[] = []): JudgedMat {
  const now = tackIndex(wear);
  const washed = tackIndex({ ...wear, usesSinceCleaned: 0 });
  const fresh = loadsUntilSpent({ ...wear, uses: 0, ageDays: 0, feltShare: null });
  const life = learnLife(fresh, givenUpAt);
  // What loads and age have taken so far, in loads of a mat that is as usual.
  const spent = fresh - loadsUntilSpent(wear);
  const left = (most: number) => Math.max(0, Math.round(most - spent));
  const told = { loadsLeft: { low: left(life.low), high: left(life.high) }, changes: life.changes };
  if (washed <= SPENT || told.loadsLeft.high === 0) {
    const none = { ...told, loadsLeft: { low: 0, high: 0 } };
    const reason =
      washed <= SPENT
        ? 'its tack is gone, washing brings none back'
        : 'mats like it were given up sooner here';
    return { advice: 'restick', reason, ...none };
  }
  if (washed - now >= WORTH_WASHING) {
    return { advice: 'wash', reason: `lint takes ${washed - now} of its tack`, ...told };
  }
  if (wear.uses >= ROLL_AFTER) {
    return { advice: 'roll', reason: `${wear.uses} loads: roll every sheet down`, ...told };
  }
  return { advice: 'good', reason: 'most of its tack is there', ...told };
}

/** Loads until the tack of a mat that is always washed is spent. */
function loadsUntilSpent(wear: MatWear): number {
  let loads = 0;
  while (loads < MOST_LOADS && tackIndex({ ...wear, uses: wear.uses + loads, usesSinceCleaned: 0 }) > SPENT) {
    loads += 1;
  }
  return loads;
}
