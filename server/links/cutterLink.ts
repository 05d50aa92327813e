import { connect, type Socket } from 'node:net';
import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';

/** Where a cutter listens. A real one has no panel port and says nothing back. */
export interface CutterAddress {
  readonly host: string;
  readonly dataPort: number;
  readonly panelPort: number | null;
}

export const spanSchema = z.object({
  from: z.number(),
  to: z.number(),
  grade: z.number().int().min(0).max(8),
});

/** What a cutter may report, parsed at this edge. */
const reportSchema = z.discriminatedUnion('event', [
  z.object({ event: z.literal('started') }),
  z.object({ event: z.literal('position'), xMm: z.number(), yMm: z.number(), stroke: z.number() }),
  z.object({ event: z.literal('stroke'), index: z.number().int().min(0), spans: z.array(spanSchema) }),
  z.object({ event: z.literal('finished'), cutMetres: z.number().min(0) }),
  z.object({ event: z.literal('stopped'), reason: z.string() }),
]);
export type CutterReport = z.infer<typeof reportSchema>;

/** How sending ended. `silent`: a cutter that reports nothing took all bytes. */
export type SendResult =
  | { readonly kind: 'finished'; readonly cutMetres: number }
  | { readonly kind: 'stopped'; readonly reason: string }
  | { readonly kind: 'silent' };

const CONNECT_TIMEOUT_MS = 4_000;
const REPLY_TIMEOUT_MS = 4_000;

/**
 * Sends a machine file to a cutter and hands on its reports until it is done.
 *
 * @throws AppError `deviceUnreachable` when it does not answer or hangs up half-way
 */
export async function sendToCutter(
  address: CutterAddress,
  machineFile: string,
  onReport: (report: CutterReport) => void,
): Promise<SendResult> {
  const socket = await open(address.host, address.dataPort);
  return new Promise((resolve, reject) => {
    let waiting = '';
    let result: SendResult | null = address.panelPort === null ? { kind: 'silent' } : null;
    socket.on('data', (bytes) => {
      const lines = (waiting + bytes.toString('utf8')).split('\n');
      waiting = lines.pop() ?? '';
      for (const line of lines) {
        const report = reportSchema.safeParse(parseJson(line));
        if (!report.success) continue;
        onReport(report.data);
        result = resultOf(report.data) ?? result;
      }
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      if (result) resolve(result);
      else
        reject(new AppError('deviceUnreachable', 'The link to the cutter broke before it said it was done.'));
    });
    socket.write(machineFile, () => {
      if (address.panelPort === null) socket.end();
    });
  });
}

/**
 * Gives a stand-in's panel one order: what hands do at a real machine.
 *
 * @returns what the panel said; `null` for a machine without one
 * @throws AppError `deviceUnreachable`, or `deviceRefused` with the reason it gave
 */
export async function orderAtPanel(address: CutterAddress, order: object): Promise<unknown> {
  if (address.panelPort === null) return null;
  const socket = await open(address.host, address.panelPort);
  const reply = await new Promise<unknown>((resolve, reject) => {
    socket.setTimeout(REPLY_TIMEOUT_MS, () => socket.destroy(new Error('no reply')));
    let waiting = '';
    socket.on('data', (bytes) => {
      waiting += bytes.toString('utf8');
      if (waiting.endsWith('\n')) resolve(parseJson(waiting));
    });
    const refuse = () =>
      reject(new AppError('deviceUnreachable', 'The panel of the cutter does not answer.'));
    socket.once('error', refuse);
    socket.once('close', refuse);
    socket.write(`${JSON.stringify(order)}\n`);
  }).finally(() => socket.destroy());
  const said = z.object({ ok: z.boolean(), reason: z.string().default('') }).parse(reply);
  if (!said.ok)
    throw new AppError(said.reason.includes('busy') ? 'deviceBusy' : 'deviceRefused', `${said.reason}.`);
  return reply;
}

function resultOf(report: CutterReport): SendResult | null {
  if (report.event === 'finished') return { kind: 'finished', cutMetres: report.cutMetres };
  return report.event === 'stopped' ? { kind: 'stopped', reason: report.reason } : null;
}

function open(host: string, port: number): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    const refuse = () => {
      socket.destroy();
      reject(
        new AppError(
          'deviceUnreachable',
          `No cutter answers at ${host}, port ${port}. Is it on and connected?`,
        ),
      );
    };
    socket.setTimeout(CONNECT_TIMEOUT_MS, refuse);
    socket.once('error', refuse);
    socket.once('connect', () => {
      socket.setTimeout(0);
      socket.off('error', refuse);
      resolve(socket);
    });
  });
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}
