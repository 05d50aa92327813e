import { AppError } from '#core/errors/appError.ts';
import { diffValues } from '#core/setting/diffValues.ts';
import { factsOfField, type SettingValues } from '#core/setting/settingFields.ts';
import { type SettingKey, type SettingRevision } from '#core/setting/setting.ts';
import { OPERATION_WORDS } from '#core/stack/operation.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit, type NewAuditEntry } from '#store/repositories/log/audit.ts';
import { indexNote } from '#store/repositories/book/lookup.ts';
import { findSetting, keyColumns, listRevisions, requireSetting } from '#store/repositories/book/settings.ts';
import { refreshStates } from '#store/repositories/book/settingStates.ts';
import { readSettingRow } from '#store/rows/settingRows.ts';

export type NewRevision = Omit<SettingRevision, 'revision' | 'at' | 'lot'> & { readonly lot?: string };

/**
 * Keeps a new revision. Revisions are only ever added. A kept kiss force is carried over to the tabs of the perforation
 * of the same sheet, machine and blade, as a revision of its own: they are always equal.
 *
 * @param basedOn the revision its author saw, 0 for none
 * @returns the number of the new revision
 * @throws AppError `conflict` with the newest revision in its details when somebody kept another one meanwhile, or
 *   when the setting is locked
 */
export async function keepRevision(
  db: Store,
  key: SettingKey,
  revision: NewRevision,
  basedOn: number,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    const setting = await lockRow(transaction, key);
    if (setting.lockedBy) {
      throw new AppError('conflict', `${setting.lockedBy} locked this setting. Unlock it first.`);
    }
    const [newest] = await listRevisions(transaction, setting.id);
    if ((newest?.revision ?? 0) !== basedOn) {
      const who = newest ? `${newest.author} kept revision ${newest.revision}` : 'it has no revision yet';
      const message = `This setting changed while you worked: ${who}. Nothing was overwritten.`;
      throw new AppError('conflict', message, { newest });
    }
    await insertRevision(transaction, setting.id, key, revision, newest ?? null, now);
    if (key.operation === 'kiss') await carryToTabs(transaction, key, revision, now);
    return basedOn + 1;
  });
}

/** Locks a setting against new revisions, or opens it again. @throws AppError `notFound` */
export async function setSettingLocked(
  db: Store,
  id: number,
  isLocked: boolean,
  author: string,
  now: Date,
): Promise<void> {
  await changeSetting(
    db,
    id,
    { locked_by: isLocked ? author || 'Somebody' : '' },
    isLocked ? 'lock' : 'unlock',
    author,
    now,
  );
}

/** Puts a setting away, or takes it back out: the log refers to it, so it is never deleted. @throws AppError `notFound` */
export async function setSettingArchived(
  db: Store,
  id: number,
  isArchived: boolean,
  author: string,
  now: Date,
): Promise<void> {
  const action = isArchived ? 'archive' : 'restore';
  await changeSetting(db, id, { archived_at: isArchived ? now : null }, action, author, now);
}

async function changeSetting(
  db: Store,
  id: number,
  columns: Readonly<Record<string, unknown>>,
  action: 'lock' | 'unlock' | 'archive' | 'restore',
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const { key } = await requireSetting(transaction, id);
    await transaction('settings').where({ id }).update(columns);
    const words = { lock: 'locked', unlock: 'unlocked', archive: 'put away', restore: 'taken back out' }[
      action
    ];
    const what = `${OPERATION_WORDS[key.operation]} setting ${words}`;
    await addAudit(transaction, { entity: 'setting', entityId: id, action, what, author }, now);
  });
}

/** The setting's row, made if need be, held until the transaction ends. */
async function lockRow(db: Store, key: SettingKey): Promise<ReturnType<typeof readSettingRow>> {
  await db('settings').insert(keyColumns(key)).onConflict().ignore();
  return readSettingRow(await db('settings').where(keyColumns(key)).forUpdate().first());
}

async function insertRevision(
  db: Store,
  settingId: number,
  key: SettingKey,
  revision: NewRevision,
  before: SettingRevision | null,
  now: Date,
): Promise<void> {
  const { reason } = revision;
  const number = (before?.revision ?? 0) + 1;
  await db('setting_revisions').insert(revisionColumns(settingId, number, revision, now));
  await db('settings').where({ id: settingId }).update({ newest_revision: number, archived_at: null });
  await addAudit(db, auditRevision(settingId, key, number, before?.values ?? null, revision), now);
  const owner: { material_id: number } | undefined = await db('material_conditions')
    .where({ id: key.conditionId })
    .first('material_id');
  if (owner && reason) await indexNote(db, owner.material_id, reason);
  await refreshStates(db, { id: settingId });
}

/** The row of a revision. */
export function revisionColumns(settingId: number, number: number, revision: NewRevision, now: Date) {
  const { values, sources, author, reason, lot = '' } = revision;
  return {
    setting_id: settingId,
    revision: number,
    setting_values: JSON.stringify(values),
    sources: JSON.stringify(sources),
    author,
    reason,
    lot,
    at: now,
  };
}

/** What the trail of changes says of a revision. @param before values of the one before, `null` for the first */
export function auditRevision(
  settingId: number,
  { operation }: Pick<SettingKey, 'operation'>,
  number: number,
  before: SettingValues | null,
  { values, author }: NewRevision,
): NewAuditEntry {
  const told = before ? `: ${tellChanges(before, values)}` : '';
  return {
    entity: 'setting',
    entityId: settingId,
    action: before ? 'change' : 'add',
    what: `${OPERATION_WORDS[operation]} setting, revision ${number}${told.length > 2 ? told : ''}`,
    ...(before ? { before } : {}),
    after: values,
    author,
  };
}

/** What changed between two sets of values: "force 77 to 79, passes 1 to 2"; empty when nothing did. */
export function tellChanges(before: SettingValues, after: SettingValues): string {
  return diffValues(before, after)
    .map(
      ({ field, before: from, after: to }) => `${factsOfField(field).label} ${from ?? '–'} to ${to ?? '–'}`,
    )
    .join(', ');
}

/** Whether the tabs of a perforation go by the kiss force, and have another than this. */
export function mustFollowKiss({ tabWay, tabForce }: SettingValues, kissForce: number): boolean {
  return (tabWay ?? 'kissForce') === 'kissForce' && tabForce !== kissForce;
}

/** The perforation whose tabs follow a kiss force, as its next revision. */
export function followKiss(
  perforation: Pick<SettingRevision, 'values' | 'sources'>,
  kiss: NewRevision,
): NewRevision {
  return {
    values: { ...perforation.values, tabForce: kiss.values.force },
    sources: { ...perforation.sources, tabForce: 'kiss' },
    author: kiss.author,
    reason: `force along tabs kept in step with the kiss force ${kiss.values.force}`,
    lot: kiss.lot ?? '',
  };
}

/** A perforation whose tabs go by the kiss force follows it, also a locked one: the lock is against people. */
async function carryToTabs(db: Store, key: SettingKey, kiss: NewRevision, now: Date): Promise<void> {
  const perforation = await findSetting(db, { ...key, operation: 'perforated' });
  if (!perforation || !mustFollowKiss(perforation.revision.values, kiss.values.force)) return;
  const followed = followKiss(perforation.revision, kiss);
  await insertRevision(db, perforation.id, perforation.key, followed, perforation.revision, now);
}
