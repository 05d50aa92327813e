import { AppError } from '#core/errors/appError.ts';
import type { ServerContext } from '#server/context/context.ts';

/** The store is gone: how often and how far apart it is asked again. */
const TRIES = 600;
const PAUSE_MS = 500;

/** Does it, and again while the store is away. Errors of our own, and mistakes in the program, are not the store's. */
export async function retryOnStore<T>(
  { log }: Pick<ServerContext, 'log'>,
  act: () => Promise<T>,
): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await act();
    } catch (error) {
      if (!isOfStore(error) || tries >= TRIES) throw error;
      if (tries === 1) log.warn({ err: error }, 'the store is away; trying again');
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  }
}

/**
 * What the database and its link throw carries a code of theirs, or comes from a pool that waited in vain. Data, constraints
 * and statements that it refuses it will refuse again: SQLSTATE classes 22, 23 and 42 of ISO/IEC 9075.
 */
export function isOfStore(error: unknown): boolean {
  if (!(error instanceof Error) || error instanceof AppError) return false;
  if ('sqlState' in error && /^(22|23|42)/.test(String(error.sqlState))) return false;
  return 'code' in error || error.name === 'KnexTimeoutError';
}
