import { z } from 'zod';
import { retryNotNow } from '#store/connection/retryTransactions.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** Who fits the book says so anew within this time, s, or another takes it up. By the clock of the database. */
const CLAIM_S = 15;
const ONLY = 1;
const refitRow = z.object({
  asked: z.coerce.number(),
  done: z.coerce.number(),
  holder: z.string().nullable(),
});

/** Where the fits of the book stand, counted by what was asked for. */
export type RefitCount = Pick<z.infer<typeof refitRow>, 'asked' | 'done'>;

const until = (db: Store) => db.raw(`NOW(3) + INTERVAL ${CLAIM_S} SECOND`);

/** Asks for a fit of the book as it is now. @returns the number of the asking: it is done when `done` has come to it */
export async function askRefit(db: Store): Promise<number> {
  await retryNotNow(() =>
    db.raw(
      'INSERT INTO refits (id, asked, done) VALUES (?, 1, 0) ON DUPLICATE KEY UPDATE asked = asked + 1',
      [ONLY],
    ),
  );
  return (await read(db)).asked;
}

/**
 * Takes the fitting of the book upon oneself, where nobody is at it.
 *
 * @returns what was asked for until now, or `null` while another server is at it
 */
export async function claimRefit(db: Store, holder: string): Promise<RefitCount | null> {
  await retryNotNow(() =>
    db('refits')
      .where({ id: ONLY })
      .where((free) => free.whereNull('until').orWhereRaw('until < NOW(3)').orWhere({ holder }))
      .update({ holder, until: until(db) }),
  );
  const row = await read(db);
  return row.holder === holder ? row : null;
}

/** Says that one is still at it. */
export async function renewRefit(db: Store, holder: string): Promise<void> {
  await db('refits')
    .where({ id: ONLY, holder })
    .update({ until: until(db) });
}

/** Lets it go. @param done what was asked up to this number was seen; left out, nothing was */
export async function releaseRefit(db: Store, holder: string, done = 0): Promise<void> {
  await retryNotNow(() =>
    db('refits')
      .where({ id: ONLY, holder })
      .update({ holder: null, until: null, done: db.raw('GREATEST(done, ?)', [done]) }),
  );
}

async function read(db: Store): Promise<z.infer<typeof refitRow>> {
  return refitRow.parse(await db('refits').where({ id: ONLY }).first('asked', 'done', 'holder'));
}
