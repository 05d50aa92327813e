import { mkdtempSync, readFileSync, rmSync, writeFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { backupTo, restoreFrom } from '#store/backup/backupFile.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { MIGRATIONS, migrationSource, migrationsUpTo } from '#store/migrations/listMigrations.ts';
import { listMaterials, addMaterial } from '#store/repositories/book/materials.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addTestCut, listTestCuts } from '#store/repositories/dialIn/testCuts.ts';
import { cut, material, now, oldMaterialRow, openTestStore, revision } from '#store/tests/testStore.ts';
import { mine } from '#store/tests/mine.ts';

/** A copy holds everything, is proven when it is made, and comes back as it was. */
const url = mine('FEATHER_TEST_STORE_URL');
const ownUrl = url.replace(/feather_scratch$/, 'feather');
const folder = mkdtempSync(join(tmpdir(), 'feather-copy-'));
const file = join(folder, 'sub', 'copy.feather');
let db: Store;
let facts: { conditionId: number; machineId: number };
beforeAll(async () => {
  const opened = await openTestStore();
  ({ db } = opened);
  facts = opened;
});
afterAll(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

describe('a whole copy', () => {
  it('made while others write is of one moment, and comes back row by row', async () => {
    const key = { ...facts, bladeKind: '45° fine', operation: 'kiss' } as const;
    await keepRevision(db, key, { ...revision, reason: 'Ærø "glass" 雪 \\ \u2028 \u0001' }, 0, now);
    await db('materials').update({ cautions: JSON.stringify(['a\nb', '\\"', "'; DROP TABLE x; --"]) });
    const before = await db.raw('SELECT * FROM setting_revisions').then(([rows]) => rows as unknown);
    let isWriting = true;
    const writer = (async () => {
      while (isWriting) await addTestCut(db, { ...cut, ...facts }, now);
    })();
    const sums = await backupTo(file, url, ownUrl, now);
    isWriting = false;
    await writer;
    const cuts = sums.find(({ table }) => table === 'test_cuts')!.rows;
    expect((await listTestCuts(db, null)).length).toBeGreaterThanOrEqual(cuts);
    // Everything is lost, and more.
    await db('test_cuts').delete();
    await db('setting_revisions').delete();
    await addMaterial(db, { ...material, name: 'too much' }, now);
    await restoreFrom(file, url, ownUrl);
    expect(await db.raw('SELECT * FROM setting_revisions').then(([rows]) => rows as unknown)).toEqual(before);
    expect(await listTestCuts(db, null)).toHaveLength(cuts);
    expect((await listMaterials(db)).map(({ name }) => name)).toEqual([material.name]);
  });

  it('that is damaged, cut off, foreign or newer changes nothing', async () => {
    const text = gunzipSync(readFileSync(file)).toString('utf8');
    const lines = text.trim().split('\n');
    const bad: Readonly<Record<string, string>> = {
      damaged: text.replace('"sha256":"', '"sha256":"0'),
      'cut off': lines.slice(0, -1).join('\n'),
      foreign: '{"hello":1}\n',
      newer: text.replace(`"${MIGRATIONS.at(-1)!.name}"`, `"${MIGRATIONS.at(-1)!.name}","999_tomorrow"`),
    };
    for (const [what, content] of Object.entries(bad)) {
      const path = join(folder, `${what}.feather`);
      writeFileSync(path, gzipSync(content));
      await expect(restoreFrom(path, url, ownUrl), what).rejects.toThrow(/damaged|cut off|no copy|newer/);
    }
    writeFileSync(join(folder, 'plain'), 'hello');
    await expect(restoreFrom(join(folder, 'plain'), url, ownUrl)).rejects.toThrow(/no copy/);
    await expect(restoreFrom(join(folder, 'none'), url, ownUrl)).rejects.toThrow(/no file/);
    expect(await listMaterials(db)).toHaveLength(1);
  });

  it('of an older version is brought up to date', async () => {
    const older = MIGRATIONS.length - 5;
    await db.migrate.rollback({ migrationSource }, true);
    await db.migrate.latest({ migrationSource: migrationsUpTo(older) });
    await db('materials').insert(oldMaterialRow);
    const old = join(folder, 'old.feather');
    await backupTo(old, url, ownUrl, now);
    await db.migrate.rollback({ migrationSource: migrationsUpTo(older) }, true);
    await restoreFrom(old, url, ownUrl);
    expect(await db('materials').select('name')).toEqual([{ name: 'old film' }]);
    expect(await db('knex_migrations').count({ n: '*' })).toEqual([{ n: MIGRATIONS.length }]);
    expect(existsSync(`${old}.part`)).toBe(false);
    // Every table is made, dropped and made again: a slow disk takes its time.
  });
});
