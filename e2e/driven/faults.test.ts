import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { RunState } from '#core/run/run.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { timesCut } from '#e2e/support/timesCut.ts';
import { addDrivenRun, drivenContext } from '#e2e/support/drivenRun.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { machine, now, openTestStore } from '#store/tests/testStore.ts';
import { standInHands } from '#server/links/standInHands.ts';
import { driveRun, isDriven } from '#server/runs/runLoop.ts';
import type { ServerContext } from '#server/context/context.ts';
import { continueRun, pauseRun, repeatOperation, stopRun, unloadRun } from '#server/runs/runOrders.ts';

/** Runs driven over real sockets against the real store, with everything that goes wrong at a bench. */
let db: Store;
let conditionId: number;
let machineId: number;
let cutter: CutterService;
let context: ServerContext;
let count = 0;

beforeAll(async () => {
  ({ db, conditionId } = await openTestStore());
});
afterAll(() => db.destroy());
/** Each story has a machine of its own: a sheet that stays in after a failure is in nobody else's way. */
beforeEach(async () => {
  const name = `Linked ${count}`;
  machineId = await addMachine(db, { ...machine, name, link: { kind: 'standIn', model: 'roll' } }, now);
  await openCutter(60);
});

async function openCutter(pace: number) {
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 4, pace });
  context = drivenContext(db, cutter);
}

/** A cutter so slow that a person can step in while it cuts: the sheet takes it some three seconds. */
async function changeToSlowCutter() {
  await cutter.close();
  await openCutter(2);
}

afterEach(() => cutter.close());

const start = async (hasStop = false, circles = 20, isPrinted = false) => {
  count += 1;
  const run = await addDrivenRun(
    db,
    { machineId, conditionId, now, key: `fault-run-${count}` },
    circles,
    hasStop,
    isPrinted,
  );
  return run;
};
const arm = (fault: string, afterStrokes: number) =>
  standInHands(cutter.panelPort).order({ order: 'fault', fault, afterStrokes });

async function until(runId: number, state: RunState) {
  for (let tries = 0; tries < 800; tries++) {
    const run = await findRun(db, runId);
    if (run.state === state && !(state !== 'cutting' && isDriven(runId))) return run;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error(`the run never was ${state}: ${JSON.stringify((await findRun(db, runId)).state)}`);
}

describe('a run', () => {
  it('is cut stroke by stroke, waits for hands, is looked at and unloaded', async () => {
    const { runId, strokes } = await start(true);
    void driveRun(runId, context);
    const waiting = await until(runId, 'waiting');
    expect(waiting.message).toMatch(/exposure/);
    expect(waiting.outcomes).toHaveLength(20);
    // Two presses at once go on once.
    const presses = await Promise.allSettled([
      continueRun(runId, 'again', context),
      continueRun(runId, 'again', context),
    ]);
    expect(presses.map(({ status }) => status).toSorted()).toEqual(['fulfilled', 'rejected']);
    await until(runId, 'looking');
    expect(new Set(timesCut(cutter, strokes))).toEqual(new Set([1]));
    await unloadRun(runId, context);
    await expect(unloadRun(runId, context)).rejects.toMatchObject({ code: 'conflict' });
    expect((await findRun(db, runId)).state).toBe('done');
  });

  it('cuts one path once more while the sheet is in, and no more than once for two presses', async () => {
    const { runId, strokes } = await start();
    void driveRun(runId, context);
    await until(runId, 'looking');
    await Promise.allSettled([1, 2].map(() => repeatOperation(runId, 'kiss', context)));
    const again = await until(runId, 'looking');
    expect(again.strokes).toHaveLength(strokes.length + 20);
    expect(again.strokes.at(-1)).toMatchObject({ operation: 'kiss', repeat: 1 });
    expect(timesCut(cutter, strokes)).toEqual(strokes.map(({ operation }) => (operation === 'kiss' ? 2 : 1)));
    await unloadRun(runId, context);
  });

  it.each(['linkLost', 'halfCommand'])('goes on after %s without cutting anything twice', async (fault) => {
    const { runId, strokes } = await start();
    await arm(fault, 7);
    void driveRun(runId, context);
    const run = await until(runId, 'looking');
    expect(run.outcomes).toHaveLength(strokes.length);
    expect(timesCut(cutter, strokes)).toEqual(strokes.map(() => 1));
    await unloadRun(runId, context);
  });

  it('holds at a jam with the reason, and goes on where a person says', async () => {
    const { runId, strokes } = await start();
    await arm('jam', 5);
    void driveRun(runId, context);
    const held = await until(runId, 'held');
    expect(held.message).toMatch(/jam: a loose piece/);
    expect(held.outcomes.length).toBeGreaterThanOrEqual(5);
    await continueRun(runId, 'again', context);
    await until(runId, 'looking');
    expect(timesCut(cutter, strokes)).toEqual(strokes.map(() => 1));
    await unloadRun(runId, context);
  });

  it('says after a loss of power what is not known, and leaves a stroke that a person saw cut', async () => {
    const { runId, strokes } = await start();
    await arm('powerLoss', 6);
    void driveRun(runId, context);
    const held = await until(runId, 'held');
    expect(held.message).toMatch(
      /switched off meanwhile.*stroke \d+ may be cut whole, in part or not at all/,
    );
    const known = held.outcomes.length;
    await continueRun(runId, 'leave', context);
    const run = await until(runId, 'looking');
    expect(run.outcomes.find(({ index }) => index === known)!.spans).toEqual([]);
    const times = timesCut(cutter, strokes);
    expect(times.filter((time) => time > 1)).toEqual([]);
    await unloadRun(runId, context);
  });

  it('holds before anything was sent when the marks are not read', async () => {
    const { runId } = await start();
    await arm('marksNotRead', 0);
    void driveRun(runId, context);
    expect((await until(runId, 'held')).message).toMatch(/marks were not found/);
    await stopRun(runId, context);
    expect((await findRun(db, runId)).state).toBe('stopped');
  });

  it.each([
    ['skewedSheet', /lies where it should/],
    ['roomLight', /none of the four stands out/],
    ['strayInk', /what was read does not fit/],
    ['liftedMat', /not the one at the bottom right/],
  ])(
    'is held by the sensor over %s, and cuts every stroke once when that is put right',
    async (fault, words) => {
      const { runId, strokes } = await start(false, 4, true);
      await arm(fault, 0);
      void driveRun(runId, context);
      expect((await until(runId, 'held')).message).toMatch(words);
      expect((await findRun(db, runId)).outcomes).toEqual([]);
      await continueRun(runId, 'again', context);
      await until(runId, 'looking');
      expect(timesCut(cutter, strokes)).toEqual(strokes.map(() => 1));
      await unloadRun(runId, context);
    },
  );

  it('pauses between two strokes and goes on', async () => {
    await changeToSlowCutter();
    const { runId, strokes } = await start();
    void driveRun(runId, context);
    await until(runId, 'cutting');
    await pauseRun(runId, true, context);
    // What was cut before the pause may be told a little later; then nothing follows.
    const told = async () => (await findRun(db, runId)).outcomes.length;
    let before = -1;
    for (let now = await told(); now !== before; now = await told()) {
      before = now;
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
    expect(before).toBeLessThan(strokes.length);
    await expect(pauseRun(runId, true, context)).rejects.toMatchObject({ code: 'conflict' });
    await pauseRun(runId, false, context);
    await until(runId, 'looking');
    expect(timesCut(cutter, strokes)).toEqual(strokes.map(() => 1));
    await unloadRun(runId, context);
  });

  it('ends where it is stopped, and wears nothing twice', async () => {
    await changeToSlowCutter();
    const { runId, strokes } = await start();
    void driveRun(runId, context);
    await until(runId, 'cutting');
    await stopRun(runId, context);
    const run = await until(runId, 'stopped');
    expect(run.outcomes.length).toBeLessThan(strokes.length);
    await expect(stopRun(runId, context)).rejects.toMatchObject({ code: 'conflict' });
  });

  it('is held with the words of the link when no cutter answers, and sends nothing', async () => {
    const { runId, strokes } = await start();
    await cutter.close();
    void driveRun(runId, context);
    expect((await until(runId, 'held')).message).toMatch(/No cutter answers.*Nothing was sent/);
    cutter = await serveCutter({
      model: 'roll',
      dataPort: cutter.dataPort,
      panelPort: cutter.panelPort,
      seed: 4,
      pace: 60,
    });
    await continueRun(runId, 'again', context);
    await until(runId, 'looking');
    expect(timesCut(cutter, strokes)).toEqual(strokes.map(() => 1));
    await unloadRun(runId, context);
  });
});
