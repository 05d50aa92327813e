import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { afterEach, describe, expect, it } from 'vitest';
import { afterSilence, hearableMs } from '#server/links/hearing.ts';
import { connectTo } from '#server/links/openTcp.ts';

/** Nothing runs in this process: as on a computer that sleeps. */
function standStill(ms: number): void {
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms);
}
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

describe('the clock of silence', () => {
  it('goes on as the other does, and stands while this process does', async () => {
    const begun = hearableMs();
    await pause(600);
    const heard = hearableMs() - begun;
    expect(heard).toBeGreaterThan(500);
    standStill(3_000);
    await pause(0);
    expect(hearableMs() - begun - heard).toBeLessThan(600);
  });

  it('is silent in time, and not when taken back', async () => {
    const said: string[] = [];
    afterSilence(200, () => said.push('silent'));
    const takeBack = afterSilence(200, () => said.push('never'));
    takeBack();
    expect(said).toEqual([]);
    await expect.poll(() => said).toEqual(['silent']);
  });
});

describe('a stall of this server', () => {
  const children: ReturnType<typeof spawn>[] = [];
  afterEach(() => children.splice(0).forEach((child) => child.kill('SIGKILL')));

  /** A machine in a process of its own: it answers while this one stands still. */
  async function machineElsewhere(): Promise<number> {
    const script = `const s = require('node:net').createServer((c) => { c.on('error', () => {}); c.on('data', () => setTimeout(() => c.write('ok\\n'), 300)); });
      s.listen(0, '127.0.0.1', () => console.log(s.address().port));`;
    const child = spawn(process.execPath, ['--eval', script], { stdio: ['ignore', 'pipe', 'inherit'] });
    children.push(child);
    const [port] = (await once(child.stdout, 'data')) as [Buffer];
    return Number(port.toString());
  }

  it('is not taken for the silence of a machine that answered meanwhile', async () => {
    const socket = await connectTo('127.0.0.1', await machineElsewhere());
    const ends: string[] = [];
    socket.on('data', () => ends.push('heard'));
    socket.write('?\n');
    const takeBack = afterSilence(1_000, () => ends.push('silent'));
    // Long enough for its answer to wait here, and for a plain timer of a second to be due first.
    await pause(20);
    standStill(2_500);
    await expect.poll(() => ends.length).toBeGreaterThan(0);
    takeBack();
    expect(ends).toEqual(['heard']);
    socket.destroy();
  });
});
