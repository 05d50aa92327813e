import { z } from 'zod';

/** Knowledge as it lies in its column. */
export const knowledgeSchema = z.object({
  model: z.string(),
  names: z.array(z.string()),
  mean: z.array(z.number()),
  information: z.array(z.number()),
  own: z.record(z.string(), z.record(z.string(), z.number())),
  trialCount: z.number(),
  sheetCount: z.number(),
  iterations: z.number(),
  logPosterior: z.number(),
  logEvidence: z.number(),
  spreads: z
    .object({
      sheet: z.number(),
      gapSheet: z.number(),
      reachSheet: z.number(),
      sharesSheet: z.number(),
      trialCount: z.number(),
    })
    .nullable(),
});
