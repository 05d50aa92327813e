import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { isRunning, pause, startBackground, stopBackground, tailLog } from '#commands/backgroundProcess.ts';
import { findFreePort, isPortFree } from '#commands/ports/freePort.ts';
import { requirePort } from '#commands/ports/requirePort.ts';
import { homeFolder, ROOT } from '#commands/homeFolder.ts';

let home: string;
beforeAll(() => {
  home = mkdtempSync(join(tmpdir(), 'feather-home-'));
  mkdirSync(join(home, 'run'));
  mkdirSync(join(home, 'logs'));
});
afterAll(() => rmSync(home, { recursive: true, force: true }));

const start = (name: string, script: string) =>
  startBackground({
    home,
    name,
    command: process.execPath,
    arguments: ['-e', script],
    environment: { FEATHER_WORD: 'gull' },
  });

describe('background processes', () => {
  it('write their log, get their environment, and are stopped by their process id', async () => {
    const pid = start('talker', 'console.log(process.env.FEATHER_WORD); setInterval(() => {}, 1000)');
    for (let tries = 0; tries < 100 && !tailLog(home, 'talker').includes('gull'); tries++) await pause(50);
    expect(tailLog(home, 'talker')).toBe('gull');
    expect(isRunning(pid)).toBe(true);
    expect(await stopBackground(home, 'talker')).toBe(true);
    expect(isRunning(pid)).toBe(false);
    expect(await stopBackground(home, 'talker')).toBe(false);
  });

  it('that ended by themselves count as not running, and stopping them harms nobody', async () => {
    const pid = start('short', '1');
    for (let tries = 0; tries < 100 && isRunning(pid); tries++) await pause(50);
    expect(isRunning(pid)).toBe(false);
    expect(await stopBackground(home, 'short')).toBe(false);
    expect(tailLog(home, 'never started')).toBe('(no log)');
  });
});

describe('a process id that was written down before this computer was started anew', () => {
  it('is left alone when it is somebody else’s by now', async () => {
    const pid = start('stranger', 'setInterval(() => {}, 1000)');
    const [file, begun] = ['pid', 'start'].map((end) => join(home, 'run', `stranger.${end}`)) as [
      string,
      string,
    ];
    const beganAt = Number(readFileSync(begun, 'utf8'));
    // The same number, but of a process that began at another time.
    writeFileSync(begun, String(beganAt - 1));
    expect(await stopBackground(home, 'stranger')).toBe(false);
    expect(isRunning(pid)).toBe(true);
    writeFileSync(file, String(pid));
    writeFileSync(begun, String(beganAt));
    expect(await stopBackground(home, 'stranger')).toBe(true);
    expect(isRunning(pid)).toBe(false);
  });
});

describe('ports', () => {
  it('are known to be taken while somebody listens, on loopback only', async () => {
    const port = await findFreePort();
    expect(await isPortFree(port)).toBe(true);
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
    expect(await isPortFree(port)).toBe(false);
    await new Promise((resolve) => server.close(resolve));
    expect(await isPortFree(port)).toBe(true);
  });
});

describe('the one command', () => {
  const feather = (given: readonly string[], environment: Record<string, string> = {}) =>
    spawnSync(join(ROOT, 'feather'), [...given], {
      encoding: 'utf8',
      env: { ...process.env, ...environment },
    });

  it('says what it can do, and refuses what it cannot', () => {
    expect(feather(['help']).stdout).toMatch(/feather demo[\s\S]*feather test[\s\S]*FEATHER_DATABASE_URL/);
    const unknown = feather(['dance']);
    expect(unknown.status).toBe(1);
    expect(unknown.stderr).toMatch(/unknown command: dance/);
  });

  it('says plainly that a port is taken, or is none', async () => {
    const server = createServer();
    const port = await findFreePort();
    await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
    const ask = (value: string) => {
      vi.stubEnv('FEATHER_PORT', value);
      return requirePort();
    };
    await expect(ask(String(port))).rejects.toThrow(`Port ${port} is taken by another program.`);
    await expect(ask('banana')).rejects.toThrow('FEATHER_PORT is not a port: banana');
    await new Promise((resolve) => server.close(resolve));
    expect(await ask(String(port))).toBe(port);
    vi.unstubAllEnvs();
  });

  it('keeps what it makes inside the project, out of version control', () => {
    expect(homeFolder('test').startsWith(join(ROOT, '.feather'))).toBe(true);
    expect(existsSync(join(homeFolder('test'), 'run'))).toBe(true);
    if (!existsSync(join(ROOT, '.git'))) return;
    expect(
      execFileSync('git', ['ls-files', '.feather', 'dist', 'node_modules'], { cwd: ROOT, encoding: 'utf8' }),
    ).toBe('');
  });
});
