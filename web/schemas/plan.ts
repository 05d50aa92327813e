import { z } from 'zod';
import { CUT_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { FREEING_WAYS } from '#core/passes/compareFreeing.ts';
import { WAYS_OUT } from '#core/job/composeChecklist.ts';
import { RISK_KINDS } from '#core/passes/estimateRisks.ts';
import { OPERATIONS } from '#core/stack/operation.ts';
import { valuesSchema } from '#web/schemas/setting.ts';

export const pointSchema = z.object({ x: z.number(), y: z.number() });

export const planSchema = z.object({
  passes: z.array(
    z.object({
      role: z.enum(CUT_ROLES),
      operation: z.enum(OPERATIONS),
      values: valuesSchema,
      strokes: z.number(),
      cutMm: z.number(),
      travelMm: z.number(),
      seconds: z.number(),
      seat: z.number(),
      seatName: z.string(),
      perforation: z
        .object({
          tabs: z.number(),
          moved: z.number(),
          kissOnly: z.array(z.object({ contourId: z.number(), reason: z.string() })).readonly(),
        })
        .nullable(),
      pauseBefore: z.string().nullable(),
      lookAfter: z.string(),
      route: z.array(z.object({ points: z.array(pointSchema).readonly(), isTab: z.boolean() })),
    }),
  ),
  cutMm: z.number(),
  travelMm: z.number(),
  seconds: z.number(),
  sheets: z.number(),
  parts: z.number().meta({ description: 'machine files: one more for every pause' }),
  violations: z.array(z.string()).readonly(),
  printAfter: z.number().nullable(),
  assumed: z.array(z.string()).readonly(),
  freeing: z
    .object({
      options: z
        .array(
          z.object({
            way: z.enum(FREEING_WAYS),
            passes: z.number(),
            forceGf: z.number(),
            seconds: z.number(),
            wearMetres: z.number(),
            jamRisk: z.number(),
            edge: z.number(),
            bar: z.string().nullable(),
          }),
        )
        .readonly(),
      pick: z.enum(FREEING_WAYS),
      reason: z.string(),
    })
    .nullable(),
  holding: z
    .object({
      holdN: z.number(),
      dragN: z.number(),
      jerkN: z.number(),
      releaseN: z.number(),
      holdIndex: z.number(),
      popIndex: z.number(),
      steps: z.array(z.string()).readonly(),
      chances: z.array(z.number()).readonly(),
      proposedTabMm: z.number(),
      judged: z.number(),
    })
    .nullable(),
  risks: z
    .array(
      z.object({
        kind: z.enum(RISK_KINDS),
        chance: z.number(),
        causes: z.array(z.object({ words: z.string(), chance: z.number() })).readonly(),
      }),
    )
    .readonly(),
  runSheet: z
    .object({
      title: z.string(),
      subtitle: z.string(),
      sections: z
        .array(
          z.object({
            heading: z.string(),
            steps: z
              .array(
                z.object({
                  words: z.string(),
                  reason: z.string(),
                  figures: z.array(z.tuple([z.string(), z.string()]).readonly()).readonly(),
                }),
              )
              .readonly(),
          }),
        )
        .readonly(),
      cautions: z.array(z.string()).readonly(),
      ownWords: z
        .array(z.string())
        .readonly()
        .meta({ description: 'names and words that people typed: no other units in them' }),
    })
    .nullable(),
  checklist: z
    .array(
      z.object({
        words: z.string(),
        reason: z.string(),
        state: z.enum(['toDo', 'open', 'stop']),
        id: z
          .string()
          .optional()
          .meta({ description: 'what a run is told under "accepted" to go nevertheless' }),
        way: z
          .object({ words: z.string(), step: z.enum(WAYS_OUT) })
          .optional()
          .meta({ description: 'where it is put right' }),
      }),
    )
    .readonly()
    .meta({ description: 'what to look at before the run, here and now' }),
  problem: z.string().nullable().meta({ description: 'why it cannot run yet, or null' }),
});
export type PlanReply = z.infer<typeof planSchema>;
