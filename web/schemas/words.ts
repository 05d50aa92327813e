import { z } from 'zod';
import { MOST_CHARACTERS, MOST_FONT_BYTES } from '#core/artwork/words/limits.ts';

export const fontSchema = z.object({
  id: z
    .string()
    .meta({ description: 'a word for one that comes with the app, a number for one of the workshop' }),
  name: z.string(),
  isOwn: z.boolean(),
});
export const fontsSchema = z.array(fontSchema).readonly();
export type FontReply = z.infer<typeof fontSchema>;

export const newFontSchema = z.object({
  file: z
    .base64()
    .min(1, 'the file is empty')
    .max(Math.ceil(MOST_FONT_BYTES * 1.4))
    .meta({ description: 'TTF, OTF, WOFF or WOFF2' }),
});

export const wordsSchema = z.object({
  text: z
    .string()
    .max(MOST_CHARACTERS, `at most ${MOST_CHARACTERS} characters`)
    .refine((text) => text.trim() !== '', 'type a word'),
  font: z.string().min(1).max(20),
  heightMm: z.number().min(1).max(500).meta({ description: 'of a capital' }),
  borderMm: z.number().min(0).max(50).meta({ description: 'around the letters; 0 cuts each by itself' }),
});

export const setWordsSchema = z.object({
  source: z.string().meta({ description: 'SVG at real size, for POST /api/jobs' }),
  widthMm: z.number(),
  heightMm: z.number(),
  pieces: z.number().int(),
  leastBorderMm: z.number().nullable().meta({ description: 'the least border that makes one piece of all' }),
  missing: z.array(z.string()).readonly().meta({ description: 'characters that the font does not have' }),
});
export type SetWordsReply = z.infer<typeof setWordsSchema>;
