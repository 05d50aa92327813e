import { afterAll, beforeAll, expect, it } from 'vitest';
import { seededRandom } from '#core/random/seededRandom.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { addDrivenRun, drivenContext } from '#e2e/support/drivenRun.ts';
import { stopRun } from '#server/runs/runOrders.ts';
import { driveRun, isDriven } from '#server/runs/runLoop.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { listRunEvents } from '#store/repositories/runs/runEvents.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { machine, now, openTestStore } from '#store/tests/testStore.ts';

const MOMENTS_MS = [0, 1, 2, 3, 5, 8, 13, 20, 50];
const CIRCLES = 20;
/** Twice as fast as a cutter is: a stroke takes 85 ms, longer than anything in this one process holds up the order to stop. */
const PACE = 2;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Only for tests. A stop at any moment of a run: whatever was answered, the blade makes no stroke but the one it is in,
 * and the record agrees with the cutter's own.
 *
 * @param sweeps how often each moment is tried, and one more at random
 */
export function stopAtAnyMoment(sweeps: number): void {
  const random = seededRandom(12);
  const moments = Array.from({ length: sweeps }, () => [...MOMENTS_MS, 60 + 600 * random()]).flat();
  let db: Store;
  let conditionId: number;
  beforeAll(async () => {
    ({ db, conditionId } = await openTestStore());
  });
  afterAll(() => db.destroy());

  it(`is obeyed ${moments.length} times: no stroke but the one under the blade, and both records agree`, async () => {
    const wrong: object[] = [];
    // Some at a time: each has a machine of its own.
    const waiting = [...moments.entries()];
    const lane = async () => {
      for (let next = waiting.shift(); next; next = waiting.shift()) {
        const [index, ms] = next;
        const seen = await stopAfter(db, conditionId, ms, index);
        const isRight =
          seen.answered === 'stopped' &&
          seen.state === 'stopped' &&
          seen.history === 'stopped' &&
          seen.beyond <= 1 &&
          seen.late === 0 &&
          seen.told === seen.cut &&
          !seen.isBusy;
        if (!isRight) wrong.push({ ms, ...seen });
      }
    };
    await Promise.all([1, 2, 3, 4].map(lane));
    expect(wrong).toEqual([]);
    expect(moments.length).toBe(10 * sweeps);
  }, 240_000);
}

/** One stop on a machine of its own. */
async function stopAfter(db: Store, conditionId: number, ms: number, index: number) {
  const cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 4, pace: PACE });
  try {
    const context = drivenContext(db, cutter);
    const link = { kind: 'standIn', model: 'roll' } as const;
    const machineId = await addMachine(db, { ...machine, name: `Linked ${index}`, link }, now);
    const facts = { machineId, conditionId, now, key: `stop-${index}` };
    const { runId } = await addDrivenRun(db, facts, CIRCLES, false);
    const driving = driveRun(runId, context);
    if (ms > 0) await pause(ms);
    return await judgeStop(db, cutter, runId, context, driving);
  } finally {
    await cutter.close();
  }
}

async function judgeStop(
  db: Store,
  cutter: CutterService,
  runId: number,
  context: ReturnType<typeof drivenContext>,
  driving: Promise<void>,
) {
  const before = cutter.state.cutter.strokesCut;
  const answered = await stopRun(runId, context);
  const after = cutter.state.cutter.strokesCut;
  await driving;
  for (let tries = 0; tries < 200 && isDriven(runId); tries++) await pause(10);
  await pause(120);
  const run = await findRun(db, runId);
  return {
    answered,
    beyond: cutter.state.cutter.strokesCut - before,
    late: cutter.state.cutter.strokesCut - after,
    state: run.state,
    told: run.outcomes.length,
    cut: cutter.state.cutter.sheetStrokes.length,
    history: (await listRunEvents(db, runId)).at(-1)?.state,
    isBusy: cutter.state.isBusy,
  };
}
