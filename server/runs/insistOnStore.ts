import { AppError } from '#core/errors/appError.ts';
import type { ServerContext } from '#server/context/context.ts';

/** The store is gone: how often and how far apart it is asked again. */
const TRIES = 600;
const PAUSE_MS = 500;

/** Does it, and again while the store is away. Errors of our own, and mistakes in the program, are not the store's. */
export async function insistOnStore<T>(
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

/** What the database and its link throw carries a code of theirs, or comes from a pool that waited in vain. */
export function isOfStore(error: unknown): boolean {
  if (!(error instanceof Error) || error instanceof AppError) return false;
  return 'code' in error || error.name === 'KnexTimeoutError';
}
