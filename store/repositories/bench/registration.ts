import { z } from 'zod';
import { IDENTITY, type Affine } from '#core/geometry/affine.ts';
import type { RegistrationError } from '#core/sheet/edgeRisk.ts';
import {
  judgeRegistration,
  type RegistrationSheet,
  type ShiftReading,
} from '#core/sheet/marks/registration.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/log/audit.ts';
import { takeBack } from '#store/repositories/log/takeBack.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** A sheet whose shift was read, as it is kept. */
export interface KeptRegistrationSheet extends RegistrationSheet {
  readonly id: number;
  /** The run it was cut in, or `null` for a card cut elsewhere. */
  readonly runId: number | null;
  readonly author: string;
  readonly at: string;
}

/** What is known of how print and cut meet on a machine. */
export interface Registration {
  /** The newest first. */
  readonly sheets: readonly KeptRegistrationSheet[];
  /** What the machine's files correct, or the identity. */
  readonly correction: Affine;
  /** What is believed under that correction. */
  readonly error: RegistrationError;
}

const point = z.object({ x: z.number(), y: z.number() });
const affine = z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number()]);
const sheetRow = z.object({
  id: z.number(),
  run_id: z.number().nullable(),
  readings: jsonColumn(z.array(z.object({ at: point, shift: point })).readonly()),
  corrected: jsonColumn(affine),
  author: z.string(),
  at: timeColumn,
});
const correctionRow = z.object({ affine: jsonColumn(affine).nullable() });

/** So many sheets are believed: older ones tell of a machine that has changed since. */
const MOST_SHEETS = 60;

export async function findRegistration(db: Store, machineId: number): Promise<Registration> {
  const rows: unknown[] = await db('registration_sheets')
    .where({ machine_id: machineId, removed_at: null })
    .orderBy('id', 'desc')
    .limit(MOST_SHEETS);
  const sheets = rows.map((row): KeptRegistrationSheet => {
    const { run_id, ...same } = sheetRow.parse(row);
    return { ...same, runId: run_id };
  });
  const correction = await findCorrection(db, machineId);
  return { sheets, correction, error: judgeRegistration(sheets, correction) };
}

/** What files of a machine correct now. */
export async function findCorrection(db: Store, machineId: number): Promise<Affine> {
  const row: unknown = await db('registration_corrections')
    .where({ machine_id: machineId })
    .orderBy('id', 'desc')
    .first();
  return row ? (correctionRow.parse(row).affine ?? IDENTITY) : IDENTITY;
}

/** Keeps the readings of a sheet, under the correction in force. Returns its id. */
export async function addRegistrationSheet(
  db: Store,
  machineId: number,
  readings: readonly ShiftReading[],
  runId: number | null,
  author: string,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    const corrected = await findCorrection(transaction, machineId);
    const [id] = await transaction('registration_sheets').insert({
      machine_id: machineId,
      run_id: runId,
      readings: JSON.stringify(readings),
      corrected: JSON.stringify(corrected),
      author,
      at: now,
    });
    const what = `shift of print and cut read at ${readings.length} places of a sheet`;
    await addAudit(
      transaction,
      { entity: 'registration', entityId: machineId, action: 'add', what, after: readings, author },
      now,
    );
    return id as number;
  });
}

/** Takes a sheet back: it counts no more. @throws AppError `notFound` */
export async function removeRegistrationSheet(
  db: Store,
  machineId: number,
  id: number,
  author: string,
  now: Date,
): Promise<void> {
  const what = 'a sheet with a read shift taken back';
  const entry = { entity: 'registration', what, author } as const;
  await takeBack(db, 'registration_sheets', { id, machineId }, 'sheet', entry, now);
}

/** Sets what files of a machine correct from now on; `null` for nothing. */
export async function setCorrection(
  db: Store,
  machineId: number,
  correction: Affine | null,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    await transaction('registration_corrections').insert({
      machine_id: machineId,
      affine: correction ? JSON.stringify(correction) : null,
      author,
      at: now,
    });
    const what = correction ? 'files correct the shift of print and cut' : 'files correct no shift any more';
    await addAudit(
      transaction,
      { entity: 'registration', entityId: machineId, action: 'change', what, after: correction, author },
      now,
    );
  });
}
