import { AppError } from '#core/errors/appError.ts';
import { chunk } from '#core/collections/chunk.ts';
import type { Material } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/log/audit.ts';
import type { BookRow, ImportedBy, ImportedRow } from '#store/repositories/book/importedRow.ts';
import { takeSettings } from '#store/repositories/book/importSettings.ts';
import {
  addMachine,
  changeMachine,
  listMachines,
  type NewMachine,
} from '#store/repositories/book/machines.ts';
import {
  addMaterial,
  addMaterials,
  changeMaterial,
  listMaterials,
  type NewMaterial,
} from '#store/repositories/book/materials.ts';

/** A book as a file holds it. A part may be empty; a CSV file holds settings alone. */
export interface BookFile {
  readonly materials: readonly NewMaterial[];
  readonly machines: readonly NewMachine[];
  readonly settings: readonly BookRow[];
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
  onProgress: (done: number) => void = () => undefined,
): Promise<readonly ImportedRow[]> {
  const rows: ImportedRow[] = [];
  const by = { author, now };
  try {
    await db.transaction(async (transaction) => {
      rows.push(...(await takeMaterials(transaction, book.materials, by, onProgress)));
      for (const [index, machine] of book.machines.entries()) {
        const row = { line: index + 1, kind: 'machine', what: machine.name } as const;
        rows.push(await tryRow(row, transaction, (one) => takeMachine(one, machine, author, now)));
      }
      const told = rows.length;
      const go = (done: number) => onProgress(told + done);
      rows.push(...(await takeSettings(transaction, book.settings, by, go)));
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

/** Materials that are not in the book are added in sets; one that is there is compared, and changed by itself. */
async function takeMaterials(
  db: Store,
  materials: readonly NewMaterial[],
  by: ImportedBy,
  onProgress: (done: number) => void,
): Promise<readonly ImportedRow[]> {
  const keyOf = ({ maker, name }: Pick<NewMaterial, 'maker' | 'name'>) => `${maker}\0${name}`;
  const there = new Map((await listMaterials(db, true)).map((one) => [keyOf(one), one]));
  const rows = materials.map((material, index) => ({ material, line: index + 1 }));
  const isNew = ({ material }: { readonly material: NewMaterial }) => !there.has(keyOf(material));
  const done: ImportedRow[] = [];
  const takeOne = async ({ material, line }: (typeof rows)[number]) => {
    const row = { line, kind: 'material', what: `${material.maker} ${material.name}` } as const;
    const known = there.get(keyOf(material));
    done.push(await tryRow(row, db, (one) => takeMaterial(one, material, known ?? null, by)));
    onProgress(done.length);
  };
  for (const some of chunk(rows.filter(isNew), MATERIALS_AT_ONCE)) {
    try {
      await addMaterials(
        db,
        some.map(({ material }) => material),
        by.now,
        by.author,
      );
      for (const { material, line } of some) {
        const what = `${material.maker} ${material.name}`;
        done.push({ line, kind: 'material', what, status: 'new', detail: '' });
      }
      onProgress(done.length);
    } catch (error) {
      if (!(error instanceof AppError)) throw error;
      // One of them cannot be: each by itself, so that the others are kept and this one is told.
      for (const row of some) await takeOne(row);
    }
  }
  for (const row of rows.filter((one) => !isNew(one))) await takeOne(row);
  return done.toSorted((a, b) => a.line - b.line);
}

const MATERIALS_AT_ONCE = 250;

async function takeMaterial(
  db: Store,
  material: NewMaterial,
  there: Material | null,
  { author, now }: ImportedBy,
): Promise<Outcome> {
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
