import { z } from 'zod';
import { FAMILIES } from '#core/stack/families/families.ts';
import { BELIEFS, type BeliefName } from '#core/threshold/thresholdPriors.ts';

const readingSchema = z.object({
  name: z.string(),
  label: z.string(),
  group: z.enum(['machines', 'families', 'sheet', 'cutting', 'shape']),
  mean: z.number(),
  sd: z.number(),
  priorMean: z.number(),
  priorSd: z.number(),
  learnt: z.number().meta({ description: 'share of the doubt that the book has removed, 0 to 1' }),
  words: z.string(),
});

const refitSchema = z.object({
  state: z.enum(['idle', 'waiting', 'running']),
  iteration: z.number(),
  trialCount: z.number(),
  problem: z.string(),
});

export const beliefNameSchema = z.enum(Object.keys(BELIEFS) as [BeliefName, ...BeliefName[]]);

export const priorSchema = z.object({
  name: beliefNameSchema,
  mean: z.number(),
  sd: z.number(),
  reason: z.string(),
  commonMean: z.number(),
  commonSd: z.number(),
  commonReason: z.string(),
  author: z.string().meta({ description: 'who changed it, or empty' }),
});
export type PriorReply = z.infer<typeof priorSchema>;

/** What a family of sheets usually takes, gf: a kiss, or for a single layer what parts it. */
export const usualForceSchema = z.object({
  family: z.enum(FAMILIES),
  name: z.string(),
  usualGf: z.number(),
  commonGf: z.number(),
  reason: z.string(),
  author: z.string().meta({ description: 'who changed it, or empty' }),
});
export type UsualForceReply = z.infer<typeof usualForceSchema>;

export const newUsualForceSchema = z.object({
  usualGf: z.number('a force in gf').positive('above 0'),
  reason: z.string().trim().max(300).default(''),
});

export const knowledgeReplySchema = z.object({
  id: z.number().meta({ description: '0 before the first fit' }),
  model: z.string(),
  at: z.string().nullable(),
  milliseconds: z.number(),
  trialCount: z.number(),
  sheetCount: z.number(),
  effects: z.array(readingSchema).readonly(),
  priors: z.array(priorSchema).readonly(),
  usualForces: z.array(usualForceSchema).readonly(),
  refit: refitSchema,
});
export type KnowledgeReply = z.infer<typeof knowledgeReplySchema>;

export const newPriorSchema = z.object({
  mean: z.number(),
  sd: z.number().positive('above 0'),
  reason: z.string().trim().min(3, 'say why').max(300),
});
