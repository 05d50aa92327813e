import { z } from 'zod';
import { DIAL_IN_STATES } from '#core/dialIn/dialIn.ts';
import { TEST_PIECES } from '#core/dialIn/testPiece.ts';
import { FLAWS } from '#core/stack/depthGrade.ts';
import { movedSchema } from '#store/repositories/dialIn/revisionEvidence.ts';
import { runSchema } from '#web/schemas/run.ts';
import { cardSchema, scrapSchema } from '#store/rows/dialInRows.ts';
import {
  benchAnswerSchema,
  edgeSchema,
  gradeSchema,
  operationSchema,
  outlookSchema,
  passesSchema,
  windowSchema,
} from '#web/schemas/setting.ts';

export const dialInSchema = z.object({
  id: z.number(),
  machineId: z.number(),
  conditionId: z.number(),
  lot: z.string(),
  colour: z.string(),
  operation: operationSchema,
  passes: z.number(),
  speed: z.number(),
  exposureMm: z.number(),
  state: z.enum(DIAL_IN_STATES),
  loadCount: z.number(),
  card: cardSchema.nullable().meta({ description: 'the card that was cut and waits for its grades' }),
  scrap: scrapSchema,
  author: z.string(),
  openedAt: z.string(),
  changedAt: z.string(),
  version: z.number(),
});

/** A dial-in with the answer that its cuts leave. */
export const dialInReplySchema = z.object({
  dialIn: dialInSchema,
  bench: benchAnswerSchema,
  sheet: z.string().meta({ description: 'the sheet, in words' }),
  isLoaded: z.boolean().meta({ description: 'whether that very sheet lies on the machine now' }),
});
export type DialInReply = z.infer<typeof dialInReplySchema>;

/** What was last cut on the machine for a search. */
export const testRunReplySchema = z.object({
  run: runSchema.nullable(),
  canPause: z.boolean().meta({ description: 'whether the machine can be told from here to pause' }),
});
export type TestRunReply = z.infer<typeof testRunReplySchema>;

export const newDialInSchema = z.object({
  machineId: z.number().int().positive(),
  operation: operationSchema,
  passes: passesSchema.optional(),
});

const seen = z.number().int().positive().meta({ description: 'the version its author saw' });

export const dialInChangeSchema = z.object({
  version: seen,
  passes: passesSchema.optional(),
  speed: z.number().positive('above 0').optional(),
  exposureMm: z.number().positive('above 0').optional(),
  scrap: scrapSchema.pick({ widthMm: true, heightMm: true, piece: true }).partial().optional(),
  jobId: z.number().int().positive().optional().meta({
    description: 'cut on the sheet of this job, clear of its lines and marks',
  }),
  spotJobId: z.number().int().positive().optional().meta({
    description: 'the test piece is the finest spot of the drawing of this job',
  }),
  isScrapNew: z.boolean().optional().meta({ description: 'a fresh scrap: nothing of it is taken' }),
});

export const newCardSchema = z.object({
  version: seen,
  forces: z
    .array(z.number())
    .min(2, 'a card has at least two cells')
    .max(12, 'a card has at most twelve cells')
    .optional()
    .meta({ description: 'on the machine scale; the advised ladder when left out' }),
});

const gradedSchema = z.object({
  force: z.number().optional().meta({ description: 'for a cut of its own, on the machine scale' }),
  cell: z.number().int().min(0).max(11).optional().meta({ description: 'for a cell of the card, from 0' }),
  grade: gradeSchema,
  upTo: gradeSchema.optional().meta({ description: 'the deepest grade it may have, for a range' }),
  flaws: z.array(z.enum(FLAWS)).max(FLAWS.length).default([]),
});

export const flawsSeenSchema = z.object({
  cutId: z.number().int().positive().meta({ description: 'the cut that its author saw as the last' }),
  flaws: z.array(z.enum(FLAWS)).max(FLAWS.length),
});

export const gradesSchema = z.object({
  load: z.number().int().positive().optional().meta({ description: 'the card the cells belong to' }),
  grades: z.array(gradedSchema).min(1, 'no grade given').max(12),
});

export const keepDialInSchema = z.object({
  force: z.number().optional().meta({ description: 'the best force when left out' }),
  reason: z.string().trim().max(300).default(''),
  basedOn: z.number().int().min(0).meta({ description: 'the revision its author saw, 0 for none' }),
});

export const keptReplySchema = z.object({
  revision: z.number(),
  settingId: z.number(),
  moved: z.array(movedSchema).readonly().meta({
    description: 'predictions of other sheets that the evidence moved; kept settings stay',
  }),
});
export type KeptReply = z.infer<typeof keptReplySchema>;

export const windowReplySchema = z.object({
  window: windowSchema,
  chances: z
    .array(
      z.object({
        force: z.number(),
        forceGf: z.number(),
        outlook: outlookSchema,
        grades: z.array(z.object({ grade: gradeSchema, chance: z.number() })).readonly(),
      }),
    )
    .readonly(),
});

const effortSchema = z.object({
  cuts: z.number(),
  loads: z.number(),
  minutes: z.number(),
  sheetCm2: z.number(),
});
export const effortReplySchema = z.object({
  oneAtATime: effortSchema,
  ladder: effortSchema,
  advised: z.enum(['oneAtATime', 'ladder']),
  reason: z.string(),
});
export type EffortReply = z.infer<typeof effortReplySchema>;

export const waySchema = z.object({
  words: z.string(),
  passes: z.number(),
  speedMmPerS: z.number(),
  isFreshBlade: z.boolean(),
  isExposureStopped: z.boolean(),
  force: z.number(),
  best: outlookSchema,
  gain: z.number(),
  secondsPerMetre: z.number(),
  wearMetres: z.number(),
  edgeRisk: z.number(),
});
export type WayReply = z.infer<typeof waySchema>;

export const reasonsReplySchema = z.object({
  usualGf: z.number(),
  effects: z.array(z.object({ words: z.string(), percent: z.number(), sdPercent: z.number() })).readonly(),
  believedGf: edgeSchema,
  nowGf: edgeSchema,
  cuts: z
    .array(z.object({ id: z.number(), words: z.string(), percent: z.number() }))
    .readonly()
    .meta({ description: 'how far each cut alone moves the edge, in percent of force' }),
  knowledgeId: z.number(),
  trialCount: z.number(),
});
export type ReasonsReply = z.infer<typeof reasonsReplySchema>;

export const pieceQuerySchema = z.object({
  format: z.enum(['svg', 'machine', 'hpgl', 'guide']).default('svg'),
  piece: z.enum(TEST_PIECES).optional(),
  vary: z.enum(['force', 'speed', 'passes']).default('force').meta({
    description: 'what differs from cell to cell',
  }),
  card: z
    .enum(['next', 'ladder', 'waiting'])
    .default('next')
    .meta({ description: 'one cell at the advised force, the advised ladder, or the card that waits' }),
  cell: z.coerce.number().int().min(1).max(12).optional().meta({
    description:
      'one cell of a card alone, from 1: where a panel owns the force and holds no numbered cut for each, every cell has a file of its own; else the file chooses cut 1 for the first force, cut 2 for the next',
  }),
});
