import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Layer } from '#core/stack/layer.ts';
import type { SettingValues } from '#core/setting/setting.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { migrationSource, MIGRATIONS } from '#store/migrations/listMigrations.ts';
import { addJob, changeJob, findJob, listJobs } from '#store/repositories/jobs.ts';
import { findGoingRuns } from '#store/repositories/goingRuns.ts';
import { listLog } from '#store/repositories/log.ts';
import {
  addMaterial,
  findMaterialByCondition,
  listMaterials,
  type NewMaterial,
} from '#store/repositories/materials.ts';
import {
  addRun,
  addStrokeOutcome,
  findRun,
  giveUpUnfinishedRuns,
  noteRun,
  setRunState,
} from '#store/repositories/runs.ts';
import { findSetting, keepRevision, listRevisions, listSettings } from '#store/repositories/settings.ts';
import {
  addBlade,
  addMachine,
  addMat,
  changeStation,
  findStation,
  listBlades,
  wearStation,
  type NewMachine,
} from '#store/repositories/stations.ts';
import { addTestCut, listTestCuts, undoTestCut } from '#store/repositories/testCuts.ts';

const url = process.env['FEATHER_TEST_STORE_URL'];
if (!url) throw new Error('FEATHER_TEST_STORE_URL is not set; run the tests with ./feather test');

const now = new Date('2026-03-04T10:00:00.123Z');
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
const layer = (role: Layer['role'], caliperUm: number): Layer => ({ role, caliperUm, isMeasured: true });
const material: NewMaterial = {
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
const machine: NewMachine = {
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
  hpglUnitsPerMm: 40,
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
const revision = { values, sources, author: 'Ines', reason: 'because' };

let db: Store;
let conditionId: number;
let machineId: number;
const key = (operation: 'kiss' | 'through') => ({ conditionId, machineId, bladeKind: '45° fine', operation });

beforeAll(async () => {
  db = connectStore(url);
  await db.migrate.rollback({ migrationSource }, true);
  await db.migrate.latest({ migrationSource });
  await addMaterial(db, material, now);
  conditionId = (await listMaterials(db))[0]!.conditions[0]!.id;
  machineId = await addMachine(db, machine, now);
});
afterAll(() => db.destroy());

describe('migrations', () => {
  it('go up, all the way down and up again', async () => {
    const other = connectStore(url);
    const tables = async () => ((await other.raw('SHOW TABLES')) as [unknown[]])[0].length;
    const before = await tables();
    await other.migrate.rollback({ migrationSource }, true);
    expect(await tables()).toBe(2);
    const [, ran] = (await other.migrate.latest({ migrationSource })) as [number, string[]];
    expect(ran).toHaveLength(MIGRATIONS.length);
    expect(await tables()).toBe(before);
    await other.destroy();
    await addMaterial(db, material, now);
    conditionId = (await listMaterials(db))[0]!.conditions[0]!.id;
    machineId = await addMachine(db, machine, now);
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
    await wearStation(db, machineId, 1.5);
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
    expect(await listSettings(db)).toHaveLength(2);
  });
});

describe('jobs and runs', () => {
  const job = () => ({
    name: 'Gulls',
    svg: '<svg/>',
    roles: { '|#000000': 'kiss' as const },
    areRolesGuessed: true,
    sheet: { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 5 },
    placement: { xMm: 5, yMm: 5 },
    conditionId,
    machineId,
  });

  it('count versions, so that the slower of two editors is told', async () => {
    const id = await addJob(db, job(), now);
    await changeJob(db, id, { roles: { '|#000000': 'through' } }, 1, later(1));
    expect(await findJob(db, id)).toMatchObject({
      version: 2,
      areRolesGuessed: false,
      roles: { '|#000000': 'through' },
    });
    await expect(changeJob(db, id, { name: 'Other' }, 1, later(2))).rejects.toMatchObject({
      code: 'conflict',
    });
    expect((await findJob(db, id)).name).toBe('Gulls');
    await expect(changeJob(db, 999, { name: 'x' }, 1, now)).rejects.toMatchObject({ code: 'notFound' });
    expect((await listJobs(db))[0]?.id).toBe(id);
  });

  it('record a run stroke by stroke, note it once it is over, and prove a setting after three clean ones', async () => {
    const jobId = await addJob(db, job(), now);
    const setting = (await findSetting(db, key('kiss')))!;
    for (let round = 0; round < 3; round++) {
      const stroke = {
        operation: 'kiss',
        contourId: 0,
        repeat: 0,
        points: [
          { x: 0, y: 0 },
          { x: 9, y: 0 },
        ],
      } as const;
      const runId = await addRun(
        db,
        {
          jobId,
          machineId,
          conditionId,
          sheetWidthMm: 210,
          sheetHeightMm: 297,
          strokes: [stroke],
          seconds: 4,
          author: 'Ines',
          settings: [{ settingId: setting.id, revision: 2 }],
        },
        later(round),
      );
      const note = {
        verdict: 'clean',
        piecesGood: 8,
        piecesSpoiled: 0,
        note: round === 2 ? 'fine' : '',
      } as const;
      await expect(noteRun(db, runId, note, 'Ines', now)).rejects.toMatchObject({ code: 'conflict' });
      expect((await findGoingRuns(db))[0]?.id).toBe(runId);
      await addStrokeOutcome(db, runId, { index: 0, spans: [{ from: 0, to: 1, grade: 3 }] });
      await addStrokeOutcome(db, runId, { index: 0, spans: [{ from: 0, to: 1, grade: 8 }] });
      await setRunState(db, runId, 'done', '', later(round));
      await noteRun(db, runId, note, 'Ines', later(round + 1));
      const run = await findRun(db, runId);
      expect(run).toMatchObject({ state: 'done', verdict: 'clean', strokes: [stroke], jobName: 'Gulls' });
      expect(run.outcomes).toEqual([{ index: 0, spans: [{ from: 0, to: 1, grade: 3 }] }]);
    }
    expect(await findSetting(db, key('kiss'))).toMatchObject({ state: 'proven', lastNote: 'fine' });
    await keepRevision(db, key('kiss'), revision, 2, later(9));
    expect(await findSetting(db, key('kiss'))).toMatchObject({ state: 'tried', verdicts: [] });
  });

  it('say honestly that nobody knows, when the server stopped during a run', async () => {
    const jobId = await addJob(db, job(), now);
    const shared = {
      jobId,
      machineId,
      conditionId,
      sheetWidthMm: 1,
      sheetHeightMm: 1,
      strokes: [],
      seconds: 1,
    };
    const runId = await addRun(db, { ...shared, author: 'Ines', settings: [] }, now);
    expect(await giveUpUnfinishedRuns(db, later(1))).toBe(1);
    expect(await findRun(db, runId)).toMatchObject({ state: 'unknown', endedAt: later(1).toISOString() });
    await expect(findRun(db, 999)).rejects.toMatchObject({ code: 'notFound' });
  });

  it('stand in the log, the newest first', async () => {
    const entries = await listLog(db, 100);
    expect(new Set(entries.map((entry) => entry.kind))).toEqual(
      new Set(['run', 'testCut', 'setting', 'upkeep']),
    );
    const times = entries.map((entry) => entry.at);
    expect([...times].sort().reverse()).toEqual(times);
    expect(await listLog(db, 3)).toHaveLength(3);
  });
});
