import { z } from 'zod';
import { retryNotNow } from '#store/connection/retryTransactions.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** A lease is good for so long after it was last renewed, s. By the clock of the database: servers' own may differ. */
export const LEASE_S = 4;

const until = (db: Store) => db.raw(`NOW(3) + INTERVAL ${LEASE_S} SECOND`);
const leaseRow = z.object({ holder: z.string(), fence: z.coerce.number() });

/** Where a driven run is, as its driver saw it last. */
export const sightSchema = z.object({
  head: z.object({ x: z.number(), y: z.number(), stroke: z.number() }).nullable(),
  outTo: z.number().nullable(),
});
export type RunSight = z.infer<typeof sightSchema>;
const sightRow = z.object({ sight: jsonColumn(sightSchema).nullable() });

/**
 * Takes the lease of a run: a free one, one whose holder let it run out, or one's own again.
 *
 * @returns its fencing number, or `null` while another server holds it
 */
export async function takeLease(db: Store, runId: number, holder: string): Promise<number | null> {
  // Each assignment sees those before it (MariaDB evaluates them from left to right).
  await retryNotNow(() =>
    db.raw(
      `INSERT INTO run_leases (run_id, holder, fence, until) VALUES (?, ?, 1, NOW(3) + INTERVAL ${LEASE_S} SECOND)
       ON DUPLICATE KEY UPDATE
         fence = IF(until < NOW(3), fence + 1, fence),
         holder = IF(until < NOW(3), VALUES(holder), holder),
         until = IF(holder = VALUES(holder), VALUES(until), until)`,
      [runId, holder],
    ),
  );
  const row = leaseRow.parse(await db('run_leases').where({ run_id: runId }).first('holder', 'fence'));
  return row.holder === holder ? row.fence : null;
}

/** @returns whether it was still one's own */
export async function renewLease(
  db: Store,
  runId: number,
  { holder, fence, sight }: { holder: string; fence: number; sight: RunSight },
): Promise<boolean> {
  const renewed = await db('run_leases')
    .where({ run_id: runId, holder, fence })
    .update({ until: until(db), sight: JSON.stringify(sight) });
  return renewed === 1;
}

/** Lets a run go, so that the next who is asked of it takes it at once. */
export async function releaseLease(db: Store, runId: number, holder: string): Promise<void> {
  await db('run_leases')
    .where({ run_id: runId, holder })
    .update({ until: db.raw('NOW(3) - INTERVAL 1 SECOND') });
}

/** Lets go all that a process held which is known to be gone. */
export async function releaseLeasesOf(db: Store, holders: readonly string[]): Promise<void> {
  if (holders.length === 0) return;
  await db('run_leases')
    .whereIn('holder', [...holders])
    .update({ until: db.raw('NOW(3) - INTERVAL 1 SECOND') });
}

/** What a run's driver saw last; `null` while nobody drives it. */
export async function findSight(db: Store, runId: number): Promise<RunSight | null> {
  const row: unknown = await db('run_leases')
    .where({ run_id: runId })
    .whereRaw('until > NOW(3)')
    .first('sight');
  return row ? sightRow.parse(row).sight : null;
}
