import { AppError } from '#core/errors/appError.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Blade, Mat, Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/materials.ts';
import { insertUnique } from '#store/repositories/insertUnique.ts';
import { machineFacts, readBladeRow, readMachineRow, readMatRow } from '#store/rows/stationRows.ts';

export type NewMachine = Omit<Machine, 'id'>;
export type NewBlade = Omit<Blade, 'id' | 'fittedTo'>;
export type NewMat = Omit<Mat, 'id'>;

/** What can be changed at a station; what is not named stays. */
export interface StationChange {
  readonly bladeId?: number | null | undefined;
  readonly matId?: number | null | undefined;
  readonly conditionId?: number | null | undefined;
  readonly lot?: string | undefined;
}

export async function listMachines(db: Store): Promise<readonly Machine[]> {
  return (await db('machines').orderBy('id')).map(readMachineRow);
}

/** @throws AppError `notFound` */
export async function findMachine(db: Store, id: number): Promise<Machine> {
  const row = await db('machines').where({ id }).first();
  if (!row) throw new AppError('notFound', `there is no machine ${id}`);
  return readMachineRow(row);
}

/** Adds a machine and its empty station. @throws AppError `conflict` when the name is taken */
export async function addMachine(db: Store, machine: NewMachine, now: Date): Promise<number> {
  const { name, kind } = machine;
  return db.transaction(async (transaction) => {
    const taken = `there is already a machine named ${name}`;
    const facts = JSON.stringify(machineFacts.parse(machine));
    const id = await insertUnique(transaction, 'machines', taken, { name, kind, facts, created_at: now });
    await transaction('stations').insert({ machine_id: id, lot: '' });
    return id;
  });
}

export async function listBlades(db: Store): Promise<readonly Blade[]> {
  const rows = await db('blades')
    .leftJoin('stations', 'stations.blade_id', 'blades.id')
    .select('blades.*', { fitted_to: 'stations.machine_id' })
    .orderBy('number');
  return rows.map(readBladeRow);
}

export async function listMats(db: Store): Promise<readonly Mat[]> {
  return (await db('mats').orderBy('number')).map(readMatRow);
}

export async function addBlade(db: Store, blade: NewBlade): Promise<number> {
  return insertUnique(db, 'blades', `blade number ${blade.number} exists already`, {
    number: blade.number,
    kind: blade.kind,
    angle_deg: blade.angleDeg,
    offset_mm: blade.offsetMm,
    travel_metres: blade.travelMetres,
    life_metres: blade.lifeMetres,
  });
}

export async function addMat(db: Store, mat: NewMat): Promise<number> {
  return insertUnique(db, 'mats', `mat number ${mat.number} exists already`, {
    number: mat.number,
    tack: mat.tack,
    uses: mat.uses,
    width_mm: mat.widthMm,
    height_mm: mat.heightMm,
  });
}

/** A machine with what is on it. @throws AppError `notFound` */
export async function findStation(db: Store, machineId: number): Promise<Station> {
  const machine = await findMachine(db, machineId);
  const row: { blade_id: number | null; mat_id: number | null; condition_id: number | null; lot: string } =
    await db('stations').where({ machine_id: machineId }).first();
  const blade = (await listBlades(db)).find((one) => one.id === row.blade_id) ?? null;
  const mat = (await listMats(db)).find((one) => one.id === row.mat_id) ?? null;
  const sheet = row.condition_id === null ? null : await findMaterialByCondition(db, row.condition_id);
  return { machine, blade, mat, loaded: sheet && { ...sheet, lot: row.lot } };
}

/**
 * Changes what is at a station. A blade fitted here is taken off any other machine, and a change of blade is
 * written to the upkeep entries.
 *
 * @throws AppError `notFound` for a machine, blade, mat or material that does not exist
 */
export async function changeStation(
  db: Store,
  machineId: number,
  change: StationChange,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const machine = await findMachine(transaction, machineId);
    const columns: Record<string, unknown> = {};
    if (change.bladeId !== undefined) {
      columns['blade_id'] = change.bladeId;
      await fitBlade(transaction, machine, change.bladeId, author, now);
    }
    if (change.matId !== undefined) columns['mat_id'] = change.matId;
    if (change.conditionId !== undefined) {
      if (change.conditionId !== null) await findMaterialByCondition(transaction, change.conditionId);
      columns['condition_id'] = change.conditionId;
    }
    if (change.lot !== undefined) columns['lot'] = change.lot;
    if (Object.keys(columns).length > 0) {
      await transaction('stations').where({ machine_id: machineId }).update(columns);
    }
  });
}

async function fitBlade(
  db: Store,
  machine: Machine,
  bladeId: number | null,
  author: string,
  now: Date,
): Promise<void> {
  if (bladeId === null) return;
  const blade = (await listBlades(db)).find((one) => one.id === bladeId);
  if (!blade) throw new AppError('notFound', `there is no blade ${bladeId}`);
  if (blade.fittedTo === machine.id) return;
  await db('stations').where({ blade_id: bladeId }).update({ blade_id: null });
  const what = `Blade no. ${blade.number} (${blade.kind}) fitted to ${machine.name} at ${blade.travelMetres.toFixed(0)} m`;
  await db('upkeep_entries').insert({ what, author, at: now });
}

/** Adds travel to the blade and a use to the mat of a station, after a run. */
export async function wearStation(db: Store, machineId: number, metres: number): Promise<void> {
  const row: { blade_id: number | null; mat_id: number | null } | undefined = await db('stations')
    .where({ machine_id: machineId })
    .first();
  if (row?.blade_id) await db('blades').where({ id: row.blade_id }).increment('travel_metres', metres);
  if (row?.mat_id) await db('mats').where({ id: row.mat_id }).increment('uses', 1);
}
