import { z } from 'zod';
import { GIVEN_ROLES, type GivenRole } from '#core/people/roles.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/log/audit.ts';

/** Somebody who may sign in, with what proves it. */
export interface Account {
  readonly id: number;
  readonly name: string;
  readonly role: GivenRole;
  readonly passwordHash: string | null;
  readonly pinHash: string | null;
}

const accountRow = z.object({
  id: z.number(),
  name: z.string(),
  role: z.enum(GIVEN_ROLES),
  password_hash: z.string().nullable(),
  pin_hash: z.string().nullable(),
});

function readAccount(row: unknown): Account {
  const { id, name, role, password_hash, pin_hash } = accountRow.parse(row);
  return { id, name, role, passwordHash: password_hash, pinHash: pin_hash };
}

/** Who works here under a name; `null` for nobody, and for who was put away. */
export async function findAccountByName(db: Store, name: string): Promise<Account | null> {
  const row: unknown = await db('operators').where({ name }).whereNull('put_away_at').first();
  return row ? readAccount(row) : null;
}

/** @throws AppError `notFound` for nobody, and for who was put away */
export async function findAccount(db: Store, id: number): Promise<Account> {
  const row: unknown = await db('operators').where({ id }).whereNull('put_away_at').first();
  if (!row) throw new AppError('notFound', `there is nobody with the number ${id}`);
  return readAccount(row);
}

/** Everybody who works here, by name. */
export async function listAccounts(db: Store): Promise<readonly Account[]> {
  const rows: readonly unknown[] = await db('operators').whereNull('put_away_at').orderBy('name');
  return rows.map(readAccount);
}

/** Whether somebody can sign in as owner. */
export async function hasOwner(db: Store): Promise<boolean> {
  const row: unknown = await db('operators')
    .where({ role: 'owner' })
    .whereNotNull('password_hash')
    .whereNull('put_away_at')
    .first('id');
  return row !== undefined;
}

/**
 * Makes the first owner: whoever works here under that name already, or somebody new.
 *
 * @param passwordHash PHC string of argon2id
 * @throws AppError `conflict` when there is an owner
 */
export async function makeFirstOwner(
  db: Store,
  name: string,
  passwordHash: string,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    // The only row of the workshop is the lock that a second owner waits for.
    await transaction('workshop').insert({ id: 1 }).onConflict('id').ignore();
    await transaction('workshop').where({ id: 1 }).forUpdate().first('id');
    if (await hasOwner(transaction)) throw new AppError('conflict', 'There is an owner already: sign in.');
    const made = { role: 'owner', password_hash: passwordHash, put_away_at: null };
    await transaction('operators')
      .insert({ name, ...made })
      .onConflict('name')
      .merge(made);
    const row: { readonly id: number } | undefined = await transaction('operators')
      .where({ name })
      .first('id');
    const id = row?.id ?? 0;
    const what = `${name} is the owner`;
    await addAudit(
      transaction,
      { entity: 'operator', entityId: id, action: 'change', what, author: name },
      now,
    );
    return id;
  });
}

/** What of an account changes. */
export interface AccountChange {
  readonly role?: GivenRole | undefined;
  /** PHC strings of argon2id; `null` takes it away. */
  readonly passwordHash?: string | undefined;
  readonly pinHash?: string | null | undefined;
}

/**
 * Changes what somebody may do, or what proves who they are. Where the role or the password changes, they are signed out
 * everywhere.
 *
 * @throws AppError `notFound`; `conflict` when nobody would be owner any more
 */
export async function changeAccount(
  db: Store,
  id: number,
  change: AccountChange,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const before = await findAccount(transaction, id);
    const { role, passwordHash, pinHash } = change;
    await transaction('operators')
      .where({ id })
      .update({
        role: role ?? before.role,
        password_hash: passwordHash ?? before.passwordHash,
        pin_hash: pinHash === undefined ? before.pinHash : pinHash,
      });
    await requireAnOwner(transaction, before.role === 'owner');
    const isOther = (role !== undefined && role !== before.role) || passwordHash !== undefined;
    if (isOther) await transaction('sessions').where({ operator_id: id }).delete();
    if (role !== undefined && role !== before.role)
      await transaction('tokens').where({ operator_id: id }).delete();
    const what = [
      role !== undefined && role !== before.role ? `role ${role} instead of ${before.role}` : '',
      passwordHash === undefined ? '' : 'a new password',
      pinHash === undefined ? '' : pinHash === null ? 'no PIN any more' : 'a new PIN',
    ].filter(Boolean);
    const said = `${before.name}: ${what.join(', ')}`;
    await addAudit(
      transaction,
      { entity: 'operator', entityId: id, action: 'change', what: said, author },
      now,
    );
  });
}

/** @throws AppError `conflict` where there was an owner and none is left */
export async function requireAnOwner(db: Store, wasOwner: boolean): Promise<void> {
  if (wasOwner && !(await hasOwner(db))) {
    throw new AppError('conflict', 'Somebody has to be owner: make another one first.');
  }
}
