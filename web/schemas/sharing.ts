import { z } from 'zod';
import { signedLessonsSchema } from '#server/sharing/signLessons.ts';

/** What is taken in, and what its giver is called here. */
export const newLessonsSchema = z.object({
  name: z.string().trim().min(1).max(60),
  signed: signedLessonsSchema,
});

const movedSchema = z.object({
  name: z.string(),
  label: z.string(),
  /** How much more force than commonly believed, as a factor; `null` for what is no force. */
  factor: z.number().nullable(),
  mean: z.number(),
  sd: z.number(),
  commonMean: z.number(),
  commonSd: z.number(),
});

/** What other workshops told, and what it moved here. */
export const sharingSchema = z.object({
  taken: z
    .array(
      z.object({
        id: z.number(),
        name: z.string(),
        giver: z.string(),
        trials: z.number(),
        sheets: z.number(),
        /** Whether its effects are those of this version; else it is kept and not believed. */
        isFitting: z.boolean(),
        author: z.string(),
        takenAt: z.string(),
        isPutAway: z.boolean(),
        /** What it moves: each effect with it and without it. */
        moved: z.array(movedSchema).readonly(),
      }),
    )
    .readonly(),
  /** Whether the book taught anything that could be given away. */
  canGive: z.boolean(),
});
export type SharingReply = z.infer<typeof sharingSchema>;
