import { AppError } from '#core/errors/appError.ts';
import type { RunVerdict, SettingKey, SettingRevision, SettingState } from '#core/setting/setting.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findNotedRuns } from '#store/repositories/book/settingStates.ts';
import { readRevisionRow, readSettingRow } from '#store/rows/settingRows.ts';

/** A setting with its newest revision and how runs at that revision went, oldest first. */
export interface KeptSetting {
  readonly id: number;
  readonly key: SettingKey;
  readonly revision: SettingRevision;
  readonly verdicts: readonly RunVerdict[];
  readonly lastNote: string;
  readonly state: SettingState;
  readonly stateReason: string;
  /** Who locked it, or empty. */
  readonly lockedBy: string;
  readonly isArchived: boolean;
}

/** The setting for a key, or `null` when nothing was kept yet or it was put away. */
export async function findSetting(db: Store, key: SettingKey): Promise<KeptSetting | null> {
  const row = await db('settings').where(keyColumns(key)).whereNull('archived_at').first();
  return row ? ((await readSettings(db, [row]))[0] ?? null) : null;
}

/**
 * The setting for a cut with this kind of blade, or else with another kind, best known first: a start for this blade,
 * and a doubted one. `null` when there is none.
 */
export async function findSettingOfAnyBlade(db: Store, key: SettingKey): Promise<KeptSetting | null> {
  const { blade_kind, ...same } = keyColumns(key);
  const rows = await db('settings')
    .where(same)
    .whereNull('archived_at')
    .orderByRaw("blade_kind <> ?, FIELD(state, 'proven', 'tried', 'doubted', 'predicted')", [blade_kind])
    .limit(1);
  return (await readSettings(db, rows))[0] ?? null;
}

/** The setting of a key. @throws AppError `notFound` when it was never kept */
export async function requireStoredSetting(db: Store, key: SettingKey): Promise<KeptSetting> {
  const setting = await findSetting(db, key);
  if (!setting) throw new AppError('notFound', 'this setting was never kept');
  return setting;
}

/** @throws AppError `notFound` */
export async function requireSetting(db: Store, id: number): Promise<KeptSetting> {
  const [setting] = await readSettings(db, await db('settings').where({ id }));
  if (!setting) throw new AppError('notFound', `there is no setting ${id}`);
  return setting;
}

/** Settings with these ids, in their order; those that do not exist are left out. */
export async function findSettings(db: Store, ids: readonly number[]): Promise<readonly KeptSetting[]> {
  if (ids.length === 0) return [];
  const found = await readSettings(db, await db('settings').whereIn('id', [...ids]));
  return ids.flatMap((id) => found.find((one) => one.id === id) ?? []);
}

/** All settings of a material's conditions that are not put away. */
export async function listSettingsOf(
  db: Store,
  conditionIds: readonly number[],
): Promise<readonly KeptSetting[]> {
  if (conditionIds.length === 0) return [];
  const rows = await db('settings')
    .whereIn('condition_id', [...conditionIds])
    .whereNull('archived_at')
    .orderBy('id');
  return readSettings(db, rows);
}

/** All revisions of a setting, newest first. */
export async function listRevisions(db: Store, settingId: number): Promise<readonly SettingRevision[]> {
  const rows = await db('setting_revisions').where({ setting_id: settingId }).orderBy('revision', 'desc');
  return rows.map(readRevisionRow);
}

/** Rows of `settings` with their newest revision and the runs at it, in three queries however many there are. */
export async function readSettings(db: Store, rows: readonly unknown[]): Promise<readonly KeptSetting[]> {
  const settings = rows.map(readSettingRow);
  const ids = settings.map(({ id }) => id);
  if (ids.length === 0) return [];
  const [revisions, noted] = await Promise.all([
    db('setting_revisions')
      .join('settings', 'settings.id', 'setting_revisions.setting_id')
      .whereIn('setting_id', ids)
      .where('revision', db.ref('settings.newest_revision'))
      .select('setting_revisions.*'),
    findNotedRuns(db, ids),
  ]);
  const newest = new Map(
    revisions.map((row: { setting_id: number }) => [row.setting_id, readRevisionRow(row)] as const),
  );
  return settings.flatMap(({ id, key, state, stateReason, lockedBy, isArchived }) => {
    const revision = newest.get(id);
    if (!revision) return [];
    const runs = noted.get(id) ?? [];
    const verdicts = runs.map(({ verdict }) => verdict);
    const lastNote = runs.map(({ note }) => note).findLast((note) => note !== '') ?? '';
    return { id, key, revision, verdicts, lastNote, state, stateReason, lockedBy, isArchived };
  });
}

/** The columns that tell a setting from all others. */
export function keyColumns(key: SettingKey) {
  return {
    condition_id: key.conditionId,
    machine_id: key.machineId,
    blade_kind: key.bladeKind,
    operation: key.operation,
  };
}
