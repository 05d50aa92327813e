import { z } from 'zod';
import type { Store } from '#store/connection/connectStore.ts';

/** Somebody who looks at something at this moment, in one page of a browser. */
export interface Watcher {
  readonly id: string;
  /** The process that holds the line to it. */
  readonly server: string;
  readonly topic: string;
  readonly page: string;
  readonly name: string;
}

const row = z.object({ page: z.string(), name: z.string() });

/** Whose process says nothing for so long is not there any more, ms. */
const GONE_MS = 15_000;
/** So often a process says that its watchers are there, ms. */
export const BEAT_MS = 5_000;

export async function enterWatcher(db: Store, watcher: Watcher, now: Date): Promise<void> {
  await db('watchers').insert({ ...watcher, name: watcher.name.slice(0, 60), seen_at: now });
}

export async function leaveWatcher(db: Store, id: string): Promise<void> {
  await db('watchers').where({ id }).delete();
}

/** All of a process at once, and those of processes that are gone are taken out. */
export async function beatWatchers(db: Store, server: string, now: Date): Promise<void> {
  await db('watchers').where({ server }).update({ seen_at: now });
  await db('watchers')
    .where('seen_at', '<', new Date(now.getTime() - 4 * GONE_MS))
    .delete();
}

/** Who looks at something, by name. */
export async function listWatchers(
  db: Store,
  topic: string,
  now: Date,
): Promise<readonly Pick<Watcher, 'page' | 'name'>[]> {
  const rows: unknown[] = await db('watchers')
    .where({ topic })
    .where('seen_at', '>', new Date(now.getTime() - GONE_MS))
    .orderBy('name')
    .select('page', 'name');
  return z.array(row).parse(rows);
}
