import { AppError } from '#core/errors/appError.ts';
import type { Machine, PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { putAway } from '#store/repositories/log/putAway.ts';
import { addAudit } from '#store/repositories/log/audit.ts';
import { insertUnique } from '#store/repositories/workshop/insertUnique.ts';
import { insertOrRefuse, requireVersion } from '#store/repositories/book/materials.ts';
import { machineFacts, readMachineRow } from '#store/rows/stationRows.ts';

type Equipment = keyof typeof PLAIN_EQUIPMENT;
/** A machine before it has an id; what it carries may be left out. */
export type NewMachine = Omit<Machine, 'id' | 'version' | 'isArchived' | Equipment> &
  Partial<Pick<Machine, Equipment>>;

/** All machines, their scales as measured where they were; those put away only when asked for. */
export async function listMachines(db: Store, withArchived = false): Promise<readonly Machine[]> {
  const rows = machinesAsMeasured(db).orderBy('machines.id');
  if (!withArchived) void rows.whereNull('machines.archived_at');
  return (await rows).map(readMachineRow);
}

/** @throws AppError `notFound` */
export async function findMachine(db: Store, id: number): Promise<Machine> {
  const row = await machinesAsMeasured(db).where('machines.id', id).first();
  if (!row) throw new AppError('notFound', `there is no machine ${id}`);
  return readMachineRow(row);
}

/** The machines with these ids, in no order. */
export async function findMachines(db: Store, ids: readonly number[]): Promise<readonly Machine[]> {
  if (ids.length === 0) return [];
  return (await machinesAsMeasured(db).whereIn('machines.id', [...ids])).map(readMachineRow);
}

function machinesAsMeasured(db: Store) {
  return db('machines').select('machines.*', scaleInForce(db));
}

/** The newest calibration of a row of `machines`, as a column: from then on its scale is what was measured. */
export function scaleInForce(db: Store) {
  return db.raw(
    '(SELECT fitted FROM scale_calibrations WHERE machine_id = machines.id AND removed_at IS NULL ORDER BY id DESC LIMIT 1) AS scale_fitted',
  );
}

/** Adds a machine and its empty station. @throws AppError `conflict` when the name is taken */
export async function addMachine(db: Store, machine: NewMachine, now: Date, author = ''): Promise<number> {
  return db.transaction(async (transaction) => {
    const row = { ...machineColumns(machine), created_at: now };
    const id = await insertUnique(transaction, 'machines', takenWords(machine), row);
    await transaction('stations').insert({ machine_id: id, lot: '' });
    const what = `${machine.name} added`;
    await addAudit(
      transaction,
      { entity: 'machine', entityId: id, action: 'add', what, after: machine, author },
      now,
    );
    return id;
  });
}

/**
 * Changes a machine.
 *
 * @returns the id of the audit entry, by which the change can be taken back
 * @throws AppError `conflict` when somebody changed it meanwhile or the name is taken, `notFound`
 */
export async function changeMachine(
  db: Store,
  id: number,
  machine: NewMachine,
  version: number,
  author: string,
  now: Date,
  undoes?: number,
): Promise<number> {
  return db.transaction(async (transaction) => {
    await transaction('machines').where({ id }).forUpdate().first();
    const before = await findMachine(transaction, id);
    requireVersion(before.version, version, before.name);
    const row = { ...machineColumns(machine), version: version + 1 };
    await insertOrRefuse(takenWords(machine), () => transaction('machines').where({ id }).update(row));
    const what = `${machine.name} changed`;
    const after = await findMachine(transaction, id);
    const entry = { entity: 'machine', entityId: id, action: 'change', what, before, after, author } as const;
    return addAudit(transaction, undoes ? { ...entry, undoes } : entry, now);
  });
}

/** Puts a machine away, or takes it back out. */
export async function setMachineArchived(
  db: Store,
  id: number,
  isArchived: boolean,
  author: string,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    const { name } = await findMachine(transaction, id);
    return putAway(transaction, { entity: 'machine', entityId: id, name }, isArchived, author, now);
  });
}

function takenWords({ name }: Pick<Machine, 'name'>): string {
  return `there is already a machine named ${name}`;
}

function machineColumns(machine: NewMachine): Record<string, unknown> {
  const { name, kind } = machine;
  return { name, kind, facts: JSON.stringify(machineFacts.parse(machine)) };
}
