import type { Socket } from 'node:net';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { plotterFile } from '#core/tests/sampleJob.ts';
import { flatbedFile } from '#e2e/support/drivenRun.ts';
import { at, pause, UnwatchedRuns } from '#e2e/support/unwatchedRuns.ts';
import type { ServerContext } from '#server/context/context.ts';
import { continueRun, pauseRun, stopRun, unloadRun } from '#server/runs/runOrders.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findRun } from '#store/repositories/runs/runs.ts';

/** Runs over links where nobody looks on: machines that answer line by line, and machines that say nothing. */
let runs: UnwatchedRuns;
let db: Store;
let context: ServerContext;
beforeAll(async () => {
  runs = await UnwatchedRuns.begin();
  ({ db, context } = runs);
});
afterAll(() => db.destroy());
afterEach(() => runs.tidy());

/** A machine so slow that a person can step in: 200 units of speed are 20 mm/s. */
const slowFile: FileOptions = { ...plotterFile(), mmPerSPerUnit: 0.1 };
const lengthOf = (points: readonly { readonly x: number; readonly y: number }[]) =>
  points.slice(1).reduce((sum, { x, y }, at) => sum + Math.hypot(x - points[at]!.x, y - points[at]!.y), 0);

describe('a machine that answers line by line, and nobody looks on', () => {
  it('acknowledges every stroke itself, in its time', async () => {
    const cutter = await runs.flatbed(40);
    const { runId, strokes } = await runs.start(at(cutter.dataPort), flatbedFile, 10);
    const { run } = await runs.until(runId, 'looking');
    expect(run.outcomes).toEqual(strokes.map((_, index) => ({ index, spans: [] })));
    expect(cutter.state.cutter.sheetStrokes).toHaveLength(strokes.length);
    await unloadRun(runId, context);
  });

  it('never tells of more than is cut, while it cuts', async () => {
    const cutter = await runs.flatbed(4);
    const { runId } = await runs.start(at(cutter.dataPort), flatbedFile, 10);
    await runs.until(runId, 'cutting');
    for (let looks = 0; looks < 20; looks++) {
      const { outcomes } = await findRun(db, runId);
      expect(outcomes.length).toBeLessThanOrEqual(cutter.state.cutter.sheetStrokes.length);
      await pause(50);
    }
    expect(await stopRun(runId, context)).toBe('stopped');
  });

  it('pauses wherever it is, and goes on', async () => {
    const cutter = await runs.flatbed(4);
    const { runId, strokes } = await runs.start(at(cutter.dataPort), flatbedFile, 6);
    await runs.until(runId, 'cutting');
    await pause(200);
    await pauseRun(runId, true, context);
    await pause(100);
    const held = cutter.state.cutter.cutMetres;
    await pause(300);
    expect(cutter.state.cutter.cutMetres).toBe(held);
    await pauseRun(runId, false, context);
    const { run } = await runs.until(runId, 'looking');
    expect(run.outcomes).toHaveLength(strokes.length);
  });

  it('is stopped at any moment: nothing is cut beyond the stroke under the blade', async () => {
    for (const ms of [0, 1, 2, 3, 5, 8, 13, 20, 50, 120, 333, 480]) {
      const cutter = await runs.flatbed(4);
      const { runId } = await runs.start(at(cutter.dataPort), flatbedFile, 10);
      await pause(ms);
      const before = cutter.state.cutter.strokesCut;
      expect(await stopRun(runId, context), `after ${ms} ms`).toBe('stopped');
      const stood = cutter.state.cutter.cutMetres;
      await pause(80);
      expect(cutter.state.cutter.cutMetres, `after ${ms} ms`).toBe(stood);
      expect(cutter.state.cutter.strokesCut - before).toBeLessThanOrEqual(1);
      const { outcomes } = await findRun(db, runId);
      const cut = cutter.state.cutter.sheetStrokes.length;
      // Nobody looks on: of the stroke under the blade its last word may be missing, of others none.
      expect(cut - outcomes.length, `after ${ms} ms`).toBeLessThanOrEqual(1);
      expect(outcomes.length).toBeLessThanOrEqual(cut);
    }
  });

  it('is held when it refuses a line or gives an alarm, with its words', async () => {
    const refusing = await runs.odd((socket) =>
      socket.on('data', () => socket.write('error: no such word\n')),
    );
    const first = await runs.start(at(refusing.port), flatbedFile, 2);
    expect((await runs.until(first.runId, 'held')).run.message).toMatch(/refused a line: no such word/);
    // Whatever it had planned is dropped: its tool must not stay down.
    await expect.poll(() => refusing.received()).toContain('\u0018');
    const alarmed = await runs.odd((socket) => socket.on('data', () => socket.write('alarm: limit\n')));
    const second = await runs.start(at(alarmed.port), flatbedFile, 2);
    expect((await runs.until(second.runId, 'held')).run.message).toMatch(/stopped: limit/);
  });

  it('is noticed after 8 s, and within 10 s, when it falls silent, and the run is held', async () => {
    let lines = 0;
    const silent = await runs.odd((socket) =>
      socket.on('data', () => {
        lines += 1;
        if (lines < 8) socket.write('ok\n');
      }),
    );
    const { runId } = await runs.start(at(silent.port), flatbedFile, 2);
    await runs.until(runId, 'cutting');
    const { run, ms } = await runs.until(runId, 'held');
    expect(ms).toBeLessThan(10_000);
    expect(run.message).toMatch(/says nothing any more.*strokes had gone out/);
  });

  it('is noticed when it was switched off and on, though it answers', async () => {
    let lines = 0;
    const restarted = await runs.odd((socket) =>
      socket.on('data', (bytes) => {
        lines += 1;
        if (bytes.includes('?')) socket.write('<idle>\n');
        else if (lines < 6) socket.write('ok\n');
      }),
    );
    const { runId } = await runs.start(at(restarted.port), flatbedFile, 2);
    expect((await runs.until(runId, 'held')).run.message).toMatch(/started anew/);
  });

  it('breaks the link: held, with what had gone out; going on leaves or repeats it', async () => {
    let lines = 0;
    const breaking = await runs.odd((socket) =>
      socket.on('data', () => {
        lines += 1;
        if (lines < 30) socket.write('ok\n');
        else socket.resetAndDestroy();
      }),
    );
    const { runId } = await runs.start(at(breaking.port), flatbedFile, 4);
    const { run } = await runs.until(runId, 'held');
    expect(run.message).toMatch(/broke the link.*\d of 8 strokes had gone out/);
    expect(run.outTo).toBeGreaterThanOrEqual(run.outcomes.length);
    await stopRun(runId, context);
    expect((await findRun(db, runId)).state).toBe('stopped');
  });
});

describe('a machine that says nothing', () => {
  it('gets every byte, and a person looks', async () => {
    const machineThere = await runs.odd((socket) => socket.on('end', () => socket.end()));
    const { runId, strokes } = await runs.start(at(machineThere.port), plotterFile(), 10);
    const { run } = await runs.until(runId, 'looking');
    expect(run.message).toMatch(/reports nothing back/);
    expect(run.outcomes).toHaveLength(strokes.length);
    expect(machineThere.received().match(/PD/g)).toHaveLength(strokes.length);
  });

  it('cannot be stopped from here: sending ends at once, the run is held and says where to stop it', async () => {
    const taking = await runs.odd(() => undefined);
    const { runId, strokes } = await runs.start(at(taking.port), slowFile, 200);
    await runs.until(runId, 'cutting');
    await pause(1200);
    const before = taking.received().length;
    expect(await stopRun(runId, context)).toBe('held');
    await pause(1000);
    // What was on its way when the stop came; and nothing after it.
    expect(taking.received().length - before).toBeLessThanOrEqual(4096);
    const { message, outTo, outcomes } = await findRun(db, runId);
    expect(message).toMatch(/^Stop it at the machine’s own panel, now: .* \d+ of 400 strokes had gone out/);
    const out = taking.received().match(/PD/g)!.length;
    expect(Math.abs(outTo! - out)).toBeLessThanOrEqual(1);
    expect(out).toBeLessThan(strokes.length / 2);
    expect(outcomes).toEqual([]);
    // A person looked: what went out is cut, and the rest goes out.
    await expect(pauseRun(runId, true, context)).rejects.toMatchObject({ code: 'conflict' });
    const sentBefore = taking.received().length;
    await continueRun(runId, 'leave', context);
    const { run } = await runs.until(runId, 'cutting');
    expect(run.outcomes.length).toBe(outTo);
    // A stop before the first byte of it finds a machine that needs no stopping.
    await expect.poll(() => taking.received().length).toBeGreaterThan(sentBefore);
    expect(await stopRun(runId, context)).toBe('held');
    expect(await stopRun(runId, context)).toBe('stopped');
  });

  it('is sent no more than a few seconds ahead of what it can have cut', async () => {
    const taking = await runs.odd(() => undefined);
    const { runId, strokes } = await runs.start(at(taking.port), slowFile, 200);
    const { run } = await runs.until(runId, 'cutting');
    const secondsOf = (many: number) =>
      strokes.slice(0, many).reduce((sum, { points }) => sum + lengthOf(points) / 20, 0);
    const begun = Date.now();
    for (let looks = 0; looks < 8; looks++) {
      await pause(250);
      const out = taking.received().match(/PD/g)?.length ?? 0;
      const ahead = secondsOf(out) - (Date.now() - begun) / 1000;
      // So that it is never kept waiting, and that a stop leaves little.
      expect(ahead).toBeGreaterThan(2);
      expect(ahead).toBeLessThan(4);
    }
    expect(run.state).toBe('cutting');
    await stopRun(runId, context);
    await stopRun(runId, context);
  });

  it.each([
    ['resets', (socket: Socket) => socket.resetAndDestroy()],
    ['hangs up', (socket: Socket) => socket.end()],
  ] as const)('%s half-way: held, never taken for cut', async (_, leave) => {
    const leaving = await runs.odd((socket) => socket.once('data', () => leave(socket)));
    const { runId } = await runs.start(at(leaving.port), slowFile, 100);
    const { run } = await runs.until(runId, 'held');
    expect(run.message).toMatch(/(broke|hung up).*look at the sheet/);
    expect(run.outcomes).toEqual([]);
  });

  it('is not there: nothing was sent', async () => {
    const gone = await runs.odd(() => undefined);
    gone.close();
    const { runId } = await runs.start(at(gone.port), plotterFile(), 2);
    expect((await runs.until(runId, 'held')).run.message).toMatch(/No cutter answers.*Nothing was sent/);
    await continueRun(runId, 'again', context);
    await runs.until(runId, 'held');
  });
});
