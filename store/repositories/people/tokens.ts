import { z } from 'zod';
import { GIVEN_ROLES, type GivenRole } from '#core/people/roles.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** What a script signs with, as its owner sees it. */
export interface Token {
  readonly id: number;
  readonly name: string;
  readonly role: GivenRole;
  readonly madeBy: string;
  readonly madeAt: string;
  readonly usedAt: string | null;
}

const tokenRow = z.object({
  id: z.number(),
  name: z.string(),
  role: z.enum(GIVEN_ROLES),
  made_by: z.string(),
  made_at: z.date(),
  used_at: z.date().nullable(),
});

function readToken(row: unknown): Token {
  const { id, name, role, made_by, made_at, used_at } = tokenRow.parse(row);
  return {
    id,
    name,
    role,
    madeBy: made_by,
    madeAt: made_at.toISOString(),
    usedAt: used_at?.toISOString() ?? null,
  };
}

function tokens(db: Store) {
  return db('tokens')
    .join('operators', 'operators.id', 'tokens.operator_id')
    .whereNull('operators.put_away_at')
    .select('tokens.id', 'tokens.name', 'tokens.role', 'made_at', 'used_at', { made_by: 'operators.name' });
}

export async function listTokens(db: Store): Promise<readonly Token[]> {
  const rows: readonly unknown[] = await tokens(db).orderBy('tokens.id');
  return rows.map(readToken);
}

/** @param hash of what the script shows, hex */
export async function findToken(db: Store, hash: string): Promise<Token | null> {
  const row: unknown = await tokens(db).where('tokens.hash', hash).first();
  return row ? readToken(row) : null;
}

interface NewToken {
  readonly operatorId: number;
  readonly name: string;
  readonly role: GivenRole;
  readonly hash: string;
}

export async function addToken(
  db: Store,
  { operatorId, name, role, hash }: NewToken,
  now: Date,
): Promise<number> {
  const [id] = await db('tokens').insert({ operator_id: operatorId, name, role, hash, made_at: now });
  return id ?? 0;
}

export async function markTokenUsed(db: Store, id: number, now: Date): Promise<void> {
  await db('tokens').where({ id }).update({ used_at: now });
}

/** @throws AppError `notFound` */
export async function removeToken(db: Store, id: number): Promise<void> {
  const gone = await db('tokens').where({ id }).delete();
  if (gone === 0) throw new AppError('notFound', `there is no token ${id}`);
}

/** Whether a token was not taken back, nor its owner put away. */
export async function isTokenThere(db: Store, id: number): Promise<boolean> {
  return (await tokens(db).where('tokens.id', id).first()) !== undefined;
}
