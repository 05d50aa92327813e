import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { isTimeZone } from '#core/time/workshopTime.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/log/audit.ts';
import { hasOwner, requireAnOwner } from '#store/repositories/people/accounts.ts';
import { insertUnique } from '#store/repositories/workshop/insertUnique.ts';

/** Somebody who works at the bench and signs what is kept. */
export interface Operator {
  readonly id: number;
  readonly name: string;
  readonly isPutAway: boolean;
}

const operatorRow = z.object({ id: z.number(), name: z.string(), put_away_at: z.date().nullable() });
const ONLY = 1;

/** People by name; those put away only when asked for. */
export async function listOperators(db: Store, withPutAway = false): Promise<readonly Operator[]> {
  const rows = db('operators').orderBy('name');
  if (!withPutAway) void rows.whereNull('put_away_at');
  return z
    .array(operatorRow)
    .parse(await rows)
    .map(({ id, name, put_away_at }) => ({ id, name, isPutAway: put_away_at !== null }));
}

/** Adds somebody, or brings back who was put away. Returns their id. @throws AppError `conflict` for a name that is there */
export async function addOperator(db: Store, name: string, author: string, now: Date): Promise<number> {
  return db.transaction(async (transaction) => {
    const known: { id: number } | undefined = await transaction('operators')
      .where({ name })
      .whereNotNull('put_away_at')
      .first('id');
    const id = known
      ? known.id
      : await insertUnique(transaction, 'operators', `${name} works here already`, { name });
    if (known) await transaction('operators').where({ id }).update({ put_away_at: null });
    const what = `${name} works here`;
    await addAudit(transaction, { entity: 'operator', entityId: id, action: 'add', what, author }, now);
    return id;
  });
}

/** Puts somebody away: what they signed stays signed. @throws AppError `notFound` */
export async function putOperatorAway(db: Store, id: number, author: string, now: Date): Promise<void> {
  await db.transaction(async (transaction) => {
    const known: { name: string } | undefined = await transaction('operators').where({ id }).first('name');
    if (!known) throw new AppError('notFound', `there is nobody with the number ${id}`);
    const wasOwner = await hasOwner(transaction);
    await transaction('operators').where({ id }).update({ put_away_at: now });
    await requireAnOwner(transaction, wasOwner);
    await transaction('sessions').where({ operator_id: id }).delete();
    await transaction('tokens').where({ operator_id: id }).delete();
    const what = `${known.name} put away`;
    await addAudit(transaction, { entity: 'operator', entityId: id, action: 'archive', what, author }, now);
  });
}

/** The zone that days and clocks of the workshop are in; `null` before one was chosen. */
export async function findTimeZone(db: Store): Promise<string | null> {
  const row: { time_zone: string | null } | undefined = await db('workshop')
    .where({ id: ONLY })
    .first('time_zone');
  return row?.time_zone ?? null;
}

/** Whether this store was made by the demo. */
export async function isDemoStore(db: Store): Promise<boolean> {
  const row: { is_demo: number } | undefined = await db('workshop').where({ id: ONLY }).first('is_demo');
  return row?.is_demo === 1;
}

/** Marks a store as made by the demo. */
export async function markDemoStore(db: Store): Promise<void> {
  await db('workshop').insert({ id: ONLY, is_demo: true }).onConflict('id').merge(['is_demo']);
}

/** @throws AppError `badInput` for what is no zone */
export async function setTimeZone(db: Store, zone: string): Promise<void> {
  if (!isTimeZone(zone)) throw new AppError('badInput', `"${zone}" is no time zone, such as Europe/Berlin`);
  await db('workshop').insert({ id: ONLY, time_zone: zone }).onConflict('id').merge(['time_zone']);
}

/** A workshop that never cuts again what could spoil something would cut nothing. */
const MOST_HARM_CUTS = 50;

/** What a cut liner or a scarred mat costs, in test cuts; `null` where nobody has said. */
export async function findHarmCuts(db: Store): Promise<number | null> {
  const row: { harm_cuts: number | null } | undefined = await db('workshop')
    .where({ id: ONLY })
    .first('harm_cuts');
  return row?.harm_cuts ?? null;
}

/** @throws AppError `badInput` for what is no price */
export async function setHarmCuts(db: Store, harmCuts: number): Promise<void> {
  if (!(harmCuts >= 0 && harmCuts <= MOST_HARM_CUTS)) {
    throw new AppError('badInput', `from 0 to ${MOST_HARM_CUTS} test cuts, not ${harmCuts}`);
  }
  await db('workshop').insert({ id: ONLY, harm_cuts: harmCuts }).onConflict('id').merge(['harm_cuts']);
}
