import { z } from 'zod';
import { CUT_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { MOST_SHIFT_MM } from '#core/sheet/marks/registration.ts';
import { FLAWS } from '#core/stack/depthGrade.ts';
import { RUN_STATES } from '#core/run/run.ts';
import { RUN_VERDICTS } from '#core/setting/setting.ts';
import { LOG_KINDS } from '#core/job/logKinds.ts';
import { pointSchema } from '#web/schemas/plan.ts';
import { gradeSchema } from '#web/schemas/setting.ts';

/** Names a request to cut, so that it cuts once. */
export const requestKeySchema = z
  .string()
  .min(8)
  .max(64)
  .meta({ description: 'any text of your own: the same request, sent twice, makes one run' });

export const runNoteSchema = z.object({
  verdict: z.enum(RUN_VERDICTS),
  piecesGood: z.number().int().min(0).max(100_000),
  piecesSpoiled: z.number().int().min(0).max(100_000),
  note: z.string().trim().max(1000).default(''),
  flaws: z.array(z.enum(FLAWS)).max(FLAWS.length).readonly().default([]),
  sheetsUsed: z.number().int().min(0).max(1000).default(1),
  /** Relative humidity of the room, %. */
  humidity: z.number('a number of %').min(0).max(100).nullable().default(null),
  /** How pieces held at their tabs: 0 fell out, 2 right, 4 tore. */
  tabsHeld: z.number().int().min(0).max(4).nullable().default(null),
  /** How far the cut lies from the print, mm: x to the right, y down. */
  shift: z
    .object({
      x: z.number('a number of mm').min(-MOST_SHIFT_MM).max(MOST_SHIFT_MM),
      y: z.number('a number of mm').min(-MOST_SHIFT_MM).max(MOST_SHIFT_MM),
    })
    .nullable()
    .default(null),
});
export type RunNoteInput = z.infer<typeof runNoteSchema>;
/** A note as it is typed, before what was left out is filled in. */
export type TypedNote = z.input<typeof runNoteSchema>;

export const runSchema = z.object({
  id: z.number(),
  jobId: z.number(),
  jobName: z.string(),
  dialInId: z.number().nullable().meta({ description: 'the search it cuts test pieces for' }),
  judged: z
    .enum(['tabs', 'crease'])
    .nullable()
    .meta({ description: 'what is judged of it, where it is a piece cut for that' }),
  machineId: z.number(),
  conditionId: z.number(),
  state: z.enum(RUN_STATES),
  message: z.string(),
  sheetWidthMm: z.number(),
  sheetHeightMm: z.number(),
  strokes: z
    .array(
      z.object({
        operation: z.enum(CUT_ROLES),
        isTab: z.boolean(),
        contourId: z.number(),
        repeat: z.number(),
        ownTabs: z.object({ cutLengthMm: z.number(), tabLengthMm: z.number() }).optional(),
        points: z.array(pointSchema).readonly(),
      }),
    )
    .readonly(),
  /** Strokes before this one went out and nobody knows what became of them; `null` where the machine tells. */
  outTo: z.number().nullable(),
  outcomes: z
    .array(
      z.object({
        index: z.number(),
        spans: z.array(z.object({ from: z.number(), to: z.number(), grade: gradeSchema })).readonly(),
      }),
    )
    .readonly(),
  seconds: z.number(),
  verdict: z.enum(RUN_VERDICTS).nullable(),
  piecesGood: z.number(),
  piecesSpoiled: z.number(),
  note: z.string(),
  flaws: z.array(z.enum(FLAWS)).readonly(),
  sheetsUsed: z.number(),
  humidity: z.number().nullable(),
  author: z.string(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
});

export const runHistorySchema = z.object({
  kind: z.string(),
  words: z.string(),
  state: z.enum(RUN_STATES),
  message: z.string(),
  strokes: z.number().meta({ description: 'strokes acknowledged by then' }),
  author: z.string().meta({ description: 'empty where nobody did it' }),
  at: z.string(),
});
export type RunHistoryReply = z.infer<typeof runHistorySchema>;

export const runGradeSchema = z.object({
  id: z.number(),
  operation: z.enum(CUT_ROLES),
  grade: gradeSchema,
  passesDone: z.number(),
  spot: pointSchema.nullable(),
  author: z.string(),
  at: z.string(),
});
export type RunGradeReply = z.infer<typeof runGradeSchema>;

/** What the server streams while a run goes. */
export const runEventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('position'), x: z.number(), y: z.number(), stroke: z.number() }),
  z.object({
    kind: z.literal('stroke'),
    index: z.number(),
    spans: z.array(z.object({ from: z.number(), to: z.number(), grade: gradeSchema })).readonly(),
  }),
  z.object({ kind: z.literal('out'), to: z.number() }),
  z.object({ kind: z.literal('state'), state: z.enum(RUN_STATES), message: z.string() }),
]);

export const logEntrySchema = z.object({
  id: z.string(),
  kind: z.enum(LOG_KINDS),
  at: z.string(),
  what: z.string(),
  detail: z.string(),
  author: z.string(),
  link: z.string().nullable(),
});
export type LogEntryReply = z.infer<typeof logEntrySchema>;
