import type { Layer } from '#core/stack/layer.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { migrationSource } from '#store/migrations/listMigrations.ts';
import { addMaterial, listMaterials, type NewMaterial } from '#store/repositories/book/materials.ts';
import { addMachine, type NewMachine } from '#store/repositories/book/machines.ts';
import { mine } from '#store/tests/mine.ts';

/** Only for tests: what every store test starts from. */
export const url = mine('FEATHER_TEST_STORE_URL');

export const now = new Date('2026-03-04T10:00:00.123Z');
export const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
export const layer = (role: Layer['role'], caliperUm: number): Layer => ({
  role,
  caliperUm,
  isMeasured: true,
});
export const material: NewMaterial = {
  name: 'Ærø "glass" 雪',
  maker: 'O’Test',
  family: 'plainVinyl',
  finish: 'matt',
  colourName: 'white',
  colourHex: '#ffffff',
  darkness: 0.25,
  cautions: ['mind it'],
  conditions: [{ kind: 'bare', stack: [layer('face', 80), layer('adhesive', 25), layer('liner', 140)] }],
};
export const machine: NewMachine = {
  name: 'Test cutter',
  kind: 'rollFed',
  bedWidthMm: 300,
  bedLengthMm: 500,
  marginMm: 5,
  forceScale: { kind: 'gramForce', min: 10, max: 400, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 },
  accelerationMmPerS2: 2000,
  travelSpeedMmPerS: 300,
  numbersOwner: 'file',
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  link: { kind: 'none' },
};
const values: SettingValues = {
  force: 90,
  exposureMm: 0.35,
  speed: 200,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.5,
};
const sources = {
  force: 'testCuts',
  exposureMm: 'stack',
  speed: 'stack',
  passes: 'stack',
  offsetMm: 'blade',
  overcutMm: 'blade',
} as const;
export const revision = { values, sources, author: 'Ines', reason: 'because' };
/** A clean kiss cut; of which sheet on which machine is added. */
export const cut = {
  operation: 'kiss',
  force: 90,
  forceGf: 90,
  speedMmPerS: 200,
  passes: 1,
  exposureMm: 0.3,
  bladeMetres: 10,
  grade: 3,
  flaws: [],
  author: 'Ines',
} as const;

/** An empty, migrated store with one material and one machine. */
export interface TestStore {
  readonly db: Store;
  readonly conditionId: number;
  readonly machineId: number;
}

export async function openTestStore(): Promise<TestStore> {
  const db = connectStore(url);
  if (await isCurrent(db)) await emptyTables(db);
  else {
    await db.migrate.rollback({ migrationSource }, true);
    await db.migrate.latest({ migrationSource });
  }
  return { db, ...(await furnish(db)) };
}

/** Whether every migration there is has been applied, and none besides. */
async function isCurrent(db: Store): Promise<boolean> {
  if (!(await db.schema.hasTable('knex_migrations'))) return false;
  const [done, waiting] = (await db.migrate.list({ migrationSource })) as [unknown[], unknown[]];
  return done.length > 0 && waiting.length === 0;
}

/** Leaves every table as its migration made it: to make all of them anew takes a second and a half. */
async function emptyTables(db: Store): Promise<void> {
  const tables: { readonly name: string; readonly next: number | null }[] = await db
    .from('information_schema.tables')
    .whereRaw('table_schema = DATABASE()')
    .where({ table_type: 'BASE TABLE' })
    .whereNot('table_name', 'like', 'knex%')
    .select('table_name as name', 'auto_increment as next');
  await db.transaction(async (transaction) => {
    await transaction.raw('SET foreign_key_checks = 0');
    for (const { name } of tables) await transaction(name).delete();
    await transaction.raw('SET foreign_key_checks = 1');
  });
  for (const { name, next } of tables) {
    if ((next ?? 1) > 1) await db.raw('ALTER TABLE ?? AUTO_INCREMENT = 1', [name]);
  }
}

/** Adds the material and the machine of {@link TestStore}. */
export async function furnish(db: Store): Promise<Omit<TestStore, 'db'>> {
  await addMaterial(db, material, now);
  const conditionId = (await listMaterials(db))[0]?.conditions[0]?.id ?? 0;
  return { conditionId, machineId: await addMachine(db, machine, now) };
}

/** A row of `materials` as every version since 007 takes it. */
export const oldMaterialRow = {
  name: 'old film',
  maker: 'M',
  family: 'plainVinyl',
  finish: '',
  colour_name: '',
  colour_hex: '#ffffff',
  darkness: 0,
  cautions: '[]',
  details: '{}',
  created_at: now,
};
