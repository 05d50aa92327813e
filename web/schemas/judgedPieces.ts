import { z } from 'zod';
import { runSchema } from '#web/schemas/run.ts';
import { givenSchema, JUDGED_QUANTITIES } from '#store/repositories/dialIn/judgedPieces.ts';

export const quantitySchema = z.enum(JUDGED_QUANTITIES);

export const judgedReplySchema = z.object({
  quantity: quantitySchema,
  steps: z.array(z.string()).readonly().meta({ description: 'five words from too weak to too strong' }),
  pieces: z
    .array(
      z.object({ id: z.number(), given: givenSchema, seen: z.number(), author: z.string(), at: z.string() }),
    )
    .readonly(),
  proposal: givenSchema,
  chances: z.array(z.number()).readonly().meta({ description: 'of each step at the proposal' }),
  curve: z
    .array(z.object({ value: z.number(), chances: z.array(z.number()).readonly() }))
    .readonly()
    .meta({ description: 'by tab length in mm, or by force on the machine scale' }),
  settingId: z.number().nullable(),
  revision: z.number(),
  kissForce: z.number().nullable(),
});
export type JudgedReply = z.infer<typeof judgedReplySchema>;

export const newPieceSchema = z.object({ given: givenSchema, seen: z.number().int().min(0).max(4) });

export const keepJudgedSchema = z.object({
  given: givenSchema,
  reason: z.string().trim().max(300).default(''),
  basedOn: z.number().int().min(0),
});

/** A real piece to cut: its size, and what it is made with. */
export const judgedPieceQuerySchema = z.object({
  tabLengthMm: z.coerce.number().min(0.1).max(20).default(1),
  cutLengthMm: z.coerce.number().min(1).max(200).default(12),
  widthMm: z.coerce.number().min(8, 'at least 8 mm wide').max(500).default(50),
  heightMm: z.coerce.number().min(8, 'at least 8 mm high').max(500).default(50),
  force: z.coerce.number().optional(),
  passes: z.coerce.number().int().min(1).max(12).default(1),
  format: z.enum(['svg', 'machine', 'hpgl']).default('machine'),
});
export type JudgedPieceQuery = z.infer<typeof judgedPieceQuerySchema>;

export const judgedRunReplySchema = z.object({
  run: runSchema.nullable(),
  canPause: z.boolean(),
  seen: z.number().nullable().meta({
    description: 'what hands at a stand-in find of the piece that lies there, 0 too weak to 4 too strong',
  }),
});
export type JudgedRunReply = z.infer<typeof judgedRunReplySchema>;
