import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { migrationSource, MIGRATIONS } from '#store/migrations/listMigrations.ts';
import { listLog } from '#store/repositories/log/log.ts';
import { addMaterial, findMaterialByCondition, listMaterials } from '#store/repositories/book/materials.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findSetting, listRevisions, listSettingsOf } from '#store/repositories/book/settings.ts';
import { changeStation, findStation, wearTools } from '#store/repositories/bench/stations.ts';
import { addBlade, addMat, listBlades } from '#store/repositories/bench/tools.ts';
import { addTestCut, listTestCuts, undoTestCut } from '#store/repositories/dialIn/testCuts.ts';
import {
  furnish,
  later,
  layer,
  machine,
  material,
  now,
  openTestStore,
  revision,
} from '#store/tests/testStore.ts';

let db: Store;
let conditionId: number;
let machineId: number;
const key = (operation: 'kiss' | 'through') => ({ conditionId, machineId, bladeKind: '45° fine', operation });

beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

describe('migrations', () => {
  it('go up, all the way down and up again', async () => {
    const tables = async () => ((await db.raw('SHOW TABLES')) as [unknown[]])[0].length;
    const before = await tables();
    await db.migrate.rollback({ migrationSource }, true);
    expect(await tables()).toBe(2);
    const [, ran] = (await db.migrate.latest({ migrationSource })) as [number, string[]];
    expect(ran).toHaveLength(MIGRATIONS.length);
    expect(await tables()).toBe(before);
    ({ conditionId, machineId } = await furnish(db));
  });

  it('refuse what does not fit a column instead of cutting it short', async () => {
    await expect(
      db('upkeep_entries').insert({ what: 'x'.repeat(301), author: 'a', at: now }),
    ).rejects.toThrow(/too long/i);
  });
});

describe('materials and stations', () => {
  it('come back as they went in, any script and quote included', async () => {
    const [kept] = await listMaterials(db);
    expect(kept).toMatchObject({
      ...material,
      conditions: [{ kind: 'bare', stack: material.conditions[0]!.stack }],
    });
    expect((await findMaterialByCondition(db, conditionId)).condition.stack).toHaveLength(3);
  });

  it('refuse a second one of the same name and an impossible stack, and keep nothing of it', async () => {
    await expect(addMaterial(db, material, now)).rejects.toMatchObject({ code: 'conflict' });
    const broken = {
      ...material,
      name: 'broken',
      conditions: [{ kind: 'bare' as const, stack: [layer('liner', 50)] }],
    };
    await expect(addMaterial(db, broken, now)).rejects.toMatchObject({ code: 'badInput' });
    expect(await listMaterials(db)).toHaveLength(1);
    await expect(addMachine(db, machine, now)).rejects.toMatchObject({ code: 'conflict' });
  });

  it('move a blade from one machine to another and write it down', async () => {
    const bladeId = await addBlade(db, {
      number: 7,
      kind: '45° fine',
      angleDeg: 45,
      offsetMm: 0.25,
      travelMetres: 5,
      lifeMetres: 300,
    });
    const matId = await addMat(db, { number: 1, tack: 'light', uses: 2, widthMm: 300, heightMm: 300 });
    const otherId = await addMachine(db, { ...machine, name: 'Other' }, now);
    await changeStation(db, otherId, { bladeId }, 'Ines', now);
    await changeStation(db, machineId, { bladeId, matId, conditionId, lot: 'L1' }, 'Ines', later(1));
    const station = await findStation(db, machineId);
    expect(station).toMatchObject({ blade: { number: 7 }, mat: { uses: 2 }, loaded: { lot: 'L1' } });
    expect((await findStation(db, otherId)).blade).toBeNull();
    expect((await listBlades(db))[0]?.fittedTo).toBe(machineId);
    const { blade, mat } = await findStation(db, machineId);
    await wearTools(db, { bladeId: blade?.id ?? null, matId: mat?.id ?? null, metres: 1.5 });
    expect(await findStation(db, machineId)).toMatchObject({
      blade: { travelMetres: 6.5 },
      mat: { uses: 3 },
    });
    expect((await listLog(db, 10)).filter((entry) => entry.kind === 'upkeep')).toHaveLength(2);
  });

  it('refuse what does not exist', async () => {
    await expect(findStation(db, 999)).rejects.toMatchObject({ code: 'notFound' });
    await expect(changeStation(db, machineId, { conditionId: 999 }, 'x', now)).rejects.toMatchObject({
      code: 'notFound',
    });
    await expect(changeStation(db, machineId, { bladeId: 999 }, 'x', now)).rejects.toMatchObject({
      code: 'notFound',
    });
  });
});

describe('test cuts', () => {
  it('are listed oldest first and can be taken back once, without vanishing from the log', async () => {
    const cut = {
      conditionId,
      machineId,
      operation: 'kiss',
      force: 90,
      forceGf: 90,
      speedMmPerS: 200,
      passes: 1,
      exposureMm: 0.35,
      bladeMetres: 5,
      grade: 3,
      flaws: ['fuzzy'],
      author: 'Tove',
    } as const;
    const second = await addTestCut(db, { ...cut, force: 95, forceGf: 95 }, later(2));
    await addTestCut(db, cut, later(1));
    expect((await listTestCuts(db, conditionId, machineId)).map((one) => one.force)).toEqual([90, 95]);
    await undoTestCut(db, second, later(3));
    expect(await listTestCuts(db, conditionId, machineId)).toHaveLength(1);
    await expect(undoTestCut(db, second, later(4))).rejects.toMatchObject({ code: 'notFound' });
    expect((await listLog(db, 50)).some((entry) => entry.detail.includes('taken back'))).toBe(true);
  });
});

describe('settings', () => {
  it('are kept as revisions; a second person who saw an older one is told and overwrites nothing', async () => {
    expect(await findSetting(db, key('kiss'))).toBeNull();
    expect(await keepRevision(db, key('kiss'), revision, 0, now)).toBe(1);
    await expect(
      keepRevision(db, key('kiss'), { ...revision, author: 'Tove' }, 0, now),
    ).rejects.toMatchObject({
      code: 'conflict',
      message: expect.stringContaining('Ines kept revision 1') as string,
    });
    expect(await keepRevision(db, key('kiss'), { ...revision, author: 'Tove' }, 1, later(1))).toBe(2);
    const kept = await findSetting(db, key('kiss'));
    expect(kept).toMatchObject({
      state: 'tried',
      revision: { revision: 2, author: 'Tove', at: later(1).toISOString() },
    });
    expect(await listRevisions(db, kept!.id)).toHaveLength(2);
  });

  it('let exactly one of ten people through who keep at the same moment', async () => {
    const tries = Array.from({ length: 10 }, (_, index) =>
      keepRevision(db, key('through'), { ...revision, author: `person ${index}` }, 0, now),
    );
    const results = await Promise.allSettled(tries);
    expect(results.filter((result) => result.status === 'fulfilled')).toHaveLength(1);
    expect(await listSettingsOf(db, [conditionId])).toHaveLength(2);
  });
});
