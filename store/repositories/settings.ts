import { AppError } from '#core/errors/appError.ts';
import { judgeSetting } from '#core/setting/judgeSetting.ts';
import type { RunVerdict, SettingKey, SettingRevision, SettingState } from '#core/setting/setting.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readRevisionRow } from '#store/rows/settingRows.ts';

/** A setting with its newest revision and how runs at that revision went, oldest first. */
export interface KeptSetting {
  readonly id: number;
  readonly key: SettingKey;
  readonly revision: SettingRevision;
  readonly verdicts: readonly RunVerdict[];
  readonly lastNote: string;
  readonly state: SettingState;
}

export type NewRevision = Omit<SettingRevision, 'revision' | 'at'>;

/** The setting for a key, or `null` when nothing was kept yet. */
export async function findSetting(db: Store, key: SettingKey): Promise<KeptSetting | null> {
  const row = await db('settings').where(keyColumns(key)).first();
  return row ? loadSetting(db, row.id, key) : null;
}

/** Every kept setting. */
export async function listSettings(db: Store): Promise<readonly KeptSetting[]> {
  const rows = await db('settings').orderBy('id');
  return Promise.all(
    rows.map(
      (row: {
        id: number;
        condition_id: number;
        machine_id: number;
        blade_kind: string;
        operation: string;
      }) =>
        loadSetting(db, row.id, {
          conditionId: row.condition_id,
          machineId: row.machine_id,
          bladeKind: row.blade_kind,
          operation: row.operation as SettingKey['operation'],
        }),
    ),
  );
}

/** All revisions of a setting, newest first. */
export async function listRevisions(db: Store, settingId: number): Promise<readonly SettingRevision[]> {
  const rows = await db('setting_revisions').where({ setting_id: settingId }).orderBy('revision', 'desc');
  return rows.map(readRevisionRow);
}

/**
 * Keeps a new revision. Revisions are only ever added.
 *
 * @param basedOn the revision its author saw, 0 for none
 * @throws AppError `conflict` with the newest revision in its details when somebody kept another one meanwhile
 */
export async function keepRevision(
  db: Store,
  key: SettingKey,
  revision: NewRevision,
  basedOn: number,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    const settingId = await lockSetting(transaction, key);
    const [newest] = await listRevisions(transaction, settingId);
    if ((newest?.revision ?? 0) !== basedOn) {
      const who = newest ? `${newest.author} kept revision ${newest.revision}` : 'it has no revision yet';
      throw new AppError(
        'conflict',
        `This setting changed while you worked: ${who}. Nothing was overwritten.`,
        {
          newest,
        },
      );
    }
    await transaction('setting_revisions').insert({
      setting_id: settingId,
      revision: basedOn + 1,
      setting_values: JSON.stringify(revision.values),
      sources: JSON.stringify(revision.sources),
      author: revision.author,
      reason: revision.reason,
      at: now,
    });
    return basedOn + 1;
  });
}

async function lockSetting(db: Store, key: SettingKey): Promise<number> {
  await db('settings').insert(keyColumns(key)).onConflict().ignore();
  const row: { id: number } = await db('settings').where(keyColumns(key)).forUpdate().first();
  return row.id;
}

async function loadSetting(db: Store, id: number, key: SettingKey): Promise<KeptSetting> {
  const newest = await db('setting_revisions').where({ setting_id: id }).orderBy('revision', 'desc').first();
  const revision = readRevisionRow(newest);
  const runs: { verdict: RunVerdict; note: string }[] = await db('runs')
    .join('run_settings', 'run_settings.run_id', 'runs.id')
    .where({ setting_id: id, revision: revision.revision })
    .whereNotNull('verdict')
    .orderBy('noted_at')
    .select('verdict', 'note');
  const verdicts = runs.map((run) => run.verdict);
  const lastNote = runs.map((run) => run.note).findLast((note) => note !== '') ?? '';
  return { id, key, revision, verdicts, lastNote, state: judgeSetting(true, verdicts) };
}

function keyColumns(key: SettingKey): Record<string, unknown> {
  return {
    condition_id: key.conditionId,
    machine_id: key.machineId,
    blade_kind: key.bladeKind,
    operation: key.operation,
  };
}
