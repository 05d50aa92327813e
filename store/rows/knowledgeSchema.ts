import { z } from 'zod';

const kept = z.object({
  model: z.string(),
  names: z.array(z.string()),
  mean: z.array(z.number()),
  information: z.array(z.number()),
  own: z.record(z.string(), z.record(z.string(), z.number())),
  trialCount: z.number(),
  sheetCount: z.number(),
  iterations: z.number(),
  logPosterior: z.number(),
  logMarginal: z.number().optional(),
  /** What older versions called it. */
  logEvidence: z.number().optional(),
  shift: z.record(z.string(), z.number()).optional(),
  spreads: z
    .object({
      sheet: z.number(),
      gapSheet: z.number(),
      reachSheet: z.number(),
      sharesSheet: z.number(),
      noise: z.number().optional(),
      trialCount: z.number(),
    })
    .nullable(),
  readers: z.record(z.string(), z.number()).optional(),
  nextReaders: z.record(z.string(), z.number()).optional(),
});

/** Knowledge as it lies in its column. */
export const knowledgeSchema = kept.transform(({ logMarginal, logEvidence, ...rest }) => ({
  ...rest,
  logMarginal: logMarginal ?? logEvidence ?? 0,
}));
