import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import { listLog } from '#store/repositories/log.ts';
import { replyWithFile } from '#web/endpoints/replyWithFile.ts';
import { defineEndpoint } from '#web/endpoints/defineEndpoint.ts';
import { logEntrySchema } from '#web/schemas/run.ts';

export const getLog = defineEndpoint({
  method: 'GET',
  path: '/api/log',
  summary: 'Runs, test cuts, kept settings and upkeep, the newest first.',
  query: z.object({ limit: z.coerce.number().int().min(1).max(1000).default(300) }),
  reply: z.array(logEntrySchema).readonly(),
  handle: ({ query }, { store }) => listLog(store, query.limit),
});

/** As far as a spreadsheet is asked for. */
const MOST_ROWS = 10_000;

export const getLogCsv = defineEndpoint({
  method: 'GET',
  path: '/api/log.csv',
  summary: 'The log as CSV, UTF-8 with a byte order mark, the newest first.',
  reply: z.string().meta({ description: 'text/csv' }),
  handle: async (_, { store }) => {
    const rows = (await listLog(store, MOST_ROWS)).map(({ at, kind, what, detail, author }) => [
      at,
      kind,
      what,
      detail,
      author,
    ]);
    const csv = stringify([['at', 'kind', 'what', 'detail', 'by'], ...rows], {
      bom: true,
      // A cell that begins like a formula is not run by a spreadsheet.
      escape_formulas: true,
    });
    return replyWithFile(csv, 'text/csv; charset=utf-8', 'log.csv');
  },
});
