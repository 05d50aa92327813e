import { z } from 'zod';
import { TERM_FIELDS } from '#core/lookup/rankHits.ts';
import { FAMILIES } from '#core/stack/families/families.ts';
import { CONDITION_KINDS } from '#core/stack/material.ts';
import { settingOperationSchema, stateSchema } from '#web/schemas/setting.ts';

export const lookupQuerySchema = z.object({
  text: z
    .string()
    .trim()
    .max(100)
    .default('')
    .meta({ description: 'anything printed on the pack, or an old note' }),
  machineId: z.coerce.number().int().positive().optional().meta({ description: 'the station one stands at' }),
});

const answerSchema = z.object({
  settingId: z.number(),
  operation: settingOperationSchema,
  state: stateSchema,
  bladeKind: z.string(),
  force: z.number(),
});

export const lookupHitSchema = z.object({
  materialId: z.number(),
  name: z.string(),
  maker: z.string(),
  family: z.enum(FAMILIES),
  colourHex: z.string(),
  /** What was typed and where it was found, when that is not the name itself. */
  met: z.array(z.object({ typed: z.string(), term: z.string(), field: z.enum(TERM_FIELDS) })).readonly(),
  missed: z.array(z.string()).readonly().meta({ description: 'typed words that it does not have' }),
  /** Whether the answer depends on the state: only then is it asked. */
  isStateAsked: z.boolean(),
  states: z
    .array(
      z.object({
        conditionId: z.number(),
        kind: z.enum(CONDITION_KINDS),
        answers: z.array(answerSchema).readonly(),
      }),
    )
    .readonly(),
});
export type LookupHit = z.infer<typeof lookupHitSchema>;

export const lookupReplySchema = z.object({ hits: z.array(lookupHitSchema).readonly() });
