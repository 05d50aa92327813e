import { z } from 'zod';
import { CONDITION_KINDS } from '#core/stack/material.ts';
import { WAIT_KINDS } from '#core/prep/waits.ts';

const minute = z
  .number()
  .min(0)
  .max(3 * 24 * 60);

export const dayStepSchema = z.object({
  id: z.string().max(80),
  words: z.string().max(160),
  place: z.string().max(80).nullable(),
  minutes: z
    .number()
    .min(1)
    .max(3 * 24 * 60),
  setUp: z.string().max(200),
  notBefore: minute,
  done: z.object({ from: minute, to: minute }).nullable(),
});

export const dayJobSchema = z.object({
  id: z.string().max(40),
  words: z.string().max(160),
  steps: z.array(dayStepSchema).max(20).readonly(),
});

const dayShape = z.object({
  version: z.number().int().min(0),
  beginsAt: z
    .number()
    .int()
    .min(0)
    .max(24 * 60),
  jobs: z.array(dayJobSchema).max(40).readonly(),
  sequence: z.array(z.number().int().min(0)).max(800).readonly(),
});

/** A job stands in the order at most as often as it has steps. */
export const dayChangeSchema = dayShape.superRefine(({ jobs, sequence }, context) => {
  const left = jobs.map(({ steps }) => steps.length);
  const isWrong = sequence.some((index) => {
    const count = left[index];
    left[index] = (count ?? 0) - 1;
    return count === undefined || count === 0;
  });
  if (isWrong) {
    const message = 'names a job that is not on this day, or more steps than a job has';
    context.addIssue({ code: 'custom', path: ['sequence'], message });
  }
});

export const daySchema = dayShape.extend({ day: z.string() });
export type DayReply = z.infer<typeof daySchema>;

export const timerSchema = z.object({
  id: z.number(),
  kind: z.enum(WAIT_KINDS),
  words: z.string(),
  jobId: z.number().nullable(),
  materialId: z.number().nullable(),
  startedAt: z.string(),
  endsAt: z.string(),
  author: z.string(),
});

export const newTimerSchema = z.object({
  kind: z.enum(WAIT_KINDS),
  materialId: z.number().int().positive().nullable().default(null),
  jobId: z.number().int().positive().nullable().default(null),
  minutes: z
    .number()
    .min(1)
    .max(14 * 24 * 60)
    .optional()
    .meta({ description: 'left out, the length that the material says' }),
});

/** What a state of a material waits for, in order. */
export const waitRouteSchema = z.object({
  conditionId: z.number(),
  condition: z.enum(CONDITION_KINDS),
  kinds: z.array(z.enum(WAIT_KINDS)).readonly(),
  isOwn: z.boolean(),
});
export type WaitRouteReply = z.infer<typeof waitRouteSchema>;

export const waitSchema = z.object({
  kind: z.enum(WAIT_KINDS),
  minutes: z.number(),
  source: z.enum(['maker', 'usual']),
  reason: z.string(),
});
