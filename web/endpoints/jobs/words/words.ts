import { z } from 'zod';
import { MOST_FONT_BYTES } from '#core/artwork/words/limits.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { dropFont, findFontFile, keepFont, listFonts } from '#store/repositories/jobs/fonts.ts';
import { readShippedFont, SHIPPED_FONTS } from '#web/endpoints/jobs/words/shippedFonts.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import {
  fontsSchema,
  newFontSchema,
  setWordsSchema,
  wordsSchema,
  type FontReply,
} from '#web/schemas/words.ts';
import { runTask } from '#web/workers/pool.ts';

export const getFonts = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/fonts',
  summary: 'Fonts that words are set in: those that come with the app, and those of the workshop.',
  reply: fontsSchema,
  handle: (_, { store }) => allFonts(store),
});

export const postFont = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/fonts',
  summary: 'Keeps a font of the workshop (TTF, OTF, WOFF, WOFF2); one of the same name is replaced.',
  body: newFontSchema,
  // Four letters carry three bytes.
  maxBytes: Math.ceil(MOST_FONT_BYTES * 1.4),
  reply: z.object({ id: z.string(), fonts: fontsSchema }),
  status: 201,
  change: 'own',
  handle: async ({ body, author }, { once, signal }) => {
    const data = Buffer.from(body.file, 'base64');
    const facts = await runTask('fontFacts', { font: data }, { signal });
    return once(async (store) => {
      const id = await keepFont(store, { ...facts, data }, author, new Date());
      return { id: String(id), fonts: await allFonts(store) };
    });
  },
});

export const deleteFont = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/fonts/{id}',
  summary: 'Puts a font of the workshop away. Jobs keep the words they have: they are outlines.',
  params: z.object({ id: idParam }),
  reply: fontsSchema,
  handle: async ({ params }, { store }) => {
    await dropFont(store, params.id);
    return allFonts(store);
  },
});

export const postWords = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/words',
  summary: 'Sets typed words in a font, as a drawing to make a job from. Nothing is kept.',
  body: wordsSchema,
  reply: setWordsSchema,
  change: 'harmless',
  handle: async ({ body: { font, ...words } }, { store, signal }) =>
    runTask('words', { ...words, font: await fontFile(store, font) }, { signal }),
});

async function allFonts(store: Store): Promise<readonly FontReply[]> {
  const own = await listFonts(store);
  return [
    ...SHIPPED_FONTS.map(({ id, name }) => ({ id, name, isOwn: false })),
    ...own.map(({ id, name }) => ({ id: String(id), name, isOwn: true })),
  ];
}

/** @throws AppError `notFound` */
async function fontFile(store: Store, id: string): Promise<Buffer> {
  const shipped = readShippedFont(id);
  if (shipped) return shipped;
  if (!/^\d{1,9}$/.test(id)) throw new AppError('notFound', `there is no font "${id}"`);
  return findFontFile(store, Number(id));
}
