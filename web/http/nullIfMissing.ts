import { AppError } from '#core/errors/appError.ts';

/** What is read, or `null` when it does not exist; every other trouble stays trouble. */
export async function nullIfMissing<Value>(read: () => Promise<Value>): Promise<Value | null> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof AppError && error.code === 'notFound') return null;
    throw error;
  }
}
