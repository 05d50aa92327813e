import { z } from 'zod';
import { listLog } from '#store/repositories/log.ts';
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
