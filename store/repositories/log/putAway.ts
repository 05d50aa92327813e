import type { Store } from '#store/connection/connectStore.ts';
import { addAudit, type AuditEntity } from '#store/repositories/log/audit.ts';

const TABLES = { machine: 'machines', material: 'materials' } as const satisfies Partial<
  Record<AuditEntity, string>
>;

/**
 * Puts something away, or takes it back out. Nothing is deleted: the log and settings refer to it.
 *
 * @param name as people read it
 * @returns the id of the audit entry, by which it can be taken back
 */
export async function putAway(
  db: Store,
  thing: { readonly entity: keyof typeof TABLES; readonly entityId: number; readonly name: string },
  isAway: boolean,
  author: string,
  now: Date,
): Promise<number> {
  const { entity, entityId, name } = thing;
  await db(TABLES[entity])
    .where({ id: entityId })
    .update({ archived_at: isAway ? now : null });
  const what = `${name} ${isAway ? 'put away' : 'taken back out'}`;
  const action = isAway ? 'archive' : 'restore';
  return addAudit(db, { entity, entityId, action, what, author }, now);
}
