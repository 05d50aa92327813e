import { createServer, type Server, type Socket } from 'node:net';
import { z } from 'zod';
import { Cutter, type CutterEvent } from '#devices/cutter/cutter.ts';
import { CUTTER_MODELS } from '#devices/cutter/cutterModel.ts';
import { DecodeError, HpglDecoder, type Instruction } from '#devices/cutter/decodeHpgl.ts';

const panelOrder = z.discriminatedUnion('order', [
  z.object({
    order: z.literal('load'),
    sheet: z.object({
      key: z.string(),
      family: z.string(),
      darkness: z.number(),
      layers: z.array(z.object({ role: z.string(), caliperUm: z.number().positive() })),
    }),
    exposureMm: z.number().positive(),
    bladeMetres: z.number().min(0),
    isFreshSheet: z.boolean(),
    dialled: z.object({ force: z.number(), speed: z.number().positive() }).optional(),
  }),
  z.object({ order: z.literal('stop') }),
  z.object({ order: z.literal('status') }),
]);

export interface CutterOptions {
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
  close(): Promise<void>;
}

/**
 * Opens a stand-in cutter on loopback: the data port takes HPGL bytes and answers with one JSON event a line; the
 * panel port takes one JSON order a line, for what hands do at a machine. One job at a time.
 */
export async function serveCutter(options: CutterOptions): Promise<CutterService> {
  let listener: ((event: CutterEvent) => void) | null = null;
  const cutter = new Cutter(CUTTER_MODELS[options.model], options.seed, options.pace, (event) =>
    listener?.(event),
  );
  const sockets = new Set<Socket>();
  const data = createServer((socket) => {
    track(sockets, socket);
    if (listener) {
      socket.end(line({ event: 'stopped', reason: 'the cutter is busy with another job' }));
      return;
    }
    listener = (event) => socket.writable && socket.write(line(event));
    takeJob(socket, cutter, () => (listener = null));
  });
  const panel = createServer((socket) => {
    track(sockets, socket);
    takeOrders(socket, cutter, () => listener !== null);
  });
  const dataPort = await listen(data, options.dataPort);
  const panelPort = await listen(panel, options.panelPort);
  return {
    dataPort,
    panelPort,
    close: async () => {
      for (const socket of sockets) socket.destroy();
      await Promise.all([data, panel].map((server) => new Promise((resolve) => server.close(resolve))));
    },
  };
}

/** Queues instructions as bytes arrive and does them one after the other. */
function takeJob(socket: Socket, cutter: Cutter, whenOver: () => void): void {
  const decoder = new HpglDecoder();
  const queue: Instruction[] = [];
  let isWorking = false;
  let isOver = false;
  const work = async () => {
    if (isWorking) return;
    isWorking = true;
    for (let next = queue.shift(); next && !isOver; next = queue.shift()) {
      if (!(await cutter.act(next))) finish();
    }
    isWorking = false;
  };
  const finish = () => {
    if (isOver) return;
    isOver = true;
    whenOver();
    socket.end();
  };
  socket.on('data', (bytes) => {
    try {
      queue.push(...decoder.push(bytes));
      void work();
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
      socket.write(line({ event: 'stopped', reason: error.message }));
      finish();
    }
  });
  socket.on('close', finish);
  socket.on('error', finish);
}

function takeOrders(socket: Socket, cutter: Cutter, isBusy: () => boolean): void {
  let waiting = '';
  socket.on('error', () => socket.destroy());
  socket.on('data', (bytes) => {
    waiting += bytes.toString('utf8');
    if (waiting.length > 1_000_000) socket.destroy();
    const lines = waiting.split('\n');
    waiting = lines.pop() ?? '';
    for (const text of lines) socket.write(line(obey(text, cutter, isBusy())));
  });
}

function obey(text: string, cutter: Cutter, isBusy: boolean): object {
  try {
    const order = panelOrder.parse(JSON.parse(text));
    if (order.order === 'stop') cutter.stop('stopped at the panel');
    if (order.order === 'load') {
      if (isBusy) return { ok: false, reason: 'the cutter is busy with another job' };
      cutter.load(order);
    }
    return { ok: true, isBusy };
  } catch (error) {
    return { ok: false, reason: error instanceof Error ? error.message.slice(0, 200) : 'unreadable order' };
  }
}

function track(sockets: Set<Socket>, socket: Socket): void {
  sockets.add(socket);
  socket.on('close', () => sockets.delete(socket));
}

function line(value: object): string {
  return `${JSON.stringify(value)}\n`;
}

function listen(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : port);
    });
  });
}
