import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { RunState } from '#core/run/run.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { timesCut } from '#e2e/support/timesCut.ts';
import { addDrivenRun, drivenContext, type DrivenRun } from '#e2e/support/drivenRun.ts';
import { SeveralServer } from '#e2e/support/severalServers.ts';
import type { LiveEvent } from '#core/run/liveEvent.ts';
import type { ServerContext } from '#server/context/context.ts';
import { watchRun } from '#server/runs/runHub.ts';
import { followElsewhere } from '#server/several/followElsewhere.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { releaseLease, renewLease, takeLease } from '#store/repositories/several/runLeases.ts';
import { keepRunStep, findDrivenRun } from '#store/repositories/runs/runEvents.ts';
import { stepRun } from '#core/run/stepRun.ts';
import { TimeGiven } from '#store/tests/timeGiven.ts';
import { machine, now, openTestStore, url } from '#store/tests/testStore.ts';

/** Two servers on one store, each a process of its own, and one cutter. */
let db: Store;
let cutter: CutterService;
let servers: readonly [SeveralServer, SeveralServer];
let conditionId: number;
let count = 0;
const CIRCLES = 30;

beforeAll(async () => {
  ({ db, conditionId } = await openTestStore());
});
afterAll(() => db.destroy());
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A run on a machine of its own: the sheet of another one may still lie in the cutter. */
async function begin(): Promise<DrivenRun> {
  count += 1;
  const linked = { ...machine, name: `Linked ${count}`, link: { kind: 'standIn', model: 'roll' } as const };
  const machineId = await addMachine(db, linked, now);
  return addDrivenRun(db, { machineId, conditionId, now, key: `several-${count}` }, CIRCLES, false);
}

async function until(runId: number, state: RunState, withinMs = 40_000, strokes = 0) {
  for (const time = new TimeGiven(); ; await pause(30)) {
    const run = await findRun(db, runId);
    if (run.state === state && run.outcomes.length >= strokes) return { run, ms: time.ms() };
    if (time.ms() > withinMs) {
      throw new Error(`never ${state}: ${run.state}, ${run.message}, ${run.outcomes.length} strokes`);
    }
  }
}

/** Which of the servers drives a run, and which does not. */
async function whoDrives(runId: number): Promise<{ driver: SeveralServer; other: SeveralServer }> {
  const [first, second] = servers;
  for (;;) {
    const holds = await Promise.all(servers.map((server) => server.ask('holds', runId)));
    expect(holds).not.toEqual([true, true]);
    if (holds[0]) return { driver: first, other: second };
    if (holds[1]) return { driver: second, other: first };
    await pause(50);
  }
}

const once = ({ strokes }: DrivenRun) => strokes.map(() => 1);

describe('two servers on one store', () => {
  beforeEach(async () => {
    cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 1.6 });
    servers = [new SeveralServer(url, cutter), new SeveralServer(url, cutter)];
  });
  afterEach(async () => {
    await Promise.all(servers.map((server) => server.kill()));
    await cutter.close();
  });

  it('one drives a run; killed, the other takes it over, and every stroke is cut once', async () => {
    const run = await begin();
    await until(run.runId, 'cutting', 20_000, 4);
    const { driver } = await whoDrives(run.runId);
    await driver.kill();
    const { run: ended } = await until(run.runId, 'looking');
    expect(ended.outcomes).toHaveLength(run.strokes.length);
    expect(timesCut(cutter, run.strokes)).toEqual(once(run));
  });

  it('one stands still in the midst of it and wakes later: it finds the run taken and sends nothing more', async () => {
    const run = await begin();
    await until(run.runId, 'cutting', 20_000, 4);
    const { driver, other } = await whoDrives(run.runId);
    driver.freeze(true);
    while (!(await other.ask('holds', run.runId))) await pause(100);
    driver.freeze(false);
    await until(run.runId, 'looking');
    expect(await driver.ask('holds', run.runId)).toBe(false);
    expect(timesCut(cutter, run.strokes)).toEqual(once(run));
  });

  it('who watches at a third one is told where the head is, each stroke once, and how it ended', async () => {
    const run = await begin();
    const heard: LiveEvent[] = [];
    const unhear = watchRun(run.runId, (event) => heard.push(event));
    const context = { ...drivenContext(db, cutter), leases: { isAlone: false } } as unknown as ServerContext;
    const unfollow = followElsewhere(context, run.runId);
    await until(run.runId, 'looking');
    const strokes = () => heard.flatMap((event) => (event.kind === 'stroke' ? [event.index] : []));
    await expect.poll(() => strokes().length).toBe(run.strokes.length);
    await expect.poll(() => heard.at(-1)).toMatchObject({ kind: 'state', state: 'looking' });
    expect(strokes().toSorted((a, b) => a - b)).toEqual(run.strokes.map((_, index) => index));
    expect(heard.filter(({ kind }) => kind === 'position').length).toBeGreaterThan(3);
    unfollow();
    unhear();
    // Nobody watches any more: it is not asked any more.
    const before = heard.length;
    await pause(900);
    expect(heard).toHaveLength(before);
  });

  it('a stop asked of the one that does not drive is obeyed by the other, at once', async () => {
    const run = await begin();
    await until(run.runId, 'cutting', 20_000, 4);
    const { other } = await whoDrives(run.runId);
    const time = new TimeGiven();
    expect(await other.ask('stop', run.runId)).toBe('stopped');
    expect(time.ms()).toBeLessThan(1_500);
    const { run: stopped } = await until(run.runId, 'stopped', 100);
    expect(cutter.state.isBusy).toBe(false);
    expect(timesCut(cutter, run.strokes).filter((times) => times === 1)).toHaveLength(
      stopped.outcomes.length,
    );
    await expect(other.ask('stop', run.runId)).rejects.toThrow(/over already/);
  });

  it('orders at a run that waits are taken by whichever server is asked', async () => {
    const run = await begin();
    await until(run.runId, 'looking');
    await servers[1].ask('unload', run.runId);
    await expect(servers[0].ask('unload', run.runId)).rejects.toThrow(/not at its end|over/);
    expect((await findRun(db, run.runId)).state).toBe('done');
  });
});

describe('the lease of a run', () => {
  const sight = { head: null, outTo: null };

  it('goes to one, again to the same, to another once it is let go, with a higher number', async () => {
    const { runId } = await begin();
    const fence = await takeLease(db, runId, 'one');
    expect(fence).toBeGreaterThan(0);
    expect(await takeLease(db, runId, 'one')).toBe(fence);
    expect(await takeLease(db, runId, 'two')).toBeNull();
    await releaseLease(db, runId, 'one');
    const next = await takeLease(db, runId, 'two');
    expect(next).toBe((fence ?? 0) + 1);
    expect(await renewLease(db, runId, { holder: 'one', fence: fence ?? 0, sight })).toBe(false);
    expect(await renewLease(db, runId, { holder: 'two', fence: next ?? 0, sight })).toBe(true);
  });

  it('refuses what a server still writes that had the run before', async () => {
    const { runId } = await begin();
    const fence = (await takeLease(db, runId, 'one')) ?? 0;
    const { course, version } = await findDrivenRun(db, runId);
    const event = { kind: 'failed', reason: 'too late' } as const;
    const written = { runId, version, before: course, event, step: stepRun(course, event), author: '' };
    await releaseLease(db, runId, 'one');
    await takeLease(db, runId, 'two');
    const late = keepRunStep(db, { ...written, writeId: 'late', lease: { holder: 'one', fence } }, now);
    await expect(late).rejects.toMatchObject({ code: 'conflict' });
    expect((await findDrivenRun(db, runId)).version).toBe(version);
  });

  it('is taken by one of twenty who ask at the same moment', async () => {
    const { runId } = await begin();
    const asked = Array.from({ length: 20 }, (_, place) => takeLease(db, runId, `server-${place}`));
    expect((await Promise.all(asked)).filter((fence) => fence !== null)).toHaveLength(1);
  });
});
