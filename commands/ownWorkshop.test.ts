import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import {
  freshLog,
  isBackgroundRunning,
  isRunning,
  pause,
  startBackground,
  stopBackground,
} from '#commands/backgroundProcess.ts';
import { openDatabase, readAddress } from '#commands/database/databaseUrl.ts';
import { findFreePort } from '#commands/ports/freePort.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { startDatabase } from '#commands/database/startDatabase.ts';
import { turnLogsOver } from '#commands/turnLogsOver.ts';
import { workshopHome } from '#commands/workshopHome.ts';

const folder = mkdtempSync(join(tmpdir(), 'feather-own-'));
for (const name of ['logs', 'run']) mkdirSync(join(folder, name));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the folder of a workshop', () => {
  it('lies where it is told, for its owner alone, and never in the clone', () => {
    const home = workshopHome({ FEATHER_HOME: join(folder, 'book') });
    expect(statSync(join(home, 'copies')).mode & 0o077).toBe(0);
    expect(workshopHome({ XDG_DATA_HOME: join(folder, 'share') })).toBe(
      join(folder, 'share', 'pale-feather'),
    );
    expect(() => workshopHome({ FEATHER_HOME: join(ROOT, 'here') })).toThrow(/inside the application/);
    writeFileSync(join(folder, 'file'), '');
    expect(() => workshopHome({ FEATHER_HOME: join(folder, 'file', 'book') })).toThrow(/cannot be made/);
  });

  it('that is broken is named: what may hold a book is left alone', async () => {
    const home = join(folder, 'broken');
    for (const name of ['logs', 'run', 'data/feather']) mkdirSync(join(home, name), { recursive: true });
    await expect(startDatabase(home)).rejects.toThrow(/data is broken: it holds a book.*Nothing was changed/);
    expect(statSync(join(home, 'data', 'feather')).isDirectory()).toBe(true);
  });
});

describe('the address of a database', () => {
  it.each([
    ['postgres://a:b@localhost/x', /MariaDB/],
    ['hello', /is no address/],
    ['mysql://a:b@localhost', /names no database/],
  ])('%s is refused in words', (text, words) => {
    expect(() => readAddress(text)).toThrow(words);
  });

  it('where nothing listens is said to be so', async () => {
    const port = await findFreePort();
    process.env['FEATHER_DATABASE_URL'] = `mysql://a:b@127.0.0.1:${port}/feather`;
    try {
      await expect(openDatabase(folder)).rejects.toThrow(`Nothing listens at 127.0.0.1:${port}`);
    } finally {
      delete process.env['FEATHER_DATABASE_URL'];
    }
  });
});

describe('logs', () => {
  const talk = (words: string) =>
    startBackground({
      home: folder,
      name: 'talker',
      command: process.execPath,
      arguments: ['-e', `console.log(${JSON.stringify(words)}); setInterval(() => {}, 1000)`],
    });
  const said = async (words: string) => {
    for (let tries = 0; tries < 200 && !freshLog(folder, 'talker').includes(words); tries++) await pause(50);
    return freshLog(folder, 'talker');
  };

  it('are appended, of their owner alone, and told apart by when their process began', async () => {
    const first = talk('first');
    expect(await said('first')).toBe('first\n');
    expect(isBackgroundRunning(folder, 'talker')).toBe(true);
    await stopBackground(folder, 'talker');
    expect(isRunning(first)).toBe(false);
    expect(isBackgroundRunning(folder, 'talker')).toBe(false);
    talk('second');
    expect(await said('second')).toBe('second\n');
    const file = join(folder, 'logs', 'talker.log');
    expect(readFileSync(file, 'utf8')).toBe('first\nsecond\n');
    expect(statSync(file).mode & 0o077).toBe(0);
    await stopBackground(folder, 'talker');
  });

  it('are turned over when they are large, three older ones kept', () => {
    const file = join(folder, 'logs', 'big.log');
    for (const words of ['one', 'two', 'three', 'four', 'five']) {
      writeFileSync(file, words);
      turnLogsOver(folder, 2);
    }
    expect(readFileSync(file, 'utf8')).toBe('');
    const older = [1, 2, 3].map((number) => readFileSync(`${file}.${number}`, 'utf8'));
    expect(older).toEqual(['five', 'four', 'three']);
    expect(() => readFileSync(`${file}.4`)).toThrow();
  });
});
