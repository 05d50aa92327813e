import { randomUUID } from 'node:crypto';
import { createServer, type Socket } from 'node:net';
import { Cutter, type CutterEvent } from '#devices/cutter/cutter.ts';
import { CUTTER_MODELS } from '#devices/cutter/cutterModel.ts';
import { DecodeError, HpglDecoder, type Instruction } from '#devices/cutter/decodeHpgl.ts';
import { FaultBox } from '#devices/cutter/faults.ts';
import { JobRecord } from '#devices/cutter/jobRecord.ts';
import { obeyPanel, type CutterState } from '#devices/cutter/obeyPanel.ts';
import { listen } from '#devices/listen.ts';
import { takeFromTray } from '#devices/tray.ts';

export interface CutterOptions {
  /** The folder that is the table where printed sheets lie; left out, prints come from elsewhere. */
  readonly tray?: string | undefined;
  readonly model: 'desk' | 'roll';
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

/** Instructions that wait to be done: a cutter takes no more bytes until there is room. */
const BUFFER = 12;
const SLOW_MS = 400;

/**
 * Opens a stand-in cutter on loopback: the data port takes HPGL bytes and answers with one JSON event a line; the
 * panel port takes one JSON order a line, for what hands do at a machine. One job at a time. When the link breaks, what
 * has arrived whole is still cut, and the panel tells how far it got.
 */
export async function serveCutter(options: CutterOptions): Promise<CutterService> {
  const sockets = new Set<Socket>();
  const state: CutterState = {
    bootId: randomUUID(),
    record: new JobRecord(),
    faults: new FaultBox(),
    listener: null,
    cutter: null as unknown as Cutter,
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
    },
    (widthMm, heightMm) => (options.tray ? takeFromTray(options.tray, widthMm, heightMm) : null),
  );
  const data = createServer((socket) => {
    track(sockets, socket);
    if (state.isBusy) {
      socket.end(line({ event: 'stopped', reason: 'the cutter is busy with another job' }));
      return;
    }
    if (!state.record.begin()) {
      socket.end(line({ event: 'stopped', reason: 'this job was cut already: load it anew' }));
      return;
    }
    new JobLine(socket, state).open();
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

/** One job on its link: takes bytes while there is room, does what they say, reports. */
class JobLine {
  private readonly decoder = new HpglDecoder();
  private readonly queue: Instruction[] = [];
  private readonly bootId: string;
  private isWorking = false;
  private isOver = false;
  private isCut = false;

  constructor(
    private readonly socket: Socket,
    private readonly state: CutterState,
  ) {
    this.bootId = state.bootId;
  }

  open(): void {
    this.state.isBusy = true;
    this.state.listener = (event) => this.tell(event);
    this.socket.on('data', (bytes) => this.take(bytes));
    this.socket.on('close', () => this.breakOff());
    this.socket.on('error', () => this.breakOff());
  }

  private take(bytes: Buffer): void {
    try {
      this.queue.push(...this.decoder.push(bytes));
      if (this.queue.length > BUFFER) this.socket.pause();
      void this.work();
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
      this.report({ event: 'stopped', reason: error.message });
      this.finish();
    }
  }

  private async work(): Promise<void> {
    if (this.isWorking) return;
    this.isWorking = true;
    for (let next = this.queue.shift(); next && !this.isOver; next = this.queue.shift()) {
      while (this.state.isPaused && !this.isOver) await pause(20);
      if (this.state.bootId !== this.bootId) return;
      if (next.kind === 'begin') this.state.cutter.disturb(this.state.faults.takeSense());
      if (!(await this.state.cutter.act(next))) this.finish();
      this.strike();
      if (this.queue.length < BUFFER / 2) this.socket.resume();
    }
    this.isWorking = false;
    if (this.isCut && !this.isOver) this.finish();
  }

  /** Lets a fault that is due happen. */
  private strike(): void {
    if (this.isOver) return;
    const strokes = this.state.cutter.strokesCut;
    const fault = this.state.faults.take(
      ['linkLost', 'halfCommand', 'marksNotRead', 'jam', 'panelStop', 'powerLoss'],
      strokes,
    );
    if (fault === 'linkLost' || fault === 'halfCommand') this.socket.destroy();
    if (fault === 'marksNotRead') this.state.cutter.stop('the marks were not found');
    if (fault === 'jam') this.state.cutter.stop('jam: a loose piece caught under the blade');
    if (fault === 'panelStop') this.state.cutter.stop('stopped at the panel');
    if (fault === 'powerLoss') {
      this.isOver = true;
      this.state.losePower();
    }
  }

  /** The link is gone: what arrived whole is still done. */
  private breakOff(): void {
    if (this.isOver) return;
    this.isCut = true;
    if (!this.isWorking) this.finish();
  }

  private finish(): void {
    if (this.isOver) return;
    this.isOver = true;
    this.state.isBusy = false;
    this.state.isPaused = false;
    this.state.listener = null;
    this.state.record.break(this.state.cutter.cutMetres);
    this.socket.end();
  }

  private report(event: CutterEvent): void {
    this.state.record.note(event);
    this.tell(event);
  }

  private tell(event: CutterEvent): void {
    const isSlow = this.state.faults.list().some(({ fault }) => fault === 'slowLink');
    const write = () => this.socket.writable && this.socket.write(line(event));
    if (isSlow && event.event === 'position') setTimeout(write, SLOW_MS);
    else write();
  }
}

function takeOrders(socket: Socket, state: CutterState): void {
  let waiting = '';
  socket.on('error', () => socket.destroy());
  socket.on('data', (bytes) => {
    waiting += bytes.toString('utf8');
    if (waiting.length > 1_000_000) socket.destroy();
    const lines = waiting.split('\n');
    waiting = lines.pop() ?? '';
    for (const text of lines) socket.write(line(obeyPanel(text, state)));
  });
}

function track(sockets: Set<Socket>, socket: Socket): void {
  sockets.add(socket);
  socket.on('close', () => sockets.delete(socket));
  socket.on('error', () => socket.destroy());
}

function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}

function line(value: object): string {
  return `${JSON.stringify(value)}\n`;
}
