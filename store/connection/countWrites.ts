import type { Knex } from 'knex';

const WRITES = /^\s*(insert|update|delete|replace)\b/i;
/** Who looks at what, and what screens are told, stands on no page. */
const UNSHOWN = /^\s*\w+\s+(?:into\s+|from\s+)?`(changes|watchers|servers|run_leases|run_orders|refits)`/i;

/**
 * Counts what is written through a pool: what was made at a count is still right at the same count, as far as this
 * process writes. A transaction counts again when it is over, for only then others see it.
 *
 * @param onWrite told after each
 * @returns the count so far
 */
export function countWrites(db: Knex, onWrite: () => void = () => undefined): () => number {
  let count = 0;
  const bump = () => {
    count += 1;
    onWrite();
  };
  db.on('query-response', (_: unknown, { sql }: { readonly sql?: string }) => {
    if (sql && WRITES.test(sql) && !UNSHOWN.test(sql)) bump();
  });
  const begin = db.transaction.bind(db) as (...given: unknown[]) => Promise<unknown>;
  const counted = async (...given: unknown[]) => {
    const before = count;
    try {
      return await begin(...given);
    } finally {
      if (count !== before) bump();
    }
  };
  Object.defineProperty(db, 'transaction', { value: counted, configurable: true });
  return () => count;
}
