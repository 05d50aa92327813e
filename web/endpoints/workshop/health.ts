import { z } from 'zod';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';

export const getHealth = defineEndpoint({
  method: 'GET',
  role: 'nobody',
  path: '/api/health',
  summary: 'Whether the application and its store answer.',
  reply: z.object({ isHealthy: z.literal(true) }),
  handle: async (_, { store }) => {
    await store.raw('SELECT 1');
    return { isHealthy: true as const };
  },
});
