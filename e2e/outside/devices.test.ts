import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, createReadStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { ROOT } from '#commands/homeFolder.ts';
import { makeLine, type Line } from '#e2e/support/linePair.ts';
import { deviceWords } from '#server/links/linkProblem.ts';
import { openDevice } from '#server/links/openDevice.ts';
import { openSerial } from '#server/links/openSerial.ts';

/** Serial lines over pseudo-terminals made by socat, and device files over FIFOs and pseudo-terminals. */
const folder = mkdtempSync(join(tmpdir(), 'feather-devices-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const lines: Line[] = [];
afterEach(async () => {
  for (const line of lines.splice(0)) await line.unplug();
});

const serial = (path: string) => ({ path, baudRate: 115_200, handshake: 'none' as const });
const pair = async () => {
  const line = await makeLine((at) => `pty,raw,echo=0,link=${join(at, 'machine')}`);
  lines.push(line);
  return { near: line.path, far: join(line.folder, 'machine'), unplug: line.unplug };
};

/** The system lets its root in everywhere: somebody without rights tries. @returns what was said */
function openAsNobody(path: string): string {
  const script = `import { openDevice } from '#server/links/openDevice.ts';
    openDevice(process.argv[1]).then(() => console.log('opened'), (error) => console.log(error.message));`;
  chmodSync(folder, 0o755);
  return execFileSync(process.execPath, ['--import', 'tsx', '--input-type=module', '--eval', script, path], {
    cwd: ROOT,
    uid: 65_534,
    gid: 65_534,
    encoding: 'utf8',
    env: { ...process.env, HOME: '/tmp', TMPDIR: '/tmp' },
  });
}

describe('a serial line', () => {
  it('carries bytes there and lines back', async () => {
    const { near, far } = await pair();
    const channel = await openSerial(serial(near));
    const machine = await openSerial(serial(far));
    const heard: string[] = [];
    const got: string[] = [];
    channel.onLine((line) => heard.push(line));
    machine.onLine((line) => got.push(line));
    const text = Array.from({ length: 2000 }, (_, index) => `G1 X${index} Y${index}\n`).join('');
    await channel.write(text);
    await machine.write('ok\r\nok\n');
    await expect.poll(() => got.length).toBe(2000);
    expect(`${got.join('\n')}\n`).toBe(text);
    // What the machine says comes back by the other way: it may take a moment longer.
    await expect.poll(() => heard).toEqual(['ok', 'ok']);
    await Promise.all([channel.end(), machine.end()]);
    expect(await channel.ended).toEqual({ kind: 'closed' });
  });

  it('that is not there is refused with what to do', async () => {
    await expect(openSerial(serial('/dev/ttyNOT0'))).rejects.toMatchObject({
      code: 'deviceUnreachable',
      message: /There is no \/dev\/ttyNOT0\. Is the machine on and plugged in/,
    });
  });

  it('that another program holds is refused as busy', async () => {
    const { near } = await pair();
    const first = await openSerial(serial(near));
    await expect(openSerial(serial(near))).rejects.toMatchObject({
      code: 'deviceBusy',
      message: /Another program is using/,
    });
    await first.end();
  });

  it('unplugged while it is open is lost, in words', async () => {
    const { near, unplug } = await pair();
    const channel = await openSerial(serial(near));
    await channel.write('IN;');
    await unplug();
    lines.pop();
    expect(await channel.ended).toMatchObject({ kind: 'lost', reason: /unplugged or switched off/ });
    await expect(channel.write('PU;')).rejects.toMatchObject({ code: 'deviceUnreachable' });
  });

  it('unplugged in the middle of a word is lost too, each of forty times', async () => {
    // A line that is pulled while it is read from is told by the system in another way, one time in twenty.
    const talker = createServer((socket) => {
      const timer = setInterval(() => socket.write('ok\n'), 1);
      socket.on('error', () => undefined).on('close', () => clearInterval(timer));
    }).listen(0, '127.0.0.1');
    await once(talker, 'listening');
    const address = talker.address();
    if (address === null || typeof address === 'string') throw new Error('no port');
    for (let round = 0; round < 40; round++) {
      const line = await makeLine(() => `tcp:127.0.0.1:${address.port}`);
      const channel = await openSerial(serial(line.path));
      const heard = new Promise<void>((resolve) => channel.onLine(() => resolve()));
      await heard;
      await new Promise((resolve) => setTimeout(resolve, round / 4));
      await line.unplug();
      expect(await channel.ended).toMatchObject({ kind: 'lost', reason: /unplugged or switched off/ });
    }
    talker.close();
  });
});

describe('a device file', () => {
  const fifo = (name: string) => {
    const path = join(folder, name);
    execFileSync('mkfifo', [path]);
    return path;
  };

  it('gets every byte, however slowly the machine takes them', async () => {
    const path = fifo('slow');
    const reader = createReadStream(path, { highWaterMark: 4096 });
    let got = '';
    reader.on('data', (bytes) => {
      got += String(bytes);
      reader.pause();
      setTimeout(() => reader.resume(), 5);
    });
    await new Promise((resolve) => setTimeout(resolve, 50));
    const channel = await openDevice(path);
    const text = 'PD1,2,3,4;\n'.repeat(20_000);
    await channel.write(text);
    await channel.end();
    await expect.poll(() => got.length).toBe(text.length);
    expect(await channel.ended).toEqual({ kind: 'closed' });
  });

  it('that is full and is given up holds nobody: the write ends when the channel is cut', async () => {
    const path = fifo('full');
    const reader = createReadStream(path).pause();
    await new Promise((resolve) => setTimeout(resolve, 50));
    const channel = await openDevice(path);
    const writing = channel.write('PD1,2;'.repeat(100_000));
    await new Promise((resolve) => setTimeout(resolve, 100));
    channel.cut();
    await expect(writing).rejects.toMatchObject({ code: 'deviceUnreachable' });
    reader.destroy();
  });

  it('nobody is behind is refused at once, and so is what is no device', async () => {
    await expect(openDevice(fifo('nobody'))).rejects.toMatchObject({ message: /Nothing is behind/ });
    const plain = join(folder, 'plain');
    writeFileSync(plain, '');
    await expect(openDevice(plain)).rejects.toMatchObject({ message: /no device that a machine is behind/ });
    await expect(openDevice(folder)).rejects.toMatchObject({ message: /folder/ });
    await expect(openDevice(join(folder, 'none'))).rejects.toMatchObject({ message: /There is no/ });
  });

  it('unplugged in the middle is lost, in words', async () => {
    const path = fifo('unplugged');
    const reader = createReadStream(path, { highWaterMark: 1024 });
    reader.once('data', () => reader.destroy());
    await new Promise((resolve) => setTimeout(resolve, 50));
    const channel = await openDevice(path);
    await expect(channel.write('PD1,2;'.repeat(100_000))).rejects.toMatchObject({
      code: 'deviceUnreachable',
    });
    expect(await channel.ended).toMatchObject({ kind: 'lost', reason: /unplugged or switched off/ });
  });

  it('without rights is refused with the group that helps', async () => {
    const words = deviceWords(Object.assign(new Error('no'), { code: 'EACCES' }), '/dev/usb/lp0');
    expect(words).toMatch(/group that owns it.*ls -l \/dev\/usb\/lp0.*lp for printer devices/);
    const path = fifo('locked');
    chmodSync(path, 0);
    const refusal = userInfo().uid === 0 ? openAsNobody(path) : await openDevice(path).catch(String);
    expect(refusal).toContain(words.replaceAll('/dev/usb/lp0', path));
  });
});
