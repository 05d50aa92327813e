import { withHolder } from '#core/station/withHolder.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMachine, scaleInForce } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { refreshStates } from '#store/repositories/book/settingStates.ts';
import { addCare, listBlades, listMats } from '#store/repositories/bench/tools.ts';
import { readBladeRow, readMachineRow, readMatRow } from '#store/rows/stationRows.ts';

/** What can be changed at a station; what is not named stays. */
export interface StationChange {
  readonly bladeId?: number | null | undefined;
  readonly matId?: number | null | undefined;
  readonly conditionId?: number | null | undefined;
  readonly lot?: string | undefined;
  readonly colour?: string | undefined;
}

const SEVERAL_TABLES = { nestTables: true } as const;

interface StationRow {
  readonly blade_id: number | null;
  readonly mat_id: number | null;
  readonly condition_id: number | null;
  readonly lot: string;
  readonly colour: string;
}

/** A machine with what is on it. @throws AppError `notFound` */
export async function findStation(db: Store, machineId: number): Promise<Station> {
  const { conditionId, lot, colour, ...station } = await findBench(db, machineId);
  const sheet = conditionId === null ? null : await findMaterialByCondition(db, conditionId);
  return { ...station, loaded: sheet && { ...sheet, lot, colour } };
}

/** What stands at a bench, with the sheet on it by its id alone. */
export interface Bench extends Omit<Station, 'loaded'> {
  readonly conditionId: number | null;
  readonly lot: string;
  readonly colour: string;
}

/** A bench in one statement. @throws AppError `notFound` */
export async function findBench(db: Store, machineId: number): Promise<Bench> {
  const [row]: BenchRow[] = await db('machines')
    .where('machines.id', machineId)
    .join('stations', 'stations.machine_id', 'machines.id')
    .leftJoin('blades', 'blades.id', 'stations.blade_id')
    .leftJoin('mats', 'mats.id', 'stations.mat_id')
    .select('machines.*', 'stations.*', 'blades.*', 'mats.*', scaleInForce(db))
    .options(SEVERAL_TABLES);
  if (!row) throw new AppError('notFound', `there is no machine ${machineId}`);
  const { machines, stations, blades, mats } = row;
  const blade = stations.blade_id === null ? null : readBladeRow({ ...blades, fitted_to: machineId });
  return {
    machine: withHolder(readMachineRow({ ...machines, ...row[''] }), blade),
    blade,
    mat: stations.mat_id === null ? null : readMatRow(mats),
    conditionId: stations.condition_id,
    lot: stations.lot,
    colour: stations.colour,
  };
}

/** Columns by the table they come from; what is worked out has none. */
interface BenchRow {
  readonly machines: object;
  readonly stations: StationRow;
  readonly blades: object;
  readonly mats: object;
  readonly '': object;
}

/**
 * Changes what is at a station. A blade fitted here is taken off any other machine, a change of blade is written to
 * the upkeep entries, and another sheet or lot lets the settings of this machine be judged anew. Another sheet comes
 * without lot and colour unless they are given.
 *
 * @throws AppError `notFound` for a machine, blade, mat or material that does not exist; `badInput` for a retired tool
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
    const before: StationRow = await transaction('stations').where({ machine_id: machineId }).first();
    const columns: Record<string, unknown> = {};
    if (change.bladeId !== undefined) {
      columns['blade_id'] = change.bladeId;
      await fitBlade(transaction, machine, before.blade_id, change.bladeId, author, now);
    }
    if (change.matId !== undefined) {
      columns['mat_id'] = change.matId;
      if (change.matId !== null) await layMat(transaction, change.matId, now);
    }
    if (change.conditionId !== undefined) {
      if (change.conditionId !== null) await findMaterialByCondition(transaction, change.conditionId);
      columns['condition_id'] = change.conditionId;
      if (change.conditionId !== before.condition_id) Object.assign(columns, { lot: '', colour: '' });
    }
    if (change.lot !== undefined) columns['lot'] = change.lot;
    if (change.colour !== undefined) columns['colour'] = change.colour;
    if (Object.keys(columns).length > 0) {
      await transaction('stations').where({ machine_id: machineId }).update(columns);
    }
    for (const conditionId of new Set([before.condition_id, change.conditionId])) {
      if (conditionId) await refreshStates(transaction, { machine_id: machineId, condition_id: conditionId });
    }
  });
}

async function fitBlade(
  db: Store,
  machine: Machine,
  before: number | null,
  bladeId: number | null,
  author: string,
  now: Date,
): Promise<void> {
  if (before === bladeId) return;
  const blades = await listBlades(db);
  const off = blades.find((one) => one.id === before);
  if (off) {
    const what = `Blade no. ${off.number} (${off.kind}) taken off ${machine.name} at ${off.travelMetres.toFixed(0)} m`;
    await addCare(db, { blade_id: off.id }, what, author, now);
  }
  if (bladeId === null) return;
  const blade = blades.find((one) => one.id === bladeId);
  if (!blade) throw new AppError('notFound', `there is no blade ${bladeId}`);
  if (blade.retiredAt)
    throw new AppError('badInput', `blade no. ${blade.number} is retired: bring it back first`);
  await db('stations').where({ blade_id: bladeId }).update({ blade_id: null });
  const what = `Blade no. ${blade.number} (${blade.kind}) fitted to ${machine.name} at ${blade.travelMetres.toFixed(0)} m`;
  await addCare(db, { blade_id: blade.id }, what, author, now);
}

async function layMat(db: Store, matId: number, now: Date): Promise<void> {
  const mat = (await listMats(db)).find((one) => one.id === matId);
  if (!mat) throw new AppError('notFound', `there is no mat ${matId}`);
  if (mat.retiredAt) throw new AppError('badInput', `mat no. ${mat.number} is retired: bring it back first`);
  if (!mat.firstUsedAt) await db('mats').where({ id: matId }).update({ first_used_at: now });
}

/** Adds travel to a blade and a use to a mat, after a run. */
export async function wearTools(
  db: Store,
  worn: { readonly bladeId: number | null; readonly matId: number | null; readonly metres: number },
): Promise<void> {
  if (worn.bladeId) await db('blades').where({ id: worn.bladeId }).increment('travel_metres', worn.metres);
  if (worn.matId) await db('mats').where({ id: worn.matId }).increment('uses', 1);
}
