import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit, type NewAuditEntry } from '#store/repositories/log/audit.ts';

/**
 * Takes a measurement of a machine back: it stays in its table, marked, and the trail says who did it.
 *
 * @param words names it, for the refusal: "calibration"
 * @throws AppError `notFound` when it is not there, or was taken back already
 */
export async function takeBack(
  db: Store,
  table: string,
  { id, machineId }: { readonly id: number; readonly machineId: number },
  words: string,
  entry: Pick<NewAuditEntry, 'entity' | 'what' | 'author'>,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const changed = await transaction(table)
      .where({ id, machine_id: machineId, removed_at: null })
      .update({ removed_at: now });
    if (changed === 0)
      throw new AppError('notFound', `${words} ${id} is not there, or was taken back already`);
    await addAudit(transaction, { ...entry, entityId: machineId, action: 'archive' }, now);
  });
}
