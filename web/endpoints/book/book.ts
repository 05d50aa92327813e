import { z } from 'zod';
import { importBook } from '#store/repositories/book/importBook.ts';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { runTask } from '#web/workers/pool.ts';
import { writeCsvBook, writeJsonBook } from '#web/endpoints/book/writeBook.ts';
import {
  bookFileSchema,
  importProgressSchema,
  importReplySchema,
  importSchema,
  type ImportProgress,
} from '#web/schemas/book.ts';

const MOST_BYTES = 12_000_000;

export const getJsonBook = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/book.json',
  summary:
    'The book as JSON: materials, machines and settings, by name. Its schema is at /api/book-schema.json.',
  reply: bookFileSchema,
  handle: async (_, { store }) => download(await writeJsonBook(store), 'application/json', 'book.json'),
});

export const getCsvBook = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/book.csv',
  summary: 'The settings of the book as CSV, UTF-8, units in the headings.',
  reply: z.string().meta({ description: 'text/csv' }),
  handle: async (_, { store }) =>
    download(await writeCsvBook(store), 'text/csv; charset=utf-8', 'settings.csv'),
});

export const getBookSchema = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/book-schema.json',
  summary: 'The JSON Schema of a book file.',
  reply: z.record(z.string(), z.unknown()),
  handle: () => Promise.resolve(Response.json(z.toJSONSchema(bookFileSchema, { io: 'input' }))),
});

export const postImport = defineEndpoint({
  method: 'POST',
  role: 'owner',
  path: '/api/book/import',
  summary: 'Reads a book file in, or says row by row what reading it would do. All of it or nothing.',
  body: importSchema,
  maxBytes: MOST_BYTES,
  reply: importReplySchema,
  handle: async ({ body: { kind, text, isDryRun }, author }, { store }) => {
    const book = await runTask(kind === 'json' ? 'readJsonBook' : 'readCsvBook', text);
    const parts = [book.materials.length, book.settings.length];
    progress = { isReading: true, done: 0, of: parts.reduce((sum, count) => sum + count, 0) };
    const tell = (done: number) => (progress = { ...progress, done: Math.min(done, progress.of) });
    try {
      return { isDryRun, rows: await importBook(store, book, isDryRun, author, new Date(), tell) };
    } finally {
      progress = { ...progress, isReading: false };
    }
  },
});

/** Of the file that is read in now; a second one at the same time shows in it too. */
let progress: ImportProgress = { isReading: false, done: 0, of: 0 };

export const getImport = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/book/import',
  summary: 'How far reading a file in has come, in rows.',
  reply: importProgressSchema,
  handle: () => Promise.resolve(progress),
});

function download(text: string, type: string, name: string): Response {
  const headers = {
    'content-type': type,
    'content-disposition': `attachment; filename="pale-feather-${name}"`,
  };
  return new Response(text, { headers });
}
