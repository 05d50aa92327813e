import { z } from 'zod';
import type { Store } from '#store/connection/connectStore.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';

/** Something that a server asks of the one that drives a run. */
export interface WaitingOrder {
  readonly id: string;
  readonly runId: number;
  /** As it was asked, JSON. */
  readonly wanted: unknown;
  readonly author: string;
}

/** Orders are of this minute. */
const KEPT_S = 60;
/** One that nobody took up for so long is given up by who asked, s. */
export const ORDER_S = 12;

const row = z.object({
  id: z.string(),
  run_id: z.number(),
  wanted: jsonColumn(z.unknown()),
  author: z.string(),
});
const answerRow = z.object({ answer: jsonColumn(z.unknown()).nullable() });

export async function addOrder(db: Store, { id, runId, wanted, author }: WaitingOrder): Promise<void> {
  await db('run_orders')
    .where('at', '<', db.raw(`NOW(3) - INTERVAL ${KEPT_S} SECOND`))
    .delete();
  await db('run_orders').insert({
    id,
    run_id: runId,
    wanted: JSON.stringify(wanted),
    author: author.slice(0, 60),
    at: db.raw('NOW(3)'),
  });
}

/** Orders for runs that wait for an answer and are still wanted, the first asked first. */
export async function listOrders(db: Store, runIds: readonly number[]): Promise<readonly WaitingOrder[]> {
  if (runIds.length === 0) return [];
  const rows: unknown[] = await db('run_orders')
    .whereIn('run_id', [...runIds])
    .whereNull('answer')
    .where('at', '>', db.raw(`NOW(3) - INTERVAL ${ORDER_S} SECOND`))
    .orderBy('at');
  return z
    .array(row)
    .parse(rows)
    .map(({ id, run_id, wanted, author }) => ({
      id,
      runId: run_id,
      wanted,
      author,
    }));
}

/** Answers an order once. @returns whether it was still waiting: who asked may have taken it back */
export async function answerOrder(db: Store, id: string, answer: unknown): Promise<boolean> {
  const answered = await db('run_orders')
    .where({ id })
    .whereNull('answer')
    .update({ answer: JSON.stringify(answer) });
  return answered === 1;
}

/** The answer to an order, or `null` while there is none. */
export async function findAnswer(db: Store, id: string): Promise<unknown> {
  const found: unknown = await db('run_orders').where({ id }).first('answer');
  return found ? answerRow.parse(found).answer : null;
}
