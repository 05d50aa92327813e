import type { ChildProcess } from 'node:child_process';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { plotterFile } from '#core/tests/sampleJob.ts';
import { FarSpace } from '#e2e/support/farSpace.ts';
import { flatbedFile } from '#e2e/support/drivenRun.ts';
import { UnwatchedRuns } from '#e2e/support/unwatchedRuns.ts';

/**
 * Half-open links: a machine on a network of its own (a namespace of this test's making) that vanishes without a word,
 * as when somebody pulls the cable behind a switch. One that says nothing may still be busy with what it has: it is given
 * that time and 10 s.
 */
const PORT = 9100;
/** Answers every line in its time, as a machine that speaks G-code does; one that speaks HPGL is not disturbed by it. */
const machineAt = (host: string) => `require('node:net').createServer((socket) => {
  socket.on('error', () => socket.destroy());
  socket.on('data', (bytes) => setTimeout(() => socket.write('ok\\n'.repeat(String(bytes).split('\\n').length - 1)), 50));
}).listen(${PORT}, '${host}', () => console.log('up'));`;

let runs: UnwatchedRuns;
let machine: ChildProcess;
let space: FarSpace;

beforeAll(async () => {
  runs = await UnwatchedRuns.begin();
  space = FarSpace.open(77);
  machine = await space.keepRunning(machineAt(space.ownAddress));
}, 60_000);
afterAll(async () => {
  machine.kill('SIGKILL');
  space.close();
  await runs.tidy();
  await runs.db.destroy();
});

it.each([
  ['that says nothing', { ...plotterFile(), mmPerSPerUnit: 0.05 }, /takes nothing any more/, 40_000],
  ['that answers', { ...flatbedFile, mmPerSPerUnit: 0.05 }, /says nothing any more/, 12_000],
] as const)(
  'a machine %s and vanishes without a word is noticed: the run is held',
  async (_, file, words, mostMs) => {
    space.plug(true);
    const { runId } = await runs.start({ kind: 'address', host: space.ownAddress, port: PORT }, file, 60);
    await runs.until(runId, 'cutting');
    await new Promise((resolve) => setTimeout(resolve, 1500));
    space.plug(false);
    const { run, ms } = await runs.until(runId, 'held', 60_000);
    expect(ms).toBeLessThan(mostMs);
    expect(run.message).toMatch(words);
  },
  90_000,
);
