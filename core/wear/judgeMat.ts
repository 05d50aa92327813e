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
  /** Loads until its tack is spent, washed as often as it needs. */
  readonly loadsLeft: number;
}

/**
 * Judges a mat by how much of its tack is lint, which washing brings back, and how much is gone for good.
 *
 * @example judgeMat({ tack: 'standard', uses: 0, ageDays: 0, usesSinceCleaned: 0 }).advice // 'good'
 */
export function judgeMat(wear: MatWear): JudgedMat {
  const now = tackIndex(wear);
  const washed = tackIndex({ ...wear, usesSinceCleaned: 0 });
  let loadsLeft = 0;
  while (
    loadsLeft < MOST_LOADS &&
    tackIndex({ ...wear, uses: wear.uses + loadsLeft, usesSinceCleaned: 0 }) > SPENT
  ) {
    loadsLeft += 1;
  }
  if (washed <= SPENT) {
    return { advice: 'restick', reason: 'its tack is gone, washing brings none back', loadsLeft: 0 };
  }
  if (washed - now >= WORTH_WASHING) {
    return { advice: 'wash', reason: `lint takes ${washed - now} of its tack`, loadsLeft };
  }
  if (wear.uses >= ROLL_AFTER) {
    return { advice: 'roll', reason: `${wear.uses} loads: roll every sheet down`, loadsLeft };
  }
  return { advice: 'good', reason: 'most of its tack is there', loadsLeft };
}
