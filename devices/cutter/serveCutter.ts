import { randomUUID } from 'node:crypto';
import { createServer, type Socket } from 'node:net';
import { Cutter, type CutterEvent } from '#devices/cutter/cutter.ts';
import { CUTTER_MODELS, type CutterName } from '#devices/cutter/cutterModel.ts';
import { FaultBox } from '#devices/cutter/faults.ts';
import { JobRecord } from '#devices/cutter/jobRecord.ts';
import { obeyPanel, type CutterState } from '#devices/cutter/obeyPanel.ts';
import { line } from '#devices/cutter/jobWork.ts';
import { talkGcode } from '#devices/cutter/talkGcode.ts';
import { talkHpgl } from '#devices/cutter/talkHpgl.ts';
import { listen } from '#devices/listen.ts';
import { takeFromTray } from '#devices/tray.ts';

export interface CutterOptions {
  /** The folder that is the table where printed sheets lie; left out, prints come from elsewhere. */
  readonly tray?: string | undefined;
  readonly model: CutterName;
  /** 0 takes any free port. */
  readonly dataPort: number;
  readonly panelPort: number;
  readonly seed: number;
  readonly pace: number;
}

export interface CutterService {
  readonly dataPort: number;
  readonly panelPort: number;
  /** What a page beside it may show. */
  readonly state: CutterState;
  close(): Promise<void>;
}

/**
 * Opens a stand-in cutter on loopback: the data port takes bytes in its language and answers as a machine of that
 * language does; the panel port takes one JSON order a line, for what hands do at a machine, and tells whoever watches
 * what is seen. One job at a time. When the link breaks, what
 * has arrived whole is still cut, and the panel tells how far it got.
 */
export async function serveCutter(options: CutterOptions): Promise<CutterService> {
  const sockets = new Set<Socket>();
  const state = makeState(options, sockets);
  const refuse = (reason: string) =>
    CUTTER_MODELS[options.model].language === 'gcode'
      ? `alarm: ${reason}\n`
      : line({ event: 'stopped', reason });
  const data = createServer((socket) => {
    track(sockets, socket);
    if (state.isBusy) {
      socket.end(refuse('the cutter is busy with another job'));
      return;
    }
    if (!state.record.begin()) {
      socket.end(refuse('this job was cut already: load it anew'));
      return;
    }
    if (CUTTER_MODELS[options.model].language === 'gcode') talkGcode(socket, state);
    else talkHpgl(socket, state);
  });
  const panel = createServer((socket) => {
    track(sockets, socket);
    takeOrders(socket, state);
  });
  const dataPort = await listen(data, options.dataPort);
  const panelPort = await listen(panel, options.panelPort);
  return {
    dataPort,
    panelPort,
    state,
    close: async () => {
      state.cutter.stop('switched off');
      for (const socket of sockets) socket.destroy();
      await Promise.all([data, panel].map((server) => new Promise((resolve) => server.close(resolve))));
    },
  };
}

/** A cutter that was just switched on. */
function makeState(options: CutterOptions, sockets: ReadonlySet<Socket>): CutterState {
  const state: CutterState = {
    bootId: randomUUID(),
    record: new JobRecord(),
    faults: new FaultBox(),
    listener: null,
    watchers: new Set(),
    cutter: null as unknown as Cutter,
    pace: options.pace,
    isBusy: false,
    isPaused: false,
    losePower: () => {
      state.bootId = randomUUID();
      state.record.forget();
      state.isBusy = false;
      state.isPaused = false;
      for (const socket of sockets) socket.destroy();
    },
  };
  state.cutter = new Cutter(
    CUTTER_MODELS[options.model],
    options.seed,
    options.pace,
    (event) => {
      state.record.note(event);
      state.listener?.(event);
      for (const watch of state.watchers) watch(event);
    },
    (widthMm, heightMm) => (options.tray ? takeFromTray(options.tray, widthMm, heightMm) : null),
  );
  return state;
}

function takeOrders(socket: Socket, state: CutterState): void {
  let waiting = '';
  socket.on('error', () => socket.destroy());
  socket.on('data', (bytes) => {
    waiting += bytes.toString('utf8');
    if (waiting.length > 1_000_000) socket.destroy();
    const lines = waiting.split('\n');
    waiting = lines.pop() ?? '';
    for (const text of lines) {
      socket.write(line(obeyPanel(text, state)));
      if (/"order":\s*"watch"/.test(text)) state.watchers.add(watch);
    }
  });
  const watch = (event: CutterEvent) => void (socket.writable && socket.write(line(event)));
  socket.on('close', () => state.watchers.delete(watch));
}

function track(sockets: Set<Socket>, socket: Socket): void {
  sockets.add(socket);
  socket.on('close', () => sockets.delete(socket));
  socket.on('error', () => socket.destroy());
}
