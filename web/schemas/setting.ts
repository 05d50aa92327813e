import { z } from 'zod';
import { RUN_VERDICTS, SETTING_STATES } from '#core/setting/setting.ts';
import { DEPTH_OPERATIONS, OPERATIONS } from '#core/stack/operation.ts';
import { FLAWS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { settingSourcesSchema } from '#store/rows/settingRows.ts';
import { settingValuesSchema } from '#core/setting/settingFields.ts';

/** Operations that test cuts find the force of. */
export const operationSchema = z.enum(DEPTH_OPERATIONS);

export const gradeSchema = z
  .union([0, 1, 2, 3, 4, 5, 6, 7, 8].map((grade) => z.literal(grade)))
  .transform((grade) => grade as DepthGrade)
  .meta({
    description:
      '0 untouched, 1 partial, 2 hanging, 3 clean, 4 scored, 5 gouged, 6 breached, 7 parted, 8 scarred',
  });

export const passesSchema = z.number().int().min(1).max(12);

/** What may be asked beside the operation. */
export const answerQuerySchema = z.object({ passes: z.coerce.number().pipe(passesSchema).optional() });

export const valuesSchema = settingValuesSchema;
const sourcesSchema = settingSourcesSchema;

export const revisionSchema = z.object({
  revision: z.number(),
  values: valuesSchema,
  sources: sourcesSchema,
  author: z.string(),
  reason: z.string(),
  lot: z.string(),
  at: z.string(),
});

export const stateSchema = z.enum(SETTING_STATES);
export const settingOperationSchema = z.enum(OPERATIONS);

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
  upTo: gradeSchema.nullish(),
  flaws: z.array(z.enum(FLAWS)).readonly(),
  author: z.string(),
  lot: z.string(),
  colour: z.string(),
  at: z.string(),
  bladeId: z.number().nullish(),
  dialInId: z.number().nullish(),
  load: z.number().nullish(),
  cell: z.number().nullish(),
});

export const outlookSchema = z.object({
  forceGf: z.number(),
  under: z.number(),
  right: z.number(),
  over: z.number(),
});
export const edgeSchema = z.object({ lowGf: z.number(), middleGf: z.number(), highGf: z.number() });
const nextCutSchema = z.object({
  forceGf: z.number(),
  gain: z.number(),
  harm: z.number().meta({ description: 'the chance that it cuts the liner of a kiss, or the mat' }),
  chanceNow: z.number(),
  bestGf: z.number(),
});

export const windowSchema = z.object({
  outlooks: z.array(outlookSchema).readonly(),
  best: outlookSchema,
  lowerEdge: edgeSchema,
  upperEdge: edgeSchema,
  sure: z.object({ fromGf: z.number(), toGf: z.number() }).nullable(),
});

export const answerSchema = z.object({
  operation: operationSchema,
  state: stateSchema,
  stateReason: z.string(),
  corrections: z
    .array(z.object({ kind: z.enum(['colour', 'lot']), name: z.string(), forcePercent: z.number() }))
    .readonly(),
  values: valuesSchema,
  suggestion: z.object({ values: valuesSchema, sources: sourcesSchema, exposureReason: z.string() }),
  axis: z.object({ fromGf: z.number(), toGf: z.number() }),
  window: windowSchema,
  outlook: outlookSchema,
  tip: z.object({ lowUm: z.number(), middleUm: z.number(), highUm: z.number() }),
  advice: z.object({ kind: z.enum(['cut', 'repeat', 'confirm', 'keep', 'noWindow']), next: nextCutSchema }),
  advisedForce: z.number(),
  otherWay: z
    .object({
      passes: z.number(),
      speed: z.number(),
      force: z.number(),
      right: z.number(),
      secondsPerMetre: z.number(),
    })
    .nullable()
    .meta({ description: 'passes and speed to go on with where force alone does not do' }),
  surprise: z.object({ forceGf: z.number(), chance: z.number() }).nullable(),
  ladder: z.array(z.number()).readonly().meta({ description: 'forces of the next test card' }),
  bestForce: z.number(),
  model: z.string(),
});

/** A setting of a related sheet: why it is near, and a low start from it on this machine's scale. */
export const relativeSchema = z.object({
  settingId: z.number(),
  name: z.string(),
  machine: z.string(),
  state: stateSchema,
  reasons: z.array(z.string()).readonly(),
  force: z.number(),
  forceUnit: z.string(),
  startForce: z.number().meta({ description: 'a low start for a test cut here' }),
  impliedForce: z.number().meta({ description: 'what it speaks for here, on the scale of this machine' }),
});
export type RelativeReply = z.infer<typeof relativeSchema>;

/** What the book leaves to be believed of a sheet: with it, a browser answers each grade by itself. */
export const beliefSchema = z.object({
  mean: z.array(z.number()).readonly(),
  precision: z.array(z.number()).readonly().meta({ description: 'inverse covariance, row-major' }),
  tail: z
    .object({ share: z.number(), sd: z.number() })
    .optional()
    .meta({ description: 'the chance that the threshold lies far off, and how much wider it may then lie' }),
  nearMat: z.object({ share: z.number(), sd: z.number(), lower: z.number() }).optional().meta({
    description: 'the chance that the mat lies far nearer, by how much in ln of the room, and how widely',
  }),
  knowledgeId: z.number().meta({ description: 'the fit of the book it comes from, 0 for none' }),
  readers: z
    .record(z.string(), z.number())
    .optional()
    .meta({ description: 'how carelessly people read grades by the book, 1 for what is usual' }),
});
export type BeliefReply = z.infer<typeof beliefSchema>;

export const runEvidenceSchema = z.object({
  operation: operationSchema,
  force: z.number(),
  passes: z.number(),
  speedMmPerS: z.number(),
  bladeMetres: z.number(),
  verdict: z.enum(RUN_VERDICTS),
  lot: z.string(),
  colour: z.string(),
});

/** Everything a view needs to show an answer with its evidence. */
export const benchAnswerSchema = z.object({
  settingId: z.number().nullable().meta({ description: 'the kept setting this rests on' }),
  lockedBy: z.string(),
  relatives: z.array(relativeSchema).readonly(),
  answer: answerSchema.nullable(),
  revision: revisionSchema.nullable(),
  verdicts: z.array(z.enum(RUN_VERDICTS)).readonly(),
  lastNote: z.string(),
  cuts: z.array(testCutSchema).readonly(),
  belief: beliefSchema.nullable(),
  runs: z.array(runEvidenceSchema).readonly(),
  lesson: z.string().meta({
    description: 'what the last runs taught; empty where none did, and in replies that nobody shows it from',
  }),
  harmCuts: z.number().meta({ description: 'what a cut liner or a scarred mat costs here, in test cuts' }),
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
  materialId: z.number(),
  machineId: z.number(),
  material: z.string(),
  maker: z.string(),
  machine: z.string(),
  bladeKind: z.string(),
  operation: settingOperationSchema,
  state: stateSchema,
  stateReason: z.string(),
  lockedBy: z.string(),
  isArchived: z.boolean(),
  revision: revisionSchema,
  forceUnit: z.string(),
  speedUnit: z.string(),
  exposureWords: z.string(),
  cleanRuns: z.number(),
  runs: z.number(),
});
export type SettingSummary = z.infer<typeof settingSummarySchema>;

/** What of the book is asked for; a page ends where its materials end. */
export const bookQuerySchema = z.object({
  text: z.string().trim().max(100).default(''),
  state: stateSchema.optional(),
  operation: settingOperationSchema.optional(),
  machineId: z.coerce.number().int().positive().optional(),
  isArchived: z
    .enum(['true', 'false'])
    .default('false')
    .transform((value) => value === 'true'),
  after: z.string().max(400).optional().meta({ description: '`next` of the page before' }),
});

export const bookPageSchema = z.object({
  settings: z.array(settingSummarySchema).readonly(),
  next: z.string().nullable(),
  total: z.number().meta({ description: 'all settings of the book that are not put away' }),
});
export type BookPage = z.infer<typeof bookPageSchema>;

/** A revision kept from the setting's own page or by a script. */
export const newRevisionSchema = z.object({
  conditionId: z.number().int().positive(),
  machineId: z.number().int().positive(),
  bladeKind: z.string().trim().min(1, 'is missing').max(40),
  operation: settingOperationSchema,
  values: valuesSchema,
  sources: sourcesSchema.default({}),
  reason: z.string().trim().max(300).default(''),
  basedOn: z.number().int().min(0).meta({ description: 'the revision its author saw, 0 for none' }),
});
export type NewRevisionInput = z.input<typeof newRevisionSchema>;

const ids = z.array(z.number().int().positive()).min(1, 'nothing chosen').max(500);

/** One change of many settings at once. */
export const bulkSchema = z.discriminatedUnion('action', [
  z.object({ action: z.enum(['lock', 'unlock', 'archive', 'restore']), ids }),
  z.object({
    action: z.literal('set'),
    ids,
    field: z.enum(['speed', 'passes', 'exposureMm', 'offsetMm', 'overcutMm']),
    value: z.number(),
    reason: z.string().trim().max(300).default(''),
  }),
]);
export type BulkInput = z.input<typeof bulkSchema>;

export const bulkReplySchema = z.object({
  done: z.array(z.number()).readonly(),
  refused: z.array(z.object({ id: z.number(), reason: z.string() })).readonly(),
});
export type BulkReply = z.infer<typeof bulkReplySchema>;

/** One line of the audit trail. */
export const auditEntrySchema = z.object({
  id: z.number(),
  what: z.string(),
  action: z.string(),
  author: z.string(),
  at: z.string(),
});
export type AuditReply = z.infer<typeof auditEntrySchema>;
