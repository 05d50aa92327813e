import { z } from 'zod';
import { ACTIONS } from '#core/faults/faultActions.ts';
import { FINDINGS } from '#core/faults/findings.ts';
import { SYMPTOMS } from '#core/faults/symptoms.ts';
import { CAUSES } from '#core/faults/causes.ts';
import { OPERATIONS } from '#core/stack/operation.ts';

export const consultSchema = z.object({
  symptoms: z.array(z.enum(SYMPTOMS)).min(1, 'say what you see').max(SYMPTOMS.length),
  operation: z.enum(OPERATIONS),
  answers: z.partialRecord(z.enum(FINDINGS), z.boolean()).default({}),
  tried: z.array(z.enum(ACTIONS)).max(ACTIONS.length).default([]),
});

export const faultActionSchema = consultSchema.extend({ action: z.enum(ACTIONS) });

const changeSchema = z.object({
  number: z.enum(['force', 'passes', 'speed', 'exposureMm', 'tabLengthMm']),
  from: z.number(),
  to: z.number(),
  words: z.string(),
});

export const consultReplySchema = z.object({
  causes: z.array(
    z.object({ cause: z.enum(CAUSES), chance: z.number(), words: z.string(), reason: z.string() }),
  ),
  known: z.array(z.string()).meta({ description: 'what the log knows that speaks for something' }),
  question: z.object({ evidence: z.enum(FINDINGS), words: z.string(), bits: z.number() }).nullable(),
  actions: z.array(
    z.object({
      action: z.enum(ACTIONS),
      words: z.string(),
      how: z.string(),
      caution: z.string().nullable(),
      link: z.string().nullable(),
      mends: z.number().meta({ description: 'chance that the fault is gone after it' }),
      change: changeSchema.nullable(),
    }),
  ),
  revision: z.number().nullable(),
});
export type ConsultReply = z.infer<typeof consultReplySchema>;

export const faultCaseSchema = z.object({
  id: z.number(),
  machineId: z.number(),
  conditionId: z.number().nullable(),
  operation: z.enum(OPERATIONS),
  symptoms: z.array(z.enum(SYMPTOMS)).readonly(),
  cause: z.enum(CAUSES),
  action: z.enum(ACTIONS),
  changeWords: z.string(),
  hasHelped: z.boolean().nullable(),
  author: z.string(),
  at: z.string(),
});
export type FaultCaseReply = z.infer<typeof faultCaseSchema>;
