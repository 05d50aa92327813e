import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { MachineMemory } from '#core/run/runCourse.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Hands } from '#server/links/link.ts';
import { afterSilence } from '#server/links/hearing.ts';
import { connectTo } from '#server/links/openTcp.ts';
import { splitLines } from '#server/links/splitLines.ts';

const span = z.object({
  from: z.number(),
  to: z.number(),
  grade: z
    .number()
    .int()
    .min(0)
    .max(8)
    .transform((grade) => grade as DepthGrade),
});

/** What may be seen, parsed at this edge. */
const sightSchema = z.discriminatedUnion('event', [
  z.object({ event: z.literal('started') }),
  z.object({ event: z.literal('position'), xMm: z.number(), yMm: z.number(), stroke: z.number() }),
  z.object({ event: z.literal('stroke'), index: z.number().int().min(0), spans: z.array(span) }),
  z.object({ event: z.literal('finished'), cutMetres: z.number().min(0) }),
  z.object({ event: z.literal('stopped'), reason: z.string() }),
]);

const reportSchema = z.object({
  bootId: z.string(),
  job: z
    .object({
      key: z.string().nullable(),
      state: z.enum(['loaded', 'working', 'paused', 'finished', 'stopped', 'broken']),
      reached: z.array(z.object({ index: z.number().int().min(0), spans: z.array(span) })),
      reason: z.string(),
    })
    .nullable(),
});

const REPLY_TIMEOUT_MS = 4_000;
const HOST = '127.0.0.1';

/** Hands and eyes at the panel of a stand-in. */
export function standInHands(panelPort: number): Hands {
  return {
    order: (order) => orderAtPanel(panelPort, order),
    report: async (): Promise<MachineMemory> =>
      reportSchema.parse(await orderAtPanel(panelPort, { order: 'report' })),
    watch: async (onSight, onLost) => {
      const socket = await connectTo(HOST, panelPort);
      let isClosed = false;
      socket.on('error', () => socket.destroy());
      socket.on('close', () => {
        if (!isClosed) onLost();
      });
      socket.on(
        'data',
        splitLines((line) => {
          const sight = sightSchema.safeParse(parseJson(line));
          if (sight.success && !isClosed) onSight(sight.data);
        }),
      );
      // Only once it is confirmed is nothing missed.
      const cease = afterSilence(REPLY_TIMEOUT_MS, () => socket.destroy());
      await new Promise<void>((resolve, reject) => {
        socket.once('data', () => resolve());
        socket.once('close', () => reject(silent()));
        socket.write(`${JSON.stringify({ order: 'watch' })}\n`);
      }).finally(cease);
      return {
        close: () => {
          isClosed = true;
          socket.destroy();
        },
      };
    },
  };
}

async function orderAtPanel(panelPort: number, order: object): Promise<unknown> {
  const socket = await connectTo(HOST, panelPort);
  const cease = afterSilence(REPLY_TIMEOUT_MS, () => socket.destroy(new Error('no reply')));
  const reply = await new Promise<unknown>((resolve, reject) => {
    socket.on(
      'data',
      splitLines((line) => resolve(parseJson(line))),
    );
    const refuse = () => reject(silent());
    socket.once('error', refuse);
    socket.once('close', refuse);
    socket.write(`${JSON.stringify(order)}\n`);
  }).finally(() => {
    cease();
    socket.destroy();
  });
  const said = z.object({ ok: z.boolean(), reason: z.string().default('') }).parse(reply);
  if (!said.ok) {
    throw new AppError(said.reason.includes('busy') ? 'deviceBusy' : 'deviceRefused', `${said.reason}.`);
  }
  return reply;
}

function silent(): AppError {
  return new AppError('deviceUnreachable', 'The panel of the cutter does not answer.');
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return null;
  }
}
