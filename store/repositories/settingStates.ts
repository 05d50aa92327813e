import { judgeSetting } from '#core/setting/judgeSetting.ts';
import type { RunVerdict } from '#core/setting/setting.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readRevisionRow, readSettingRow } from '#store/rows/settingRows.ts';

/** What runs at the newest revision of a setting say, oldest first. */
export interface RunFate {
  readonly verdict: RunVerdict;
  readonly note: string;
  readonly lot: string;
}

/** Noted runs at the newest revision of each setting. */
export async function findFates(
  db: Store,
  settingIds: readonly number[],
): Promise<ReadonlyMap<number, readonly RunFate[]>> {
  const fates = new Map<number, RunFate[]>(settingIds.map((id) => [id, []]));
  if (settingIds.length === 0) return fates;
  const rows: (RunFate & { setting_id: number })[] = await db('run_settings')
    .join('settings', 'settings.id', 'run_settings.setting_id')
    .join('runs', 'runs.id', 'run_settings.run_id')
    .whereIn('run_settings.setting_id', [...settingIds])
    .where('run_settings.revision', db.ref('settings.newest_revision'))
    .whereNotNull('runs.verdict')
    .orderBy('runs.noted_at')
    .select('run_settings.setting_id', 'runs.verdict', 'runs.note', 'runs.lot');
  for (const { setting_id, verdict, note, lot } of rows) fates.get(setting_id)?.push({ verdict, note, lot });
  return fates;
}

/**
 * Judges settings anew and writes their state beside them: after a kept revision, a noted run, or another sheet or lot
 * on the machine.
 *
 * @param where columns of `settings` that choose which
 */
export async function refreshStates(db: Store, where: Readonly<Record<string, number>>): Promise<void> {
  const rows = (await db('settings').where(where)).map(readSettingRow);
  const fates = await findFates(
    db,
    rows.map(({ id }) => id),
  );
  for (const { id, key, newestRevision } of rows) {
    const found = await db('setting_revisions').where({ setting_id: id, revision: newestRevision }).first();
    const revision = found ? readRevisionRow(found) : null;
    const runs = fates.get(id) ?? [];
    const station: { lot: string } | undefined = await db('stations')
      .where({ machine_id: key.machineId, condition_id: key.conditionId })
      .first('lot');
    const alarm: { reason: string; raised_at: Date } | undefined = await db('drift_alarms')
      .where({ machine_id: key.machineId, closed_at: null })
      .first('reason', 'raised_at');
    const { state, reason } = judgeSetting({
      hasRevision: revision !== null,
      forceSource: revision?.sources.force ?? 'model',
      verdicts: runs.map(({ verdict }) => verdict),
      knownLots: knownLots(revision?.lot ?? '', runs),
      lotNow: station?.lot ?? '',
      drift: alarm && revision && alarm.raised_at > new Date(revision.at) ? alarm.reason : '',
    });
    await db('settings')
      .where({ id })
      .update({ state, state_reason: reason.slice(0, 200) });
  }
}

/** Lots a revision worked on: the one it was kept on, and those of clean runs. */
function knownLots(keptOn: string, runs: readonly RunFate[]): readonly string[] {
  const clean = runs.filter(({ verdict }) => verdict === 'clean').map(({ lot }) => lot);
  return [...new Set([keptOn, ...clean])].filter(Boolean);
}
