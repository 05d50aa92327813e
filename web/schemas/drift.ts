import { z } from 'zod';
import { DRIFT_CAUSES } from '#core/wear/findDrift.ts';

export const driftSchema = z.object({
  points: z
    .array(
      z.object({
        at: z.string(),
        residual: z
          .number()
          .meta({ description: 'standard deviations; above 0 it needed more force than expected' }),
        mean: z.number(),
        sheet: z.string(),
        bladeMetres: z.number(),
      }),
    )
    .readonly(),
  limit: z.number(),
  lambda: z.number(),
  alarm: z
    .object({
      direction: z.enum(['more', 'less']),
      began: z.string(),
      causes: z
        .array(z.object({ cause: z.enum(DRIFT_CAUSES), chance: z.number(), reason: z.string() }))
        .readonly(),
    })
    .nullable(),
  blade: z
    .object({
      number: z.number(),
      metres: z.number(),
      lowMetres: z.number(),
      highMetres: z.number(),
      advice: z.enum(['good', 'clean', 'change']),
      reason: z.string(),
      changes: z.number(),
      freshFactor: z
        .number()
        .meta({ description: 'the force a fresh blade would want, against the one in use' }),
    })
    .nullable(),
});
export type DriftReply = z.infer<typeof driftSchema>;
