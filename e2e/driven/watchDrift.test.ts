import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { closeAlarm, findOpenAlarm } from '#store/repositories/log/drift.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { readLogCharts } from '#store/repositories/log/logCharts.ts';
import { addRegistrationSheet } from '#store/repositories/bench/registration.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { addTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { openTestStore, revision } from '#store/tests/testStore.ts';
import { watchDrift } from '#web/endpoints/upkeep/watchDrift.ts';

/** Drift from graded cuts to doubted settings, with the real model and the real store. */
let db: Store;
let conditionId: number;
let machineId: number;
beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

const day = (count: number) => new Date(Date.UTC(2026, 2, 1 + count, 9));
const cutOn = (count: number, force: number, grade: DepthGrade, bladeMetres: number) =>
  addTestCut(
    db,
    {
      operation: 'kiss',
      force,
      forceGf: force,
      speedMmPerS: 200,
      passes: 1,
      exposureMm: 0.35,
      bladeMetres,
      grade,
      flaws: [],
      author: 'Ines',
      conditionId,
      machineId,
    },
    day(count),
  );

describe('watching a machine', () => {
  it('is quiet while cuts go as they did, then names the worn blade and doubts what was kept before', async () => {
    // The window is found: 70 hangs, 90 to 110 lift clean, 130 is gouged.
    for (const [index, [force, grade]] of (
      [
        [60, 1],
        [70, 2],
        [90, 3],
        [100, 3],
        [110, 3],
        [130, 5],
        [95, 3],
        [100, 3],
        [100, 3],
      ] as const
    ).entries()) {
      await cutOn(index, force, grade, 20 + index);
    }
    const key = { conditionId, machineId, bladeKind: '45° fine', operation: 'kiss' } as const;
    await keepRevision(db, key, revision, 0, day(9));
    const quiet = await watchDrift(db, machineId, day(10));
    expect(quiet.points.length).toBeGreaterThan(3);
    expect(quiet.drift.alarm).toBeNull();
    expect((await findSetting(db, key))!.state).toBe('tried');
    // Metre after metre the same force reaches less.
    for (let step = 0; step < 10; step++)
      await cutOn(11 + step, 100, step < 2 ? 3 : step < 5 ? 2 : 1, 60 + 25 * step);
    const { drift } = await watchDrift(db, machineId, day(30));
    expect(drift.alarm).toMatchObject({ direction: 'more' });
    expect(['bladeWorn', 'machine']).toContain(drift.alarm!.causes[0]!.cause);
    expect(await findOpenAlarm(db, machineId)).not.toBeNull();
    expect(await findSetting(db, key)).toMatchObject({ state: 'doubted' });
  });

  it('judges a cut once: looked at again, nothing moves and nothing is raised twice', async () => {
    const first = await watchDrift(db, machineId, day(31));
    const second = await watchDrift(db, machineId, day(32));
    expect(second.points).toEqual(first.points);
    const { count } = (await db('drift_alarms').count({ count: '*' }).first()) as { count: number };
    expect(Number(count)).toBe(1);
  });

  it('watches anew from the answer on', async () => {
    await closeAlarm(db, machineId, 'blade changed', day(33));
    expect((await watchDrift(db, machineId, day(34))).drift.alarm).toBeNull();
    await cutOn(35, 100, 3, 2);
    await cutOn(36, 100, 3, 3);
    expect((await watchDrift(db, machineId, day(37))).drift.alarm).toBeNull();
  });
});

describe('the charts of the log', () => {
  it('tell forces against metres, sheets of tests by month, and shifts over time', async () => {
    const at = { x: 100, y: 100 };
    await addRegistrationSheet(db, machineId, [{ at, shift: { x: 0.3, y: 0.4 } }], null, 'Ines', day(40));
    const charts = await readLogCharts(db, 'UTC');
    expect(charts.forces).toHaveLength(21);
    expect(
      charts.forces.every(({ source, machine }) => source === 'test cut' && machine === 'Test cutter'),
    ).toBe(true);
    // One load a day, in March and in April.
    expect(charts.months.map(({ month, tests }) => [month, tests])).toEqual([
      ['2026-03', 19],
      ['2026-04', 2],
    ]);
    expect(charts.shifts).toEqual([{ at: day(40).toISOString(), machine: 'Test cutter', mm: 0.5 }]);
    expect(charts.success).toEqual([]);
  });
});
