import { z } from 'zod';
import { RUN_VERDICTS, VALUE_SOURCES } from '#core/setting/setting.ts';
import { FLAWS, OPERATIONS, type DepthGrade } from '#core/stack/depthGrade.ts';

export const operationSchema = z.enum(OPERATIONS);

export const gradeSchema = z
  .union([0, 1, 2, 3, 4, 5, 6, 7, 8].map((grade) => z.literal(grade)))
  .transform((grade) => grade as DepthGrade)
  .meta({
    description:
      '0 untouched, 1 partial, 2 hanging, 3 clean, 4 scored, 5 gouged, 6 breached, 7 parted, 8 scarred',
  });

const passesSchema = z.number().int().min(1).max(12);

/** What may be asked beside the operation. */
export const answerQuerySchema = z.object({ passes: z.coerce.number().pipe(passesSchema).optional() });

export const valuesSchema = z.object({
  force: z.number().meta({ description: "on the machine's own scale" }),
  exposureMm: z.number().positive(),
  speed: z.number().positive().meta({ description: "on the machine's own scale" }),
  passes: passesSchema,
  offsetMm: z.number().min(0).max(3),
  overcutMm: z.number().min(0).max(10),
});

const source = z.enum(VALUE_SOURCES);
const sourcesSchema = z.object({
  force: source,
  exposureMm: source,
  speed: source,
  passes: source,
  offsetMm: source,
  overcutMm: source,
});

export const revisionSchema = z.object({
  revision: z.number(),
  values: valuesSchema,
  sources: sourcesSchema,
  author: z.string(),
  reason: z.string(),
  at: z.string(),
});

export const stateSchema = z.enum(['predicted', 'tried', 'proven', 'doubted']);

export const testCutSchema = z.object({
  id: z.number(),
  conditionId: z.number(),
  machineId: z.number(),
  operation: operationSchema,
  force: z.number(),
  forceGf: z.number(),
  speedMmPerS: z.number(),
  passes: z.number(),
  exposureMm: z.number(),
  bladeMetres: z.number(),
  grade: gradeSchema,
  flaws: z.array(z.enum(FLAWS)).readonly(),
  author: z.string(),
  at: z.string(),
});

const outlookSchema = z.object({
  forceGf: z.number(),
  under: z.number(),
  right: z.number(),
  over: z.number(),
});
const edgeSchema = z.object({ lowGf: z.number(), middleGf: z.number(), highGf: z.number() });
const nextCutSchema = z.object({
  forceGf: z.number(),
  gain: z.number(),
  chanceNow: z.number(),
  bestGf: z.number(),
});

export const answerSchema = z.object({
  operation: operationSchema,
  state: stateSchema,
  values: valuesSchema,
  suggestion: z.object({ values: valuesSchema, sources: sourcesSchema, exposureReason: z.string() }),
  axis: z.object({ fromGf: z.number(), toGf: z.number() }),
  window: z.object({
    outlooks: z.array(outlookSchema).readonly(),
    best: outlookSchema,
    lowerEdge: edgeSchema,
    upperEdge: edgeSchema,
    sure: z.object({ fromGf: z.number(), toGf: z.number() }).nullable(),
  }),
  outlook: outlookSchema,
  tip: z.object({ lowUm: z.number(), middleUm: z.number(), highUm: z.number() }),
  advice: z.object({ kind: z.enum(['cut', 'confirm', 'keep', 'noWindow']), next: nextCutSchema }),
  advisedForce: z.number(),
  bestForce: z.number(),
  model: z.string(),
});

/** Everything a view needs to show an answer with its evidence. */
export const benchAnswerSchema = z.object({
  answer: answerSchema.nullable(),
  revision: revisionSchema.nullable(),
  verdicts: z.array(z.enum(RUN_VERDICTS)).readonly(),
  lastNote: z.string(),
  cuts: z.array(testCutSchema).readonly(),
});
export type BenchAnswer = z.infer<typeof benchAnswerSchema>;

export const newTestCutSchema = z.object({
  operation: operationSchema,
  force: z.number(),
  passes: passesSchema,
  speed: z.number().positive(),
  exposureMm: z.number().positive(),
  grade: gradeSchema,
  flaws: z.array(z.enum(FLAWS)).max(FLAWS.length).default([]),
});

export const keepSchema = z.object({
  operation: operationSchema,
  values: valuesSchema,
  sources: sourcesSchema,
  reason: z.string().trim().max(300).default(''),
  basedOn: z.number().int().min(0).meta({ description: 'the revision its author saw, 0 for none' }),
});

export const settingSummarySchema = z.object({
  id: z.number(),
  conditionId: z.number(),
  machineId: z.number(),
  material: z.string(),
  maker: z.string(),
  machine: z.string(),
  bladeKind: z.string(),
  operation: operationSchema,
  state: stateSchema,
  revision: revisionSchema,
  forceUnit: z.string(),
  speedUnit: z.string(),
  exposureWords: z.string(),
  cleanRuns: z.number(),
  runs: z.number(),
});
export type SettingSummary = z.infer<typeof settingSummarySchema>;
