import { QueryClient } from '@tanstack/react-query';
import { ApiRefusal } from '#web/islands/shared/callApi.ts';

/** One cache for all islands of a page. Refusals are final; only an unreachable server is asked again. */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 2 && error instanceof ApiRefusal && error.code === 'unreachable',
    },
  },
});
