import { z } from 'zod';
import type { Cutter, CutterEvent } from '#devices/cutter/cutter.ts';
import { FAULT_WORDS, faultSchema, type FaultBox } from '#devices/cutter/faults.ts';
import { MASK_TAPES } from '#devices/cutter/sheet/printedMarks.ts';
import type { JobRecord } from '#devices/cutter/jobRecord.ts';

/** All that one stand-in is at the moment. */
export interface CutterState {
  /** Another one after every loss of power. */
  bootId: string;
  readonly record: JobRecord;
  readonly faults: FaultBox;
  cutter: Cutter;
  listener: ((event: CutterEvent) => void) | null;
  /** Eyes that look on. */
  readonly watchers: Set<(event: CutterEvent) => void>;
  /** How many times faster than real time passes. */
  readonly pace: number;
  isBusy: boolean;
  isPaused: boolean;
  readonly losePower: () => void;
}

const panelOrder = z.discriminatedUnion('order', [
  z.object({
    order: z.literal('load'),
    /** Names the job that follows; a job of the same name is never cut twice. */
    jobKey: z.string().max(120).optional(),
    sheet: z.object({
      key: z.string(),
      family: z.string(),
      darkness: z.number(),
      layers: z.array(z.object({ role: z.string(), caliperUm: z.number().positive() })),
    }),
    exposureMm: z.number().positive(),
    bladeMetres: z.number().min(0),
    isFreshSheet: z.boolean(),
    hold: z
      .object({ tack: z.number().min(0).max(100).nullable(), adhesiveUm: z.number().min(0).optional() })
      .optional(),
    printed: z
      .object({
        widthMm: z.number().positive(),
        heightMm: z.number().positive(),
        gloss: z.number().min(0).max(1).optional(),
        marks: z
          .object({
            lengthMm: z.number().positive(),
            spots: z
              .array(z.object({ name: z.string(), xMm: z.number(), yMm: z.number() }))
              .min(2)
              .max(24),
          })
          .optional(),
        corrected: z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number()]),
      })
      .optional(),
    seats: z
      .array(
        z.object({
          tool: z.enum(['blade', 'crease', 'pen', 'empty']),
          over: z.enum(['strip', 'groove']).nullable(),
        }),
      )
      .max(6)
      .optional(),
    dialled: z.object({ force: z.number(), speed: z.number().positive() }).optional(),
    panelCuts: z
      .array(
        z.object({
          number: z.number().int().positive(),
          seat: z.number().int().positive().optional(),
          force: z.number(),
          speed: z.number().positive(),
        }),
      )
      .max(20)
      .optional(),
  }),
  z.object({ order: z.literal('stop') }),
  z.object({ order: z.literal('pause') }),
  z.object({ order: z.literal('resume') }),
  z.object({ order: z.literal('status') }),
  z.object({ order: z.literal('report') }),
  z.object({ order: z.literal('watch') }),
  z.object({ order: z.literal('handle') }),
  z.object({ order: z.literal('mask'), tape: z.enum(MASK_TAPES) }),
  z.object({ order: z.literal('clear') }),
  z.object({ order: z.literal('clearFaults') }),
  faultSchema.extend({ order: z.literal('fault') }),
]);

/** Does one order from the panel and says what came of it. */
export function obeyPanel(text: string, state: CutterState): object {
  try {
    return obey(panelOrder.parse(JSON.parse(text)), state);
  } catch (error) {
    return { ok: false, reason: error instanceof Error ? error.message.slice(0, 200) : 'unreadable order' };
  }
}

function obey(order: z.infer<typeof panelOrder>, state: CutterState): object {
  const { cutter, record, faults, bootId } = state;
  switch (order.order) {
    case 'load':
      if (state.isBusy) return { ok: false, reason: 'the cutter is busy with another job' };
      if (!record.load(order.jobKey ?? null)) {
        return { ok: false, reason: `${order.jobKey} was begun already: nothing is cut twice` };
      }
      cutter.load(order);
      break;
    case 'stop':
      state.isPaused = false;
      record.cancel();
      cutter.stop('stopped at the panel');
      break;
    case 'pause':
    case 'resume':
      state.isPaused = order.order === 'pause' && state.isBusy;
      record.pause(state.isPaused);
      break;
    case 'report':
      return { ok: true, isBusy: state.isBusy, bootId, job: record.tell() };
    case 'handle':
      if (state.isBusy) return { ok: false, reason: 'the cutter is busy with another job' };
      return { ok: true, ...cutter.handle() };
    case 'mask':
      if (state.isBusy) return { ok: false, reason: 'the cutter is busy with another job' };
      return { ok: true, ...tellMasked(cutter.mask(order.tape)) };
    case 'fault':
      faults.arm(order);
      return { ok: true, isBusy: state.isBusy, words: FAULT_WORDS[order.fault] };
    case 'clearFaults':
      faults.clear();
      break;
    case 'clear':
      if (state.isBusy) return { ok: false, reason: 'the cutter is busy with another job' };
      record.load(null);
      break;
    // What is seen follows on the same link.
    case 'watch':
    case 'status':
      break;
  }
  return { ok: true, isBusy: state.isBusy, bootId };
}

/** What is seen once the tape comes off. */
function tellMasked(inkLifted: number | null): object {
  if (inkLifted === null)
    return { inkLifted, said: 'nothing is printed on this sheet: the tape takes nothing' };
  const percent = Math.round(100 * inkLifted);
  return {
    inkLifted,
    said: percent === 0 ? 'the print stays whole' : `the tape lifts ${percent} % of the ink`,
  };
}
