import { z } from 'zod';
import { DRIFT_CAUSES, type DriftCause, type DriftPoint } from '#core/wear/findDrift.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { refreshStates } from '#store/repositories/book/settingStates.ts';
import { timeColumn } from '#store/rows/jsonColumn.ts';

/** Where a point came from: a test cut, or a grade given at the sheet of a run. */
export type DriftSource = 'cut' | 'grade';

/** A point before it is kept. */
export interface NewDriftPoint extends DriftPoint {
  readonly source: DriftSource;
  readonly sourceId: number;
}

/** An alarm that stands or stood. */
export interface DriftAlarmRecord {
  readonly id: number;
  readonly direction: 'more' | 'less';
  readonly cause: DriftCause;
  readonly reason: string;
  readonly raisedAt: string;
  readonly closedAt: string | null;
  readonly closedWhy: string;
}

const pointRow = z.object({
  at: timeColumn,
  residual: z.number(),
  blade_id: z.number().nullable(),
  blade_metres: z.number(),
  mat_id: z.number().nullable(),
  sheet: z.string(),
  lot: z.string(),
  humidity: z.number().nullable(),
});

const alarmRow = z.object({
  id: z.number(),
  direction: z.enum(['more', 'less']),
  cause: z.enum(DRIFT_CAUSES),
  reason: z.string(),
  raised_at: timeColumn,
  closed_at: timeColumn.nullable(),
  closed_why: z.string(),
});

/** The newest points of a machine, oldest first. Those of test cuts taken back are left out. */
export async function listDriftPoints(
  db: Store,
  machineId: number,
  most: number,
): Promise<readonly DriftPoint[]> {
  const rows: unknown[] = await db('drift_points')
    .where({ machine_id: machineId })
    .whereNotExists(
      db('test_cuts')
        .whereRaw('test_cuts.id = drift_points.source_id')
        .where('drift_points.source', 'cut')
        .whereNotNull('test_cuts.undone_at'),
    )
    .orderBy([
      { column: 'at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ])
    .limit(most);
  return rows.toReversed().map((row) => {
    const { blade_id, blade_metres, mat_id, ...same } = pointRow.parse(row);
    return { ...same, bladeId: blade_id, bladeMetres: blade_metres, matId: mat_id };
  });
}

/** Which sources of a machine have their point already. */
export async function listKnownSources(db: Store, machineId: number): Promise<ReadonlySet<string>> {
  const rows: { source: DriftSource; source_id: number }[] = await db('drift_points')
    .where({ machine_id: machineId })
    .select('source', 'source_id');
  return new Set(rows.map(({ source, source_id }) => `${source}/${source_id}`));
}

/** Keeps points; one that is there already stays as it was. */
export async function addDriftPoints(
  db: Store,
  machineId: number,
  points: readonly NewDriftPoint[],
): Promise<void> {
  if (points.length === 0) return;
  const rows = points.map((point) => ({
    machine_id: machineId,
    source: point.source,
    source_id: point.sourceId,
    residual: point.residual,
    blade_id: point.bladeId,
    blade_metres: point.bladeMetres,
    mat_id: point.matId,
    sheet: point.sheet.slice(0, 160),
    lot: point.lot,
    humidity: point.humidity,
    at: new Date(point.at),
  }));
  await db('drift_points').insert(rows).onConflict().ignore();
}

/** The alarm of a machine that stands, or `null`. */
export async function findOpenAlarm(db: Store, machineId: number): Promise<DriftAlarmRecord | null> {
  const row: unknown = await db('drift_alarms')
    .where({ machine_id: machineId, closed_at: null })
    .orderBy('id', 'desc')
    .first();
  return row ? readAlarm(row) : null;
}

/** When the newest alarm of a machine was closed, ISO, or `null`. */
export async function findLastClosing(db: Store, machineId: number): Promise<string | null> {
  const row: { closed_at: Date } | undefined = await db('drift_alarms')
    .where({ machine_id: machineId })
    .whereNotNull('closed_at')
    .orderBy('closed_at', 'desc')
    .first('closed_at');
  return row ? row.closed_at.toISOString() : null;
}

/** Raises an alarm: settings of the machine are doubted until it is closed or they are kept anew. */
export async function raiseAlarm(
  db: Store,
  machineId: number,
  alarm: Pick<DriftAlarmRecord, 'direction' | 'cause' | 'reason'>,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    await transaction('drift_alarms').insert({
      machine_id: machineId,
      ...alarm,
      reason: alarm.reason.slice(0, 200),
      raised_at: now,
    });
    await refreshStates(transaction, { machine_id: machineId });
  });
}

/** Closes the standing alarm of a machine, with the reason. Nothing happens when none stands. */
export async function closeAlarm(db: Store, machineId: number, why: string, now: Date): Promise<void> {
  await db.transaction(async (transaction) => {
    const closed = await transaction('drift_alarms')
      .where({ machine_id: machineId, closed_at: null })
      .update({ closed_at: now, closed_why: why.slice(0, 200) });
    if (closed > 0) await refreshStates(transaction, { machine_id: machineId });
  });
}

function readAlarm(row: unknown): DriftAlarmRecord {
  const { raised_at, closed_at, closed_why, ...same } = alarmRow.parse(row);
  return { ...same, raisedAt: raised_at, closedAt: closed_at, closedWhy: closed_why };
}
