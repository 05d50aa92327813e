import { migrationSource } from '#store/migrations/listMigrations.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** Brings the tables up to date. */
export async function migrateUp(store: Store): Promise<void> {
  await store.migrate.latest({ migrationSource });
}

/** Takes every migration back, the newest first. */
export async function migrateDown(store: Store): Promise<void> {
  await store.migrate.rollback({ migrationSource }, true);
}
