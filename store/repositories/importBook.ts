import { AppError } from '#core/errors/appError.ts';
import type { BookSetting } from '#core/book/bookSetting.ts';
import { diffValues } from '#core/setting/diffValues.ts';
import type { SettingValues } from '#core/setting/setting.ts';
import { SETTING_FIELDS } from '#core/setting/settingFields.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { gfOf } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/audit.ts';
import { keepRevision } from '#store/repositories/keepSettings.ts';
import { addMachine, changeMachine, listMachines, type NewMachine } from '#store/repositories/machines.ts';
import {
  addMaterial,
  changeMaterial,
  listMaterials,
  type NewMaterial,
} from '#store/repositories/materials.ts';
import { findSetting } from '#store/repositories/settings.ts';

/** A book as a file holds it. A part may be empty; a CSV file holds settings alone. */
export interface BookFile {
  readonly materials: readonly NewMaterial[];
  readonly machines: readonly NewMachine[];
  readonly settings: readonly BookRow[];
}

/** A setting of the file with the line it stands on, or why its line could not be read. */
export type BookRow =
  | { readonly line: number; readonly setting: BookSetting }
  | { readonly line: number; readonly refused: string };

/** What became of one row. */
export interface ImportedRow {
  /** Line of the file, or place in its list. */
  readonly line: number;
  readonly kind: 'material' | 'machine' | 'setting';
  readonly what: string;
  readonly status: 'new' | 'changed' | 'same' | 'refused';
  /** What changed, or why it was refused. */
  readonly detail: string;
}

class DryRun extends Error {}

/**
 * Reads a book into this one, in one transaction. Rows are told by name; what is the same changes nothing, so that an
 * export read back is all the same. A refused row is left out with its reason and does not stop the others.
 *
 * @param isDryRun does exactly the same and then takes all of it back
 */
export async function importBook(
  db: Store,
  book: BookFile,
  isDryRun: boolean,
  author: string,
  now: Date,
): Promise<readonly ImportedRow[]> {
  const rows: ImportedRow[] = [];
  try {
    await db.transaction(async (transaction) => {
      for (const [index, material] of book.materials.entries()) {
        const what = `${material.maker} ${material.name}`;
        rows.push(
          await tryRow({ line: index + 1, kind: 'material', what }, transaction, (one) =>
            takeMaterial(one, material, author, now),
          ),
        );
      }
      for (const [index, machine] of book.machines.entries()) {
        const row = { line: index + 1, kind: 'machine', what: machine.name } as const;
        rows.push(await tryRow(row, transaction, (one) => takeMachine(one, machine, author, now)));
      }
      rows.push(...(await takeSettings(transaction, book.settings, author, now)));
      if (isDryRun) throw new DryRun();
      const changed = rows.filter(({ status }) => status === 'new' || status === 'changed').length;
      const what = `a file read in: ${changed} of ${rows.length} rows changed something`;
      await addAudit(transaction, { entity: 'import', entityId: 0, action: 'add', what, author }, now);
    });
  } catch (error) {
    if (!(error instanceof DryRun)) throw error;
  }
  return rows;
}

type Outcome = Pick<ImportedRow, 'status' | 'detail'>;
const SAME: Outcome = { status: 'same', detail: '' };

/** One row in a transaction of its own inside the whole: refused, it leaves nothing behind. */
async function tryRow(
  row: Pick<ImportedRow, 'line' | 'kind' | 'what'>,
  db: Store,
  take: (db: Store) => Promise<Outcome>,
): Promise<ImportedRow> {
  try {
    return { ...row, ...(await db.transaction(take)) };
  } catch (error) {
    if (error instanceof AppError) return { ...row, status: 'refused', detail: error.message };
    throw error;
  }
}

async function takeMaterial(db: Store, material: NewMaterial, author: string, now: Date): Promise<Outcome> {
  const there = (await listMaterials(db, true)).find(
    ({ maker, name }) => maker === material.maker && name === material.name,
  );
  if (!there) {
    await addMaterial(db, material, now, author);
    return { status: 'new', detail: '' };
  }
  const details = material.details ?? there.details;
  const conditions = material.conditions.map((condition) => ({ coverage: null, ...condition }));
  const isSame =
    isAlike({ ...material, details, conditions: [] }, { ...there, conditions: [] }) &&
    conditions.every((condition) =>
      isAlike(
        condition,
        there.conditions.find(({ kind }) => kind === condition.kind),
      ),
    );
  if (isSame) return SAME;
  await changeMaterial(db, there.id, { ...material, details, conditions }, there.version, author, now);
  return { status: 'changed', detail: 'what the pack says, or its layers' };
}

async function takeMachine(db: Store, machine: NewMachine, author: string, now: Date): Promise<Outcome> {
  const there = (await listMachines(db, true)).find(({ name }) => name === machine.name);
  if (!there) {
    await addMachine(db, machine, now, author);
    return { status: 'new', detail: '' };
  }
  const plain = { ...there, forceScale: { ...there.forceScale, measured: undefined } };
  if (isAlike({ ...machine, forceScale: { ...machine.forceScale, measured: undefined } }, plain)) return SAME;
  await changeMachine(db, there.id, machine, there.version, author, now);
  return { status: 'changed', detail: 'its scales or limits' };
}

/** Every field that the file names is the same in the book. */
function isAlike(given: unknown, kept: unknown): boolean {
  if (typeof given !== 'object' || given === null)
    return given === kept || (given === undefined && kept === undefined);
  if (typeof kept !== 'object' || kept === null) return false;
  if (Array.isArray(given) && given.length !== (kept as unknown[]).length) return false;
  return Object.entries(given).every(([key, value]) =>
    isAlike(value, (kept as Record<string, unknown>)[key]),
  );
}

async function takeSettings(
  db: Store,
  rows: readonly BookRow[],
  author: string,
  now: Date,
): Promise<readonly ImportedRow[]> {
  const materials = new Map((await listMaterials(db, true)).map((one) => [`${one.maker}\0${one.name}`, one]));
  const machines = new Map((await listMachines(db, true)).map((one) => [one.name, one]));
  const taken: ImportedRow[] = [];
  // Kiss first: the tabs of a perforation are cut at its force.
  const rank = (row: BookRow) => ('setting' in row && row.setting.operation === 'kiss' ? 0 : 1);
  for (const row of [...rows].sort((a, b) => rank(a) - rank(b) || a.line - b.line)) {
    if ('refused' in row) {
      taken.push({ line: row.line, kind: 'setting', what: '', status: 'refused', detail: row.refused });
      continue;
    }
    const { setting, line } = row;
    const what = `${setting.material}, ${setting.state}, ${setting.operation} on ${setting.machine}`;
    const take = async (one: Store): Promise<Outcome> => {
      const material = materials.get(`${setting.maker}\0${setting.material}`);
      const condition = material?.conditions.find(({ kind }) => kind === setting.state);
      const machine = machines.get(setting.machine);
      if (!material)
        throw new AppError('notFound', `there is no material ${setting.material} of ${setting.maker}`);
      if (!condition) throw new AppError('notFound', `${setting.material} has no state ${setting.state}`);
      if (!machine) throw new AppError('notFound', `there is no machine ${setting.machine}`);
      const key = {
        conditionId: condition.id,
        machineId: machine.id,
        bladeKind: setting.blade,
        operation: setting.operation,
      };
      const kiss = await findSetting(one, { ...key, operation: 'kiss' });
      const kissForce = kiss?.revision.values.force ?? null;
      const there = await findSetting(one, key);
      const base = there?.revision.values ?? suggestFor(setting, material, condition, machine);
      const values = settleValues({ ...base, ...setting.values }, key.operation, machine, kissForce);
      // What an older version left unsaid is no change: both are compared as the machine is set to them.
      const kept = there && settleValues(there.revision.values, key.operation, machine, kissForce);
      const changes = kept ? diffValues(kept, values) : [];
      if (there && changes.length === 0) return SAME;
      const reason = setting.reason || 'read from a file';
      const revision = {
        values,
        sources: { force: 'imported' },
        author: setting.author || author,
        reason,
      } as const;
      await keepRevision(one, key, revision, there?.revision.revision ?? 0, now);
      const detail = changes
        .map(
          ({ field, before, after }) => `${SETTING_FIELDS[field].label} ${before ?? '–'} to ${after ?? '–'}`,
        )
        .join(', ');
      return there ? { status: 'changed', detail } : { status: 'new', detail: '' };
    };
    taken.push(await tryRow({ line, kind: 'setting', what }, db, take));
  }
  return taken.sort((a, b) => a.line - b.line);
}

/** What a new setting is started from where the file says nothing. */
function suggestFor(
  { operation, values }: BookSetting,
  material: Material,
  condition: MaterialCondition,
  machine: Machine,
): SettingValues {
  const cut = operation === 'kiss' ? 'kiss' : 'through';
  const forceGf = gfOf(values.force, machine.forceScale);
  return suggestValues(material, condition, machine, null, cut, forceGf).values;
}
