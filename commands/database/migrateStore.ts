import { migrationSource } from '#store/migrations/listMigrations.ts';
import { refreshDerived } from '#store/repositories/dialIn/refreshDerived.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** Brings the tables up to date, and what is kept beside them for speed. */
export async function migrateUp(store: Store): Promise<void> {
  await store.migrate.latest({ migrationSource });
  await refreshDerived(store);
}

/** Takes every migration back, the newest first. */
export async function migrateDown(store: Store): Promise<void> {
  await store.migrate.rollback({ migrationSource }, true);
}
