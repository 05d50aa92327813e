import { z } from 'zod';
import { chunk } from '#core/collections/chunk.ts';
import { judgeSetting } from '#core/setting/judgeSetting.ts';
import { SETTING_STATES, VALUE_SOURCES, type RunVerdict, type SettingState } from '#core/setting/setting.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** What runs at the newest revision of a setting say, oldest first. */
export interface NotedRun {
  readonly verdict: RunVerdict;
  readonly note: string;
  readonly lot: string;
}

/** Noted runs at the newest revision of each setting. */
export async function findNotedRuns(
  db: Store,
  settingIds: readonly number[],
): Promise<ReadonlyMap<number, readonly NotedRun[]>> {
  const noted = new Map<number, NotedRun[]>(settingIds.map((id) => [id, []]));
  if (settingIds.length === 0) return noted;
  const rows: (NotedRun & { setting_id: number })[] = await db('run_settings')
    .join('settings', 'settings.id', 'run_settings.setting_id')
    .join('runs', 'runs.id', 'run_settings.run_id')
    .whereIn('run_settings.setting_id', [...settingIds])
    .where('run_settings.revision', db.ref('settings.newest_revision'))
    .whereNotNull('runs.verdict')
    .orderBy('runs.noted_at')
    .select('run_settings.setting_id', 'runs.verdict', 'runs.note', 'runs.lot');
  for (const { setting_id, verdict, note, lot } of rows) noted.get(setting_id)?.push({ verdict, note, lot });
  return noted;
}

/**
 * Judges settings anew and writes their state beside them: after a kept revision, a noted run, or another sheet or lot
 * on the machine. However many they are, it takes a handful of statements, and as many more as there are new states.
 *
 * @param where columns of `settings` that choose which
 */
export async function refreshStates(db: Store, where: Readonly<Record<string, number>>): Promise<void> {
  const columns = Object.entries(where).map(([name, value]) => [`settings.${name}`, value] as const);
  await judgeRows(db, await judgedQuery(db).where(Object.fromEntries(columns)));
}

/** {@link refreshStates} of settings by their ids. */
export async function refreshStatesOf(db: Store, ids: readonly number[]): Promise<void> {
  for (const some of chunk(ids, MOST_IDS)) {
    await judgeRows(db, await judgedQuery(db).whereIn('settings.id', some));
  }
}

async function judgeRows(db: Store, found: readonly unknown[]): Promise<void> {
  const rows = z.array(judgedRow).parse(found);
  const noted = await findNotedRuns(
    db,
    rows.map(({ id }) => id),
  );
  const moved = new Map<string, { readonly state: SettingState; readonly reason: string; ids: number[] }>();
  for (const row of rows) {
    const runs = noted.get(row.id) ?? [];
    const { alarm_reason: alarm, alarm_at: alarmAt } = row;
    const judged = judgeSetting({
      hasRevision: row.at !== null,
      forceSource: row.force_source ?? 'model',
      verdicts: runs.map(({ verdict }) => verdict),
      knownLots: knownLots(row.lot ?? '', runs),
      lotNow: row.lot_now ?? '',
      drift: alarm !== null && alarmAt && row.at && alarmAt > row.at ? alarm : '',
    });
    const { state } = judged;
    const reason = judged.reason.slice(0, 200);
    if (state === row.state && reason === row.state_reason) continue;
    const key = `${state}/${reason}`;
    const group = moved.get(key) ?? { state, reason, ids: [] };
    group.ids.push(row.id);
    moved.set(key, group);
  }
  for (const { state, reason, ids } of moved.values()) {
    for (const some of chunk(ids, MOST_IDS)) {
      await db('settings').whereIn('id', some).update({ state, state_reason: reason });
    }
  }
}

/** So many ids stand in one statement. */
const MOST_IDS = 1000;

const judgedRow = z.object({
  id: z.number(),
  state: z.enum(SETTING_STATES),
  state_reason: z.string(),
  /** Of the newest revision; `null` where there is none. */
  at: z.date().nullable(),
  lot: z.string().nullable(),
  force_source: z.enum(VALUE_SOURCES).nullable(),
  /** Of the same sheet where it lies on the machine now. */
  lot_now: z.string().nullable(),
  alarm_reason: z.string().nullable(),
  alarm_at: z.date().nullable(),
});

/** All that settings are judged by but their runs, in one statement. */
function judgedQuery(db: Store) {
  const alarms = db('drift_alarms').whereNull('closed_at').groupBy('machine_id').max('id');
  return db('settings')
    .leftJoin('setting_revisions as revision', (on) =>
      on.on('revision.setting_id', 'settings.id').andOn('revision.revision', 'settings.newest_revision'),
    )
    .leftJoin('stations', (on) =>
      on
        .on('stations.machine_id', 'settings.machine_id')
        .andOn('stations.condition_id', 'settings.condition_id'),
    )
    .leftJoin(db('drift_alarms').whereIn('id', alarms).as('alarm'), 'alarm.machine_id', 'settings.machine_id')
    .orderBy('settings.id')
    .select('settings.id', 'settings.state', 'settings.state_reason', 'revision.at', 'revision.lot')
    .select({ lot_now: 'stations.lot', alarm_reason: 'alarm.reason', alarm_at: 'alarm.raised_at' })
    .select(db.raw("JSON_VALUE(revision.sources, '$.force') AS force_source"));
}

/** Lots a revision worked on: the one it was kept on, and those of clean runs. */
function knownLots(keptOn: string, runs: readonly NotedRun[]): readonly string[] {
  const clean = runs.filter(({ verdict }) => verdict === 'clean').map(({ lot }) => lot);
  return [...new Set([keptOn, ...clean])].filter(Boolean);
}
