import type { Store } from '#store/connection/connectStore.ts';

/** Whether hands change by a PIN at a browser. @param hash of what it shows, hex */
export async function isTrustedBench(db: Store, hash: string): Promise<boolean> {
  return (await db('trusted_benches').where({ hash }).first('id')) !== undefined;
}

export async function trustBench(db: Store, hash: string, author: string, now: Date): Promise<void> {
  await db('trusted_benches').insert({ hash, trusted_by: author, trusted_at: now });
}

/** Trusts no browser any more. @returns how many there were */
export async function distrustBenches(db: Store): Promise<number> {
  return db('trusted_benches').delete();
}
