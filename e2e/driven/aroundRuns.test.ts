import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDrivenRun } from '#e2e/support/drivenRun.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findDay, keepDay } from '#store/repositories/jobs/days.ts';
import {
  addDriftPoints,
  closeAlarm,
  findLastClosing,
  findOpenAlarm,
  listDriftPoints,
  raiseAlarm,
} from '#store/repositories/log/drift.ts';
import { readCutSources } from '#store/repositories/dialIn/evidence.ts';
import { listGradedPasses } from '#store/repositories/dialIn/gradedPasses.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { addRunPhoto, findRunPhoto, listRunPhotos } from '#store/repositories/runs/runPhotos.ts';
import { stepRun } from '#core/run/stepRun.ts';
import type { RunEvent } from '#core/run/runCourse.ts';
import { findDrivenRun, keepRunStep } from '#store/repositories/runs/runEvents.ts';
import { addRunGrade } from '#store/repositories/runs/runGrades.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { addTestCut, undoTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { addBlade, listBlades } from '#store/repositories/bench/tools.ts';
import {
  clearTimer,
  findWaitRoutes,
  findWaits,
  listTimers,
  setWait,
  setWaitRoute,
  startTimer,
} from '#store/repositories/jobs/waits.ts';
import { cut, later, now, openTestStore, revision } from '#store/tests/testStore.ts';

let db: Store;
let conditionId: number;
let machineId: number;
beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

const key = () => ({ conditionId, machineId, bladeKind: '45° fine', operation: 'kiss' }) as const;

describe('drift', () => {
  it('doubts settings kept before the alarm until it is closed or they are kept anew', async () => {
    await keepRevision(db, key(), revision, 0, now);
    expect((await findSetting(db, key()))!.state).toBe('tried');
    const alarm = { direction: 'more', cause: 'bladeWorn', reason: 'the blade is at 340 m' } as const;
    await raiseAlarm(db, machineId, alarm, later(1));
    expect(await findSetting(db, key())).toMatchObject({
      state: 'doubted',
      stateReason: 'cuts drift on this machine: the blade is at 340 m',
    });
    expect(await findOpenAlarm(db, machineId)).toMatchObject({ cause: 'bladeWorn', closedAt: null });
    await keepRevision(db, key(), revision, 1, later(2));
    expect((await findSetting(db, key()))!.state).toBe('tried');
    await closeAlarm(db, machineId, 'blade changed', later(3));
    expect(await findOpenAlarm(db, machineId)).toBeNull();
    expect(await findLastClosing(db, machineId)).toBe(later(3).toISOString());
    // Nothing stands: nothing happens.
    await closeAlarm(db, machineId, 'again', later(4));
    expect(await findLastClosing(db, machineId)).toBe(later(3).toISOString());
  });

  it('keeps a point once, and leaves out those of cuts that were taken back', async () => {
    const ids = [
      await addTestCut(db, { ...cut, conditionId, machineId }, later(5)),
      await addTestCut(db, { ...cut, conditionId, machineId }, later(6)),
    ];
    const point = {
      source: 'cut',
      residual: 0.5,
      bladeId: null,
      bladeMetres: 10,
      matId: null,
      sheet: 'vinyl',
      lot: 'A',
      humidity: null,
    } as const;
    const points = ids.map((sourceId, index) => ({ ...point, sourceId, at: later(5 + index).toISOString() }));
    await addDriftPoints(db, machineId, points);
    await addDriftPoints(
      db,
      machineId,
      points.map((one) => ({ ...one, residual: 9 })),
    );
    expect((await listDriftPoints(db, machineId, 10)).map(({ residual }) => residual)).toEqual([0.5, 0.5]);
    await undoTestCut(db, ids[0]!, later(7));
    expect(await listDriftPoints(db, machineId, 10)).toHaveLength(1);
  });
});

describe('a run and what is around it', () => {
  let runId: number;
  let bladeId: number;
  beforeAll(async () => {
    bladeId = await addBlade(
      db,
      { number: 3, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, travelMetres: 10, lifeMetres: 300 },
      'Tove',
      now,
    );
    await changeStation(db, machineId, { bladeId }, 'Tove', now);
    ({ runId } = await addDrivenRun(db, { machineId, conditionId, now, key: 'around the run' }, 4));
    await db('runs').where({ id: runId }).update({ blade_id: bladeId, blade_metres: 10, lot: 'L1' });
  });

  it('is graded: the last look at a path counts, and teaches like a test cut', async () => {
    const grade = { operation: 'kiss', passesDone: 1, spot: null } as const;
    await addRunGrade(db, runId, { ...grade, grade: 2 }, 'Ines', later(1));
    await addRunGrade(db, runId, { ...grade, grade: 3 }, 'Ines', later(2));
    await addRunGrade(
      db,
      runId,
      { ...grade, grade: 4, passesDone: 2, spot: { x: 1, y: 2 } },
      'Ines',
      later(3),
    );
    const graded = await listGradedPasses(db, machineId);
    expect(graded.map((one) => [one.grade, one.passes, one.force, one.lot])).toEqual([
      [3, 1, 90, 'L1'],
      [4, 2, 90, 'L1'],
    ]);
    const [material] = await listMaterials(db);
    const [source] = await readCutSources(db, material!);
    expect(source!.runs!.filter((run) => run.grade !== undefined)).toHaveLength(2);
  });

  it('teaches a through cut by its perforations, and nothing by its creases', async () => {
    const { program } = await findDrivenRun(db, runId);
    const through = program.parts.flatMap(({ passes }) => passes).find((one) => one.operation === 'through')!;
    const perforated = (operation: 'perforated' | 'crease') => ({
      ...program,
      parts: [{ ...program.parts[0]!, passes: [{ ...through, operation }] }],
    });
    const look = { operation: 'perforated', passesDone: 1, spot: null, grade: 7 } as const;
    await db('runs')
      .where({ id: runId })
      .update({ program: JSON.stringify(perforated('perforated')) });
    await addRunGrade(db, runId, look, 'Ines', later(4));
    const own = async () =>
      (await listGradedPasses(db, machineId)).map(({ setting, operation, grade }) => [
        setting,
        operation,
        grade,
      ]);
    expect(await own()).toEqual([['perforated', 'through', 7]]);
    await db('runs')
      .where({ id: runId })
      .update({ program: JSON.stringify(perforated('crease')) });
    await addRunGrade(db, runId, { ...look, operation: 'crease', grade: 0 }, 'Ines', later(4));
    expect(await own()).toEqual([]);
    await db('runs')
      .where({ id: runId })
      .update({ program: JSON.stringify(program) });
    await db('run_grades').where({ run_id: runId }).whereIn('operation', ['perforated', 'crease']).delete();
  });

  it('wears its blade once, by what was acknowledged', async () => {
    const { strokes } = await findRun(db, runId);
    const seen = await findDrivenRun(db, runId);
    const keep = async (event: RunEvent, { version, course }: typeof seen) => {
      const step = stepRun(course, event);
      return keepRunStep(
        db,
        { runId, version, before: course, event, step, author: 'Ines', writeId: randomUUID() },
        later(9),
      );
    };
    await keep({ kind: 'reached', strokes: [{ index: 0, spans: [] }] }, seen);
    // Two who stop it at the same moment, both from what they saw: one ends it, the other is told to look again.
    const ends = [await keep({ kind: 'stopOrdered' }, seen), await keep({ kind: 'stopOrdered' }, seen)];
    expect(ends).toEqual([seen.version + 1, null]);
    const over = await findDrivenRun(db, runId);
    expect(await keep({ kind: 'unloaded' }, over)).toBe(over.version);
    expect((await findRun(db, runId)).state).toBe('stopped');
    const travel = (await listBlades(db)).find(({ id }) => id === bladeId)!.travelMetres;
    const length = strokes[0]!.points.reduce((sum, point, index, all) => {
      const before = all[index - 1];
      return before ? sum + Math.hypot(point.x - before.x, point.y - before.y) : sum;
    }, 0);
    // Plain film wears at 1.
    expect(travel - 10).toBeCloseTo(length / 1000, 9);
  });

  it('keeps photos, so many and no more, each to its run', async () => {
    const photo = { image: Buffer.from([0xff, 0xd8, 1, 2, 3]), widthPx: 4, heightPx: 3 };
    const id = await addRunPhoto(db, runId, photo, 'Ines', now);
    expect([...(await findRunPhoto(db, runId, id))]).toEqual([...photo.image]);
    await expect(findRunPhoto(db, runId + 1, id)).rejects.toMatchObject({ code: 'notFound' });
    for (let count = 1; count < 12; count++) await addRunPhoto(db, runId, photo, 'Ines', now);
    await expect(addRunPhoto(db, runId, photo, 'Ines', now)).rejects.toMatchObject({ code: 'conflict' });
    expect(await listRunPhotos(db, runId)).toHaveLength(12);
  });
});

describe('waits and days', () => {
  it('take the length of the material, and go back to the usual', async () => {
    const [material] = await listMaterials(db);
    await setWait(db, material!.id, 'inkDry', 55, 'Ines', now);
    await setWait(db, material!.id, 'inkDry', 66, 'Ines', now);
    expect(await findWaits(db, material!.id)).toEqual({ inkDry: 66 });
    await setWait(db, material!.id, 'inkDry', null, 'Ines', now);
    expect(await findWaits(db, material!.id)).toEqual({});
  });

  it('are a route of a state, its own until it is taken back', async () => {
    await setWaitRoute(db, conditionId, ['inkDry', 'sealerCoat', 'sealerCoat'], 'Ines', now);
    expect((await findWaitRoutes(db, [conditionId])).get(conditionId)).toEqual([
      'inkDry',
      'sealerCoat',
      'sealerCoat',
    ]);
    await setWaitRoute(db, conditionId, [], 'Ines', now);
    expect((await findWaitRoutes(db, [conditionId])).get(conditionId)).toEqual([]);
    await setWaitRoute(db, conditionId, null, 'Ines', now);
    expect((await findWaitRoutes(db, [conditionId])).size).toBe(0);
  });

  it('run until they are cleared, the first to end first', async () => {
    const timer = { kind: 'inkDry', words: 'ink', jobId: null, materialId: null, author: 'Ines' } as const;
    const long = await startTimer(db, { ...timer, minutes: 60 }, now);
    const short = await startTimer(db, { ...timer, minutes: 5 }, now);
    expect((await listTimers(db)).map(({ id }) => id)).toEqual([short, long]);
    expect((await listTimers(db))[0]!.endsAt).toBe(later(5).toISOString());
    await clearTimer(db, short, later(5));
    await expect(clearTimer(db, short, later(6))).rejects.toMatchObject({ code: 'notFound' });
    expect(await listTimers(db)).toHaveLength(1);
  });

  it('keep a day, and tell the second of two who plan it', async () => {
    const empty = await findDay(db, '2026-03-05');
    expect(empty).toMatchObject({ version: 0, jobs: [], beginsAt: 480 });
    const plan = { day: '2026-03-05', beginsAt: 450, jobs: [], sequence: [] };
    await keepDay(db, plan, 0, now);
    await expect(keepDay(db, { ...plan, beginsAt: 500 }, 0, now)).rejects.toMatchObject({ code: 'conflict' });
    await keepDay(db, { ...plan, beginsAt: 500 }, 1, now);
    await expect(keepDay(db, plan, 1, now)).rejects.toMatchObject({ code: 'conflict' });
    expect(await findDay(db, '2026-03-05')).toMatchObject({ version: 2, beginsAt: 500 });
  });
});
