import { z } from 'zod';
import type { Store } from '#store/connection/connectStore.ts';

/** That something was changed, for whoever looks at it. */
export interface Change {
  /** A kind and a number. */
  readonly topic: string;
  readonly author: string;
  /** The page that asked for it, or empty. */
  readonly page: string;
}

export interface KeptChange extends Change {
  readonly id: number;
}

const row = z.object({ id: z.coerce.number(), topic: z.string(), author: z.string(), page: z.string() });

/** Changes are told for so long, ms: longer than clocks of two servers differ and a transaction lasts. */
const TOLD_MS = 15_000;

/** Tells a change, once the transaction it is written in is kept. */
export async function addChange(db: Store, { topic, author, page }: Change, now: Date): Promise<void> {
  await db('changes').insert({ topic, author: author.slice(0, 60), page, at: now });
}

/**
 * The changes of the last seconds. Numbers are given out before a transaction is kept, so one may turn up behind others
 * that were told: who asks remembers which it has had.
 */
export async function listChanges(db: Store, now: Date): Promise<readonly KeptChange[]> {
  const rows: unknown[] = await db('changes')
    .where('at', '>', new Date(now.getTime() - TOLD_MS))
    .orderBy('id')
    .select('id', 'topic', 'author', 'page');
  return z.array(row).parse(rows);
}

/** Forgets what everybody was told. @returns how many */
export async function forgetChanges(db: Store, now: Date): Promise<number> {
  return db('changes')
    .where('at', '<', new Date(now.getTime() - 4 * TOLD_MS))
    .limit(5_000)
    .delete();
}
