import { z } from 'zod';
import type { FittedScale, ScaleReading } from '#core/units/fitForceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/log/audit.ts';
import { takeBack } from '#store/repositories/log/takeBack.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';
import { fittedScaleSchema } from '#store/rows/stationRows.ts';

/** A scale as it was measured, with who did it. */
export interface Calibration {
  readonly id: number;
  readonly readings: readonly ScaleReading[];
  readonly fitted: FittedScale;
  readonly author: string;
  readonly at: string;
}

const readingsSchema = z
  .array(z.object({ force: z.number(), grams: z.number() }))
  .max(60)
  .readonly();

const calibrationRow = z.object({
  id: z.number(),
  machine_id: z.number(),
  readings: jsonColumn(readingsSchema),
  fitted: jsonColumn(fittedScaleSchema),
  author: z.string(),
  at: timeColumn,
});

/** The calibration in force of each machine that has one. */
export async function findCalibrations(
  db: Store,
  machineIds: readonly number[],
): Promise<ReadonlyMap<number, Calibration>> {
  if (machineIds.length === 0) return new Map();
  const rows = await db('scale_calibrations')
    .whereIn('machine_id', [...machineIds])
    .whereNull('removed_at')
    .orderBy('id');
  return new Map(
    rows.map((row: unknown) => {
      const { machine_id, ...same } = calibrationRow.parse(row);
      return [machine_id, same];
    }),
  );
}

/** Keeps a calibration; it takes the place of the one before. Returns its id. */
export async function addCalibration(
  db: Store,
  machineId: number,
  readings: readonly ScaleReading[],
  fitted: FittedScale,
  author: string,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    const [id] = await transaction('scale_calibrations').insert({
      machine_id: machineId,
      readings: JSON.stringify(readings),
      fitted: JSON.stringify(fitted),
      author,
      at: now,
    });
    const what = `force scale measured with ${readings.length} readings`;
    const entry = {
      entity: 'calibration',
      entityId: machineId,
      action: 'add',
      what,
      after: readings,
      author,
    } as const;
    await addAudit(transaction, entry, now);
    return id as number;
  });
}

/** Takes a calibration back: the one before it, or the plain scale, counts again. @throws AppError `notFound` */
export async function removeCalibration(
  db: Store,
  machineId: number,
  id: number,
  author: string,
  now: Date,
): Promise<void> {
  const entry = { entity: 'calibration', what: 'force scale measurement taken back', author } as const;
  await takeBack(db, 'scale_calibrations', { id, machineId }, 'calibration', entry, now);
}
