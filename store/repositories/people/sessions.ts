import { z } from 'zod';
import { GIVEN_ROLES, type GivenRole } from '#core/people/roles.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { flagColumn } from '#store/rows/jsonColumn.ts';

/** Where somebody is signed in. */
export interface Session {
  readonly id: number;
  readonly operatorId: number;
  readonly name: string;
  readonly role: GivenRole;
  readonly isByPin: boolean;
  readonly begunAt: Date;
  readonly rotatedAt: Date;
  readonly seenAt: Date;
}

const sessionRow = z.object({
  id: z.number(),
  operator_id: z.number(),
  name: z.string(),
  role: z.enum(GIVEN_ROLES),
  is_by_pin: flagColumn,
  begun_at: z.date(),
  rotated_at: z.date(),
  seen_at: z.date(),
});

/** A rotated key still opens for so long: what the browser asked at the same moment carries it, ms. */
const OVERLAP_MS = 60_000;

function readSession(row: unknown): Session {
  const read = sessionRow.parse(row);
  return {
    id: read.id,
    operatorId: read.operator_id,
    name: read.name,
    role: read.role,
    isByPin: read.is_by_pin,
    begunAt: read.begun_at,
    rotatedAt: read.rotated_at,
    seenAt: read.seen_at,
  };
}

/** @param hash of what the browser shows, hex @returns `null` for none, and for one of somebody who was put away */
export async function findSession(db: Store, hash: string, now: Date): Promise<Session | null> {
  const row: unknown = await db('sessions')
    .join('operators', 'operators.id', 'sessions.operator_id')
    .whereNull('operators.put_away_at')
    .where((either) =>
      either
        .where({ hash })
        .orWhere((before) =>
          before
            .where({ previous_hash: hash })
            .where('rotated_at', '>', new Date(now.getTime() - OVERLAP_MS)),
        ),
    )
    .first('sessions.*', 'operators.name', 'operators.role');
  return row ? readSession(row) : null;
}

interface NewSession {
  readonly operatorId: number;
  readonly hash: string;
  readonly isByPin: boolean;
  readonly browser: string;
}

export async function addSession(
  db: Store,
  { operatorId, hash, isByPin, browser }: NewSession,
  now: Date,
): Promise<void> {
  await db('sessions').insert({
    operator_id: operatorId,
    hash,
    is_by_pin: isByPin,
    begun_at: now,
    rotated_at: now,
    seen_at: now,
    browser: browser.slice(0, 200),
  });
}

/** Gives a session another key, unless somebody did meanwhile. @returns whether it was done */
export async function rotateSession(
  db: Store,
  { id, rotatedAt }: Session,
  hash: string,
  now: Date,
): Promise<boolean> {
  const changed = await db('sessions')
    .where({ id, rotated_at: rotatedAt })
    .update({ previous_hash: db.ref('hash'), hash, rotated_at: now });
  return changed === 1;
}

export async function touchSession(db: Store, id: number, now: Date): Promise<void> {
  await db('sessions').where({ id }).update({ seen_at: now });
}

export async function endSession(db: Store, id: number): Promise<void> {
  await db('sessions').where({ id }).delete();
}

/** Ends every session of somebody. @returns how many */
export async function endSessionsOf(db: Store, operatorId: number): Promise<number> {
  return db('sessions').where({ operator_id: operatorId }).delete();
}

/** Where somebody is signed in, the last seen first. */
export async function listSessions(
  db: Store,
  operatorId: number,
): Promise<readonly { readonly id: number; readonly browser: string; readonly seenAt: string }[]> {
  const rows: readonly { id: number; browser: string; seen_at: Date }[] = await db('sessions')
    .where({ operator_id: operatorId })
    .orderBy('seen_at', 'desc')
    .select('id', 'browser', 'seen_at');
  return rows.map(({ id, browser, seen_at }) => ({ id, browser, seenAt: seen_at.toISOString() }));
}

/** Whether a session was not ended, nor its owner put away. */
export async function isSessionThere(db: Store, id: number): Promise<boolean> {
  const row: unknown = await db('sessions')
    .join('operators', 'operators.id', 'sessions.operator_id')
    .whereNull('operators.put_away_at')
    .where('sessions.id', id)
    .first('sessions.id');
  return row !== undefined;
}
