import { createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { samplePlan } from '#core/tests/sampleJob.ts';
import { readSvg } from '#core/drawing/readSvg.ts';
import { writeHpgl } from '#core/protocol/writeHpgl.ts';
import { findFreePort } from '#commands/freePort.ts';
import { sampleVinyl } from '#devices/tests/sampleVinyl.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { orderAtPanel, sendToCutter, type CutterReport } from '#server/links/cutterLink.ts';

/** The application's own link against the stand-in and against cutters that misbehave, over real sockets. */
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
  writeHpgl(planOf(circles, force, passes).passes, 40, { unitsPerMm: 40, carriesNumbers });

async function standIn(
  pace = 400,
): Promise<{ service: CutterService; address: { host: string; dataPort: number; panelPort: number } }> {
  const service = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 2, pace });
  open.push(service);
  return {
    service,
    address: { host: '127.0.0.1', dataPort: service.dataPort, panelPort: service.panelPort },
  };
}

/** A cutter that does what the test wants with a connection. */
async function oddCutter(behave: (socket: Socket) => void): Promise<number> {
  const port = await findFreePort();
  const server: Server = createServer((socket) => {
    socket.on('error', () => socket.destroy());
    behave(socket);
  });
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  open.push(server);
  return port;
}

async function send(address: Parameters<typeof sendToCutter>[0], file: string) {
  const reports: CutterReport[] = [];
  const result = await sendToCutter(address, file, (report) => reports.push(report));
  return { result, strokes: reports.filter((report) => report.event === 'stroke') };
}

describe('sending our machine file to the stand-in', () => {
  it('gets a report of every stroke in our order, and the metres that we planned (1 %)', async () => {
    const { address } = await standIn();
    await orderAtPanel(address, load);
    const { result, strokes } = await send(address, fileOf(90));
    expect(strokes.map((stroke) => stroke.index)).toEqual([0, 1]);
    const planned = planOf(circles, 90).cutMm / 1000;
    expect(result.kind).toBe('finished');
    expect(Math.abs((result.kind === 'finished' ? result.cutMetres : 0) / planned - 1)).toBeLessThan(0.01);
  });

  it('cuts deeper with more force and with another pass, as our model supposes', async () => {
    const { address } = await standIn();
    const deepest = async (force: number, passes: number) => {
      await orderAtPanel(address, load);
      const { strokes } = await send(address, fileOf(force, passes));
      return Math.max(
        ...strokes.flatMap((stroke) =>
          stroke.event === 'stroke' ? stroke.spans.map((span) => span.grade) : [],
        ),
      );
    };
    const light = await deepest(70, 1);
    expect(await deepest(70, 4)).toBeGreaterThan(light);
    expect(await deepest(250, 1)).toBeGreaterThan(light);
  });

  it('takes force and speed from the panel where the file carries none', async () => {
    const { address } = await standIn();
    await orderAtPanel(address, load);
    expect((await send(address, fileOf(90, 1, false))).result).toMatchObject({
      kind: 'stopped',
      reason: /no force was set/,
    });
    await orderAtPanel(address, { ...load, dialled: { force: 90, speed: 200 } });
    expect((await send(address, fileOf(90, 1, false))).result.kind).toBe('finished');
  });

  it('remembers what was cut while the same sheet stays in', async () => {
    const { address } = await standIn();
    const gradeOf = async (isFreshSheet: boolean) => {
      await orderAtPanel(address, { ...load, isFreshSheet });
      const { strokes } = await send(address, fileOf(70));
      return strokes[0]?.event === 'stroke' ? Math.max(...strokes[0].spans.map((span) => span.grade)) : -1;
    };
    const first = await gradeOf(true);
    await gradeOf(false);
    await gradeOf(false);
    expect(await gradeOf(false)).toBeGreaterThan(first);
  });

  it('frees the cutter when the link breaks, so that the next job gets through', async () => {
    const { address, service } = await standIn(1);
    await orderAtPanel(address, load);
    const broken = sendToCutter(address, fileOf(90), () => undefined);
    await new Promise((resolve) => setTimeout(resolve, 150));
    await expect(orderAtPanel(address, load)).rejects.toMatchObject({ code: 'deviceBusy' });
    await service.close();
    open.splice(0);
    await expect(broken).rejects.toMatchObject({ code: 'deviceUnreachable' });
  });
});

describe('cutters that misbehave', () => {
  it('are not there: said with address and port', async () => {
    const dataPort = await findFreePort();
    const address = { host: '127.0.0.1', dataPort, panelPort: dataPort };
    await expect(sendToCutter(address, 'IN;', () => undefined)).rejects.toMatchObject({
      code: 'deviceUnreachable',
      message: `No cutter answers at 127.0.0.1, port ${dataPort}. Is it on and connected?`,
    });
    await expect(orderAtPanel(address, { order: 'status' })).rejects.toMatchObject({
      code: 'deviceUnreachable',
    });
  });

  it('hang up half-way: an error, never a finished run', async () => {
    const dataPort = await oddCutter((socket) =>
      socket.once('data', () => socket.end('{"event":"started"}\n')),
    );
    const address = { host: '127.0.0.1', dataPort, panelPort: dataPort };
    await expect(sendToCutter(address, 'IN;', () => undefined)).rejects.toMatchObject({
      message: /broke before/,
    });
  });

  it('talk nonsense: only reports that can be read are handed on', async () => {
    const dataPort = await oddCutter((socket) =>
      socket.once('data', () =>
        socket.end(
          'hello\n{"event":"stroke","index":-1}\n{"event":"position","xMm":1,"yMm":2,"stroke":0}\n{"event":"finished","cutMetres":1}\n',
        ),
      ),
    );
    const reports: CutterReport[] = [];
    const address = { host: '127.0.0.1', dataPort, panelPort: dataPort };
    const result = await sendToCutter(address, 'IN;', (report) => reports.push(report));
    expect(result).toEqual({ kind: 'finished', cutMetres: 1 });
    expect(reports.map((report) => report.event)).toEqual(['position', 'finished']);
  });

  it('say nothing, like a real one: every byte arrives and the result is called silent', async () => {
    let received = '';
    const dataPort = await oddCutter((socket) =>
      socket.on('data', (bytes) => (received += bytes.toString())),
    );
    const file = fileOf(90);
    const result = await sendToCutter(
      { host: '127.0.0.1', dataPort, panelPort: null },
      file,
      () => undefined,
    );
    expect(result).toEqual({ kind: 'silent' });
    expect(received).toBe(file);
    await expect(orderAtPanel({ host: '127.0.0.1', dataPort, panelPort: null }, {})).resolves.toBeNull();
  });

  it('refuse at the panel with their reason', async () => {
    const { address } = await standIn();
    await expect(orderAtPanel(address, { order: 'dance' })).rejects.toMatchObject({ code: 'deviceRefused' });
  });
});
