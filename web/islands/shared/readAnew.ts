import type { QueryClient, QueryKey } from '@tanstack/react-query';

/**
 * Reads again what the page shows, after something was changed. What is on its way was asked before the change and may
 * not know of it, and a first answer that is on its way would be taken for the new one: it is dropped.
 */
export async function readAnew(queries: QueryClient, queryKey: QueryKey = []): Promise<void> {
  await queries.cancelQueries({ queryKey });
  await queries.invalidateQueries({ queryKey });
}
