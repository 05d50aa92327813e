import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { prepareStore, requireDemoStore } from '#commands/database/prepareStore.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { MIGRATIONS, migrationSource, migrationsUpTo } from '#store/migrations/listMigrations.ts';
import { markDemoStore, setTimeZone } from '#store/repositories/workshop/workshop.ts';
import { oldMaterialRow, openTestStore } from '#store/tests/testStore.ts';
import { mine } from '#store/tests/mine.ts';

/** The demo never writes into a store that is not its own. */
const url = mine('FEATHER_TEST_STORE_URL');
let db: Store;
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

it('a book that somebody keeps is refused, also one whose workshop has chosen its clock', async () => {
  await expect(requireDemoStore(url)).rejects.toThrow(/a book that the demo did not make/);
  await setTimeZone(db, 'Europe/Berlin');
  await expect(requireDemoStore(url)).rejects.toThrow(/a book that the demo did not make/);
});

it('its own is taken, and an empty database', async () => {
  await markDemoStore(db);
  await expect(requireDemoStore(url)).resolves.toBeUndefined();
  await db.migrate.rollback({ migrationSource }, true);
  await db.schema.dropTable('knex_migrations');
  await db.schema.dropTable('knex_migrations_lock');
  await expect(requireDemoStore(url)).resolves.toBeUndefined();
  await db.schema.createTable('theirs', (table) => table.integer('id'));
  await expect(requireDemoStore(url)).rejects.toThrow(/tables of something else/);
  await db.schema.dropTable('theirs');
});

it('a workshop’s book of an older version is copied before its tables change', async () => {
  const home = mkdtempSync(join(tmpdir(), 'feather-update-'));
  const scratchUrl = url.replace(/feather_scratch$/, 'feather');
  const address = { url, scratchUrl, isOwn: true };
  try {
    await db.migrate.latest({ migrationSource: migrationsUpTo(MIGRATIONS.length - 2) });
    await db('materials').insert(oldMaterialRow);
    const copy = await prepareStore(home, address, new Date());
    expect(copy).toMatch(/copies\/before-update-.*\.feather$/);
    expect(existsSync(copy as string)).toBe(true);
    expect(await db('knex_migrations')).toHaveLength(MIGRATIONS.length);
    expect(await db('materials').select('name')).toEqual([{ name: 'old film' }]);
    // Nothing changes a second time, so nothing is copied.
    expect(await prepareStore(home, address, new Date())).toBeNull();
  } finally {
    rmSync(home, { recursive: true });
  }
});
