import { nameCopy } from '#commands/database/copies.ts';
import { requireScratch, type StoreAddress } from '#commands/database/databaseUrl.ts';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { backupTo } from '#store/backup/backupFile.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { withStore } from '#store/connection/withStore.ts';
import { MIGRATIONS } from '#store/migrations/listMigrations.ts';
import { isDemoStore } from '#store/repositories/workshop/workshop.ts';

/** Brings a workshop's store to the newest shape, after a copy of what is there. @returns the file of that copy, if one was made */
export async function prepareStore(home: string, address: StoreAddress, now: Date): Promise<string | null> {
  return withStore(address.url, async (store) => {
    const done = await listDone(store);
    if (done.some((name) => !MIGRATIONS.some((one) => one.name === name))) {
      throw new Error('This book was kept by a newer Pale Feather. Bring the application up to date.');
    }
    let copy: string | null = null;
    if (done.length > 0 && done.length < MIGRATIONS.length) {
      copy = nameCopy(home, 'before-update', now);
      await requireScratch(address);
      await backupTo(copy, address.url, address.scratchUrl, now);
    }
    await migrateUp(store);
    return copy;
  });
}

/**
 * Whether the demo may fill a store: it is empty, or the demo made it.
 *
 * @throws Error in plain words when it holds somebody's book
 */
export async function requireDemoStore(url: string): Promise<void> {
  await withStore(url, async (store) => {
    const done = await listDone(store);
    if (done.length === 0) {
      if (await hasTables(store)) {
        throw new Error('That database holds tables of something else. The demo only fills an empty one.');
      }
      return;
    }
    const isMarked = done.includes('033_workshop') && (await isDemoStore(store));
    if (isMarked) return;
    throw new Error(
      'That database holds a book that the demo did not make, and the demo never writes into one. Use ./feather start for it, or give the demo a database of its own.',
    );
  });
}

async function listDone(store: Store): Promise<readonly string[]> {
  if (!(await store.schema.hasTable('knex_migrations'))) return [];
  const rows: { name: string }[] = await store('knex_migrations').orderBy('id').select('name');
  return rows.map(({ name }) => name);
}

async function hasTables(store: Store): Promise<boolean> {
  const [rows] = (await store.raw(
    'SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() LIMIT 1',
  )) as [unknown[]];
  return rows.length > 0;
}
