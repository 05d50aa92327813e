import { createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { findFreePort } from '#commands/ports/freePort.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { plotterFile, samplePlan } from '#core/tests/sampleJob.ts';
import { TimeGiven } from '#store/tests/timeGiven.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { sampleVinyl } from '#devices/tests/sampleVinyl.ts';
import { carryFile, strokesOf } from '#e2e/support/carryFile.ts';
import type { Channel } from '#server/links/link.ts';
import { openTcp } from '#server/links/openTcp.ts';
import { refuseOwnAddress } from '#server/links/refuseOwnAddress.ts';
import { standInHands } from '#server/links/standInHands.ts';

/** The application's own links against the stand-in and against machines that misbehave, over real sockets. */
const open: { close: () => unknown }[] = [];
afterEach(async () => {
  for (const one of open.splice(0)) await one.close();
});

const sheet = sampleVinyl('link test');
const load = { order: 'load', sheet, exposureMm: 0.4, bladeMetres: 0, isFreshSheet: true };
function planOf(svg: string, force: number, passes = 1) {
  const values = { force, passes, exposureMm: 0.4, speed: 200, offsetMm: 0.25, overcutMm: 0.5 };
  const drawing = readSvg(svg);
  const roles = Object.fromEntries(
    drawing.contours.map((line) => [`|${line.strokeColour ?? 'none'}`, 'kiss' as const]),
  );
  return samplePlan(drawing.contours, roles, { kiss: values }, { sheetHeightMm: 40 });
}

const circles =
  '<svg width="60mm" height="40mm" viewBox="0 0 60 40" fill="none" stroke="#f00"><circle cx="15" cy="20" r="10"/><circle cx="45" cy="20" r="10"/></svg>';
const fileOf = (force: number, passes = 1, carriesNumbers = true) =>
  writeMachineFile(planOf(circles, force, passes).passes, 40, plotterFile(carriesNumbers));

async function standIn(
  pace = 400,
): Promise<{ service: CutterService; order: (order: object) => Promise<unknown> }> {
  const service = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 2, pace });
  open.push(service);
  return { service, order: standInHands(service.panelPort).order };
}

/** A machine that does what the test wants with a connection. */
async function oddMachine(behave: (socket: Socket) => void): Promise<number> {
  const port = await findFreePort();
  const sockets = new Set<Socket>();
  const server: Server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => socket.destroy());
    behave(socket);
  });
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  open.push({
    close: () => {
      for (const socket of sockets) socket.destroy();
      server.close();
    },
  });
  return port;
}

const connect = (port: number): Promise<Channel> => openTcp('127.0.0.1', port);

describe('a machine file carried to the stand-in', () => {
  it('is seen cut stroke by stroke in our order, and the metres are those we planned (1 %)', async () => {
    const { service, order } = await standIn();
    await order(load);
    const sights = await carryFile(service, fileOf(90));
    expect(strokesOf(sights).map(({ index }) => index)).toEqual([0, 1]);
    const planned = planOf(circles, 90).cutMm / 1000;
    const finished = sights.find((sight) => sight.event === 'finished');
    expect(Math.abs((finished?.event === 'finished' ? finished.cutMetres : 0) / planned - 1)).toBeLessThan(
      0.01,
    );
  });

  it('cuts deeper with more force and with another pass, as our model supposes', async () => {
    const { service, order } = await standIn();
    const deepest = async (force: number, passes: number) => {
      await order(load);
      const strokes = strokesOf(await carryFile(service, fileOf(force, passes)));
      return Math.max(...strokes.flatMap(({ spans }) => spans.map(({ grade }) => grade)));
    };
    const light = await deepest(70, 1);
    expect(await deepest(70, 4)).toBeGreaterThan(light);
    expect(await deepest(250, 1)).toBeGreaterThan(light);
  });

  it('takes force and speed from the panel where the file carries none', async () => {
    const { service, order } = await standIn();
    await order(load);
    expect((await carryFile(service, fileOf(90, 1, false))).at(-1)).toMatchObject({
      event: 'stopped',
      reason: /no force was set/,
    });
    await order({ ...load, dialled: { force: 90, speed: 200 } });
    expect((await carryFile(service, fileOf(90, 1, false))).at(-1)?.event).toBe('finished');
  });

  it('finds the sheet as it was left while the same one stays in', async () => {
    const { service, order } = await standIn();
    const gradeOf = async (isFreshSheet: boolean) => {
      await order({ ...load, isFreshSheet });
      const [first] = strokesOf(await carryFile(service, fileOf(70)));
      return Math.max(...first!.spans.map(({ grade }) => grade));
    };
    const first = await gradeOf(true);
    await gradeOf(false);
    await gradeOf(false);
    expect(await gradeOf(false)).toBeGreaterThan(first);
  });

  it('keeps the cutter busy while it is cut, and frees it when the link breaks', async () => {
    const { service, order } = await standIn(1);
    await order(load);
    const channel = await connect(service.dataPort);
    await channel.write(fileOf(90));
    await new Promise((resolve) => setTimeout(resolve, 150));
    await expect(order(load)).rejects.toMatchObject({ code: 'deviceBusy' });
    await service.close();
    open.splice(0);
    expect(await channel.ended).toMatchObject({ kind: 'lost' });
  });

  it('loaded and stopped at the panel before its first byte is not cut any more', async () => {
    const { service, order } = await standIn();
    await order({ ...load, jobKey: 'early' });
    await order({ order: 'stop' });
    expect(
      (await carryFile(service, fileOf(90)).catch(() => [])).filter(({ event }) => event === 'stroke'),
    ).toEqual([]);
    expect(service.state.cutter.sheetStrokes).toEqual([]);
  });

  it('refuses at the panel with its reason', async () => {
    const { order } = await standIn();
    await expect(order({ order: 'dance' })).rejects.toMatchObject({ code: 'deviceRefused' });
  });
});

describe('a channel to an address', () => {
  it('that nobody listens at is refused with address and port', async () => {
    const port = await findFreePort();
    await expect(connect(port)).rejects.toMatchObject({
      code: 'deviceUnreachable',
      message: `No cutter answers at 127.0.0.1, port ${port}. Is it on and connected?`,
    });
    await expect(standInHands(port).order({ order: 'status' })).rejects.toMatchObject({
      code: 'deviceUnreachable',
    });
  });

  it('lets every byte out before it hangs up', async () => {
    let received = '';
    const port = await oddMachine((socket) => socket.on('data', (bytes) => (received += bytes.toString())));
    const channel = await connect(port);
    await channel.write(fileOf(90));
    await channel.end();
    expect(await channel.ended).toEqual({ kind: 'closed' });
    expect(received).toBe(fileOf(90));
  });

  it.each([
    ['hangs up', (socket: Socket) => socket.end(), /hung up/],
    ['resets', (socket: Socket) => socket.resetAndDestroy(), /broke the link/],
  ] as const)('is lost, with the reason, when the other side %s', async (_, leave, words) => {
    const port = await oddMachine((socket) => socket.once('data', () => leave(socket)));
    const channel = await connect(port);
    await channel.write('IN;');
    expect(await channel.ended).toMatchObject({ kind: 'lost', reason: words });
    await expect(channel.write('PU;')).rejects.toMatchObject({ code: 'deviceUnreachable' });
  });

  it('hands on whole lines, however they are cut up, and drops a line that never ends', async () => {
    const port = await oddMachine((socket) => {
      socket.write('o');
      setTimeout(() => socket.write('k\r\nerror: no'), 20);
      setTimeout(() => socket.write(`\n${'x'.repeat(150_000)}`), 40);
      setTimeout(() => socket.write('\nok\n'), 120);
    });
    const channel = await connect(port);
    const lines: string[] = [];
    channel.onLine((line) => lines.push(line));
    await expect.poll(() => lines.length).toBeGreaterThanOrEqual(3);
    expect(lines[0]).toBe('ok');
    expect(lines[1]).toBe('error: no');
    expect(lines.at(-1)).toBe('ok');
    expect(lines.join('').length).toBeLessThan(150_000);
    channel.cut();
  });

  it('ends after 3 s where the other side never hangs up, and at once when it is cut', async () => {
    const port = await oddMachine((socket) => socket.pause());
    const slow = await connect(port);
    const time = new TimeGiven();
    await slow.end();
    expect(time.ms()).toBeLessThan(4000);
    const quick = await connect(port);
    quick.cut();
    expect(await quick.ended).toEqual({ kind: 'closed' });
  });
});

describe('an address that is the application’s own', () => {
  const own = [{ host: 'localhost', port: 3306, words: 'the application’s own database' }];

  it.each(['127.0.0.1', 'localhost', '127.8.8.8', '0.0.0.0', '::1', '[::1]', '::ffff:127.0.0.1'])(
    'is refused, however it is written: %s',
    async (host) => {
      await expect(refuseOwnAddress({ host, port: 3306 }, own)).rejects.toMatchObject({
        code: 'badInput',
        message: `${host}, port 3306, is the application’s own database: no cutter listens there.`,
      });
    },
  );

  it('leaves other ports, other hosts and names that lead nowhere alone', async () => {
    await expect(refuseOwnAddress({ host: '127.0.0.1', port: 9100 }, own)).resolves.toBeUndefined();
    await expect(refuseOwnAddress({ host: '192.0.2.9', port: 3306 }, own)).resolves.toBeUndefined();
    await expect(
      refuseOwnAddress({ host: 'no.such.host.invalid', port: 3306 }, own),
    ).resolves.toBeUndefined();
  });
});
