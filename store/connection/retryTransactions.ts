import { setTimeout as pause } from 'node:timers/promises';
import type { Knex } from 'knex';

/**
 * Refusals that mean "not now": two transactions that waited for each other (1213), one that waited too long for a row
 * (1205), and those of a cluster whose nodes disagree for a moment (1047, 1180).
 */
const NOT_NOW: ReadonlySet<number> = new Set([1213, 1205, 1047, 1180]);
const MOST_TRIES = 12;
/** No transaction is tried again later than this. */
const BOUND_MS = 10_000;
const FIRST_PAUSE_MS = 8;
const LONGEST_PAUSE_MS = 400;

/** Whether the database refused something that it may take in a moment. */
export function isNotNow(error: unknown): boolean {
  return error instanceof Error && 'errno' in error && NOT_NOW.has(Number(error.errno));
}

/**
 * Does something again while the database says "not now", each time after a longer pause of random length, so that two
 * who collided do not collide again.
 *
 * @throws what it throws otherwise, or still after 12 tries or 10 s
 */
export async function retryNotNow<Result>(act: () => Promise<Result>, random = Math.random): Promise<Result> {
  const begun = Date.now();
  for (let tries = 1; ; tries++) {
    try {
      return await act();
    } catch (error) {
      if (!isNotNow(error) || tries >= MOST_TRIES || Date.now() - begun > BOUND_MS) throw error;
      const longest = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** tries);
      await pause(longest * (0.5 + random() / 2));
    }
  }
}

/** Has every transaction of a pool done again while the database says "not now". Those inside another are part of it. */
export function retryTransactions(db: Knex): Knex {
  const begin = db.transaction.bind(db) as (...given: unknown[]) => Promise<unknown>;
  const again = (...given: unknown[]) =>
    typeof given[0] === 'function' ? retryNotNow(() => begin(...given)) : begin(...given);
  return Object.defineProperty(db, 'transaction', { value: again, configurable: true });
}
