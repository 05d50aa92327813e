import { execFileSync } from 'node:child_process';
import { createReadStream, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { plotterFile } from '#core/tests/sampleJob.ts';
import { flatbedFile } from '#e2e/support/drivenRun.ts';
import { makeLine } from '#e2e/support/linePair.ts';
import { pause, UnwatchedRuns } from '#e2e/support/unwatchedRuns.ts';
import { findRun } from '#store/repositories/runs/runs.ts';

/** Runs over a serial line, made by socat in front of the stand-in flatbed, and over a device file. */
let runs: UnwatchedRuns;
beforeAll(async () => {
  runs = await UnwatchedRuns.begin();
});
afterAll(() => runs.db.destroy());
afterEach(() => runs.tidy());

describe('a machine on this computer', () => {
  const onLine = async (port: number) => {
    const line = await makeLine(() => `tcp:127.0.0.1:${port}`);
    runs.closeLater({ close: () => line.unplug() });
    const link = { kind: 'serial', path: line.path, baudRate: 115_200, handshake: 'none' } as const;
    return { line, link };
  };

  it('on a serial line acknowledges every stroke, is paused and stopped like one on the network', async () => {
    const cutter = await runs.flatbed(30);
    const { link } = await onLine(cutter.dataPort);
    const { runId, strokes } = await runs.start(link, flatbedFile, 6);
    const { run } = await runs.until(runId, 'looking');
    expect(run.outcomes).toHaveLength(strokes.length);
    expect(cutter.state.cutter.sheetStrokes).toHaveLength(strokes.length);
  });

  it('unplugged in the middle of a run: held, nothing lost', async () => {
    const cutter = await runs.flatbed(4);
    const { line, link } = await onLine(cutter.dataPort);
    const { runId } = await runs.start(link, flatbedFile, 8);
    await expect
      .poll(async () => (await findRun(runs.db, runId)).outcomes.length, { timeout: 40_000 })
      .toBeGreaterThan(1);
    await line.unplug();
    const { run } = await runs.until(runId, 'held');
    expect(run.message).toMatch(/unplugged or switched off.*strokes had gone out/);
    expect(run.outcomes.length).toBeGreaterThan(1);
    expect(run.outcomes.length).toBeLessThanOrEqual(cutter.state.cutter.sheetStrokes.length);
  });

  it('as a printer device gets the whole file; a language that is answered is refused there', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'feather-driven-'));
    runs.closeLater({ close: () => rmSync(folder, { recursive: true, force: true }) });
    const path = join(folder, 'lp0');
    execFileSync('mkfifo', [path]);
    const reader = createReadStream(path);
    runs.closeLater({ close: () => reader.destroy() });
    let got = '';
    reader.on('data', (bytes) => (got += String(bytes)));
    await pause(50);
    const { runId, strokes } = await runs.start({ kind: 'device', path }, plotterFile(), 5);
    await runs.until(runId, 'looking');
    await expect.poll(() => got.match(/PD/g)?.length).toBe(strokes.length);
    const refused = await runs.start({ kind: 'device', path }, flatbedFile, 5);
    expect((await runs.until(refused.runId, 'held')).run.message).toMatch(
      /speaks G-code answers, and nothing comes back.*Nothing was sent/,
    );
  });
});
