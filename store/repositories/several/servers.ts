import type { Store } from '#store/connection/connectStore.ts';

/** A process that serves the workshop. */
export interface ServerFacts {
  readonly id: string;
  readonly host: string;
  readonly pid: number;
}

/** A server that says nothing for so long does not count as one that is there, s. */
const THERE_S = 15;
const FORGET_S = 600;

/** Says that a server is there. @returns how many others are */
export async function seeServer(db: Store, { id, host, pid }: ServerFacts): Promise<number> {
  await db('servers')
    .insert({ id, host, pid, seen_at: db.raw('NOW(3)') })
    .onConflict('id')
    .merge(['seen_at']);
  const [row] = (await db('servers')
    .whereNot({ id })
    .whereRaw(`seen_at > NOW(3) - INTERVAL ${THERE_S} SECOND`)
    .count({ others: '*' })) as unknown as readonly [{ others: number | string }];
  return Number(row.others);
}

/** Other servers that ran on a computer, those that were there lately. */
export async function listServersOn(db: Store, host: string, but: string): Promise<readonly ServerFacts[]> {
  return (await db('servers')
    .where({ host })
    .whereNot({ id: but })
    .select('id', 'host', 'pid')) as ServerFacts[];
}

export async function forgetServers(db: Store, ids: readonly string[]): Promise<void> {
  await db('servers')
    .whereIn('id', [...ids])
    .delete();
  await db('servers').whereRaw(`seen_at < NOW(3) - INTERVAL ${FORGET_S} SECOND`).delete();
}
