import { z } from 'zod';
import { ROLES } from '#core/drawing/lineRoles.ts';

import { RUN_STATES } from '#core/job/run.ts';
import { RUN_VERDICTS } from '#core/setting/setting.ts';
import { gradeSchema, operationSchema, valuesSchema } from '#web/schemas/setting.ts';

export const sheetSchema = z.object({
  name: z.string().trim().min(1).max(60),
  widthMm: z.number().min(10).max(3000),
  heightMm: z.number().min(10).max(20_000),
  marginMm: z.number().min(0).max(200),
});

export const placementSchema = z.object({
  xMm: z.number().min(-3000).max(3000),
  yMm: z.number().min(-20_000).max(20_000),
});
export const rolesSchema = z.record(z.string().max(200), z.enum(ROLES));

export const newJobSchema = z.object({
  name: z.string().trim().min(1, 'is missing').max(120),
  svg: z.string().min(1, 'the file is empty').max(5_000_000, 'the drawing is larger than 5 MB'),
  machineId: z.number().int().positive(),
});

export const jobChangeSchema = z.object({
  version: z.number().int().positive(),
  name: z.string().trim().min(1).max(120).optional(),
  roles: rolesSchema.optional(),
  sheet: sheetSchema.optional(),
  placement: placementSchema.optional(),
});

export const jobSchema = z.object({
  id: z.number(),
  name: z.string(),
  svg: z.string(),
  roles: rolesSchema.readonly(),
  areRolesGuessed: z.boolean(),
  sheet: sheetSchema,
  placement: placementSchema,
  conditionId: z.number(),
  machineId: z.number(),
  version: z.number(),
  updatedAt: z.string(),
});

export const jobSummarySchema = z.object({
  id: z.number(),
  name: z.string(),
  material: z.string(),
  machine: z.string(),
  updatedAt: z.string(),
});
export type JobSummaryReply = z.infer<typeof jobSummarySchema>;

const pointSchema = z.object({ x: z.number(), y: z.number() });

export const planSchema = z.object({
  passes: z.array(
    z.object({
      operation: operationSchema,
      values: valuesSchema,
      strokes: z.number(),
      cutMm: z.number(),
      travelMm: z.number(),
      seconds: z.number(),
      pauseBefore: z.string().nullable(),
      route: z.array(z.array(pointSchema).readonly()),
    }),
  ),
  cutMm: z.number(),
  travelMm: z.number(),
  seconds: z.number(),
  parts: z.number().meta({ description: 'machine files: one more for every pause' }),
  problem: z.string().nullable().meta({ description: 'why it cannot run yet, or null' }),
});
export type PlanReply = z.infer<typeof planSchema>;

export const runNoteSchema = z.object({
  verdict: z.enum(RUN_VERDICTS),
  piecesGood: z.number().int().min(0).max(100_000),
  piecesSpoiled: z.number().int().min(0).max(100_000),
  note: z.string().trim().max(1000).default(''),
});

export const runSchema = z.object({
  id: z.number(),
  jobId: z.number(),
  jobName: z.string(),
  machineId: z.number(),
  conditionId: z.number(),
  state: z.enum(RUN_STATES),
  message: z.string(),
  sheetWidthMm: z.number(),
  sheetHeightMm: z.number(),
  strokes: z
    .array(
      z.object({
        operation: operationSchema,
        contourId: z.number(),
        repeat: z.number(),
        points: z.array(pointSchema).readonly(),
      }),
    )
    .readonly(),
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
  author: z.string(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
});

/** What the server streams while a run goes. */
export const runEventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('position'), x: z.number(), y: z.number(), stroke: z.number() }),
  z.object({
    kind: z.literal('stroke'),
    index: z.number(),
    spans: z.array(z.object({ from: z.number(), to: z.number(), grade: gradeSchema })),
  }),
  z.object({ kind: z.literal('state'), state: z.enum(RUN_STATES), message: z.string() }),
]);
export type RunEvent = z.infer<typeof runEventSchema>;

export const logEntrySchema = z.object({
  id: z.string(),
  kind: z.enum(['run', 'testCut', 'setting', 'upkeep', 'change']),
  at: z.string(),
  what: z.string(),
  detail: z.string(),
  author: z.string(),
  link: z.string().nullable(),
});
export type LogEntryReply = z.infer<typeof logEntrySchema>;
