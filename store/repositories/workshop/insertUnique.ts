import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';

/**
 * Inserts a row and returns its id.
 *
 * @param taken the words for a row that breaks a unique key
 * @throws AppError `conflict` with those words
 */
export async function insertUnique(
  db: Store,
  table: string,
  taken: string,
  row: Readonly<Record<string, unknown>>,
): Promise<number> {
  try {
    const [id] = await db(table).insert(row);
    return id as number;
  } catch (error) {
    if (isDuplicate(error)) throw new AppError('conflict', taken);
    throw error;
  }
}

/** Whether a row was refused because its unique key is taken. */
export function isDuplicate(error: unknown): boolean {
  return error instanceof Error && 'code' in error && error.code === 'ER_DUP_ENTRY';
}
