import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { userInfo } from 'node:os';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { plotterFile } from '#core/tests/sampleJob.ts';
import { flatbedFile } from '#e2e/support/drivenRun.ts';
import { UnwatchedRuns } from '#e2e/support/unwatchedRuns.ts';

/**
 * Half-open links: a machine on a network of its own (a namespace of this test's making) that vanishes without a word,
 * as when somebody pulls the cable behind a switch. One that says nothing may still be busy with what it has: it is given
 * that time and 10 s.
 */
const SPACE = `feather-${process.pid}`;
const NEAR = `fa${process.pid}`;
const HOST = '10.231.77.2';
const PORT = 9100;
/** Answers every line in its time, as a machine that speaks G-code does; one that speaks HPGL is not disturbed by it. */
const MACHINE = `require('node:net').createServer((socket) => {
  socket.on('error', () => socket.destroy());
  socket.on('data', (bytes) => setTimeout(() => socket.write('ok\\n'.repeat(String(bytes).split('\\n').length - 1)), 50));
}).listen(${PORT}, '${HOST}', () => console.log('up'));`;

let runs: UnwatchedRuns;
let machine: ChildProcess;
const root = (...words: readonly string[]) => {
  const all = userInfo().uid === 0 ? words : ['sudo', '-n', ...words];
  return execFileSync(all[0] as string, all.slice(1), { stdio: 'pipe' });
};

beforeAll(async () => {
  runs = await UnwatchedRuns.begin();
  root('ip', 'netns', 'add', SPACE);
  root('ip', 'link', 'add', NEAR, 'type', 'veth', 'peer', 'name', 'far', 'netns', SPACE);
  root('ip', 'address', 'add', '10.231.77.1/30', 'dev', NEAR);
  root('ip', 'link', 'set', NEAR, 'up');
  root('ip', 'netns', 'exec', SPACE, 'ip', 'address', 'add', `${HOST}/30`, 'dev', 'far');
  root('ip', 'netns', 'exec', SPACE, 'ip', 'link', 'set', 'far', 'up');
  const words = ['ip', 'netns', 'exec', SPACE, process.execPath, '-e', MACHINE];
  const all = userInfo().uid === 0 ? words : ['sudo', '-n', ...words];
  machine = spawn(all[0] as string, all.slice(1), { stdio: ['ignore', 'pipe', 'ignore'] });
  await new Promise((resolve) => machine.stdout?.once('data', resolve));
}, 60_000);
afterAll(async () => {
  machine.kill('SIGKILL');
  root('ip', 'link', 'delete', NEAR);
  root('ip', 'netns', 'delete', SPACE);
  await runs.tidy();
  await runs.db.destroy();
});

it.each([
  ['that says nothing', { ...plotterFile(), mmPerSPerUnit: 0.05 }, /takes nothing any more/, 40_000],
  ['that answers', { ...flatbedFile, mmPerSPerUnit: 0.05 }, /says nothing any more/, 12_000],
] as const)(
  'a machine %s and vanishes without a word is noticed: the run is held',
  async (_, file, words, mostMs) => {
    root('ip', 'link', 'set', NEAR, 'up');
    const { runId } = await runs.start({ kind: 'address', host: HOST, port: PORT }, file, 60);
    await runs.until(runId, 'cutting');
    await new Promise((resolve) => setTimeout(resolve, 1500));
    root('ip', 'link', 'set', NEAR, 'down');
    const { run, ms } = await runs.until(runId, 'held', 60_000);
    expect(ms).toBeLessThan(mostMs);
    expect(run.message).toMatch(words);
  },
  90_000,
);
