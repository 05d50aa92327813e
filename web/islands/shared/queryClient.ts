import { QueryClient } from '@tanstack/react-query';
import { ApiRefusal } from '#web/islands/shared/callApi.ts';

/**
 * A cache for one island on one page. Never shared: on the server a shared one would show a page what it held for
 * another. Refusals are final; only an unreachable server is asked again.
 */
export function makeQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        retry: (count, error) => count < 2 && error instanceof ApiRefusal && error.code === 'unreachable',
      },
    },
  });
}
