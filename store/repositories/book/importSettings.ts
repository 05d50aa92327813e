import { AppError } from '#core/errors/appError.ts';
import type { BookSetting } from '#core/book/bookSetting.ts';
import { chunk } from '#core/collections/chunk.ts';
import type { SettingKey, SettingRevision } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { gfOf } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudits, type NewAuditEntry } from '#store/repositories/log/audit.ts';
import type { BookRow, ImportedBy, ImportedRow } from '#store/repositories/book/importedRow.ts';
import {
  auditRevision,
  followKiss,
  mustFollowKiss,
  revisionColumns,
  tellChanges,
  type NewRevision,
} from '#store/repositories/book/keepSettings.ts';
import { indexNotes } from '#store/repositories/book/lookup.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { insertOrRefuse, listMaterials } from '#store/repositories/book/materials.ts';
import { keyColumns, readSettings } from '#store/repositories/book/settings.ts';
import { refreshStatesOf } from '#store/repositories/book/settingStates.ts';

/** So many rows stand in one statement. */
const MOST_ROWS = 500;
/** Progress is told this often, rows. */
const TELL_EVERY = 200;

/** A setting as the rows of a file leave it so far. */
interface Draft {
  readonly key: SettingKey;
  readonly materialId: number;
  /** `null` until its row is written. */
  id: number | null;
  number: number;
  newest: Pick<SettingRevision, 'values' | 'sources'> | null;
  readonly lockedBy: string;
  isArchived: boolean;
}

/** One revision to be written. */
interface Writing {
  readonly draft: Draft;
  readonly number: number;
  readonly before: SettingValues | null;
  readonly revision: NewRevision;
}

/**
 * Takes the settings of a file in: worked out one after the other in memory, written in sets. A row that cannot be taken
 * is told and leaves nothing behind.
 */
export async function takeSettings(
  db: Store,
  rows: readonly BookRow[],
  by: ImportedBy,
  onProgress: (done: number) => void,
): Promise<readonly ImportedRow[]> {
  if (rows.length === 0) return [];
  const book = await Drafts.load(db, rows);
  const taken: ImportedRow[] = [];
  // Kiss first: the tabs of a perforation are cut at its force.
  const rank = (row: BookRow) => ('setting' in row && row.setting.operation === 'kiss' ? 0 : 1);
  for (const row of [...rows].sort((a, b) => rank(a) - rank(b) || a.line - b.line)) {
    taken.push(takeRow(row, book, by.author));
    if (taken.length % TELL_EVERY === 0) {
      onProgress(taken.length);
      // Whoever else waits for the server has a turn.
      await new Promise((resolve) => setImmediate(resolve));
    }
  }
  await insertOrRefuse(
    'Somebody kept one of these settings meanwhile. Nothing was read in: read the file again.',
    () => writeAll(db, book.writings, by),
  );
  return taken.sort((a, b) => a.line - b.line);
}

function takeRow(row: BookRow, book: Drafts, author: string): ImportedRow {
  const { line } = row;
  if ('refused' in row) return { line, kind: 'setting', what: '', status: 'refused', detail: row.refused };
  const { setting } = row;
  const what = `${setting.material}, ${setting.state}, ${setting.operation} on ${setting.machine}`;
  try {
    return { line, kind: 'setting', what, ...takeSetting(setting, book, author) };
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    return { line, kind: 'setting', what, status: 'refused', detail: error.message };
  }
}

function takeSetting(
  setting: BookSetting,
  book: Drafts,
  author: string,
): Pick<ImportedRow, 'status' | 'detail'> {
  const { material, condition, machine } = book.place(setting);
  const { operation, blade: bladeKind } = setting;
  const key = { conditionId: condition.id, machineId: machine.id, bladeKind, operation };
  const draft = book.draft(key, material.id);
  const kissForce = book.find({ ...key, operation: 'kiss' })?.newest?.values.force ?? null;
  const there = draft.newest?.values ?? null;
  const base = there ?? suggestFor(setting, material, condition, machine);
  const values = settleValues({ ...base, ...setting.values }, operation, machine, kissForce);
  // What an older version left unsaid is no change: both are compared as the machine is set to them.
  const changes = there ? tellChanges(settleValues(there, operation, machine, kissForce), values) : '';
  if (there && changes === '' && !draft.isArchived) return { status: 'same', detail: '' };
  if (draft.lockedBy) {
    throw new AppError('conflict', `${draft.lockedBy} locked this setting. Unlock it first.`);
  }
  const revision: NewRevision = {
    values,
    sources: { force: 'imported' },
    author: (setting.author || author).slice(0, 60),
    reason: (setting.reason || 'read from a file').slice(0, 300),
  };
  book.write(draft, revision);
  if (operation === 'kiss') book.carryToTabs(key, revision);
  return there ? { status: 'changed', detail: changes || 'taken back out' } : { status: 'new', detail: '' };
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

const MOST_BLADE_KIND = 40;
const textOf = (key: SettingKey) => JSON.stringify(keyColumns(key));

/** The part of the book that a file speaks of, as its rows change it. */
class Drafts {
  readonly writings: Writing[] = [];

  private constructor(
    private readonly materials: ReadonlyMap<string, Material>,
    private readonly machines: ReadonlyMap<string, Machine>,
    private readonly drafts: Map<string, Draft>,
  ) {}

  static async load(db: Store, rows: readonly BookRow[]): Promise<Drafts> {
    const [materials, machines] = await Promise.all([listMaterials(db, true), listMachines(db, true)]);
    const byName = new Map(materials.map((one) => [`${one.maker}\0${one.name}`, one]));
    const named = new Set(rows.flatMap((row) => ('setting' in row ? [nameOf(row.setting)] : [])));
    const spoken = [...named].flatMap((name) => byName.get(name) ?? []);
    const owner = new Map(spoken.flatMap(({ id, conditions }) => conditions.map((one) => [one.id, id])));
    const drafts = new Map<string, Draft>();
    for (const ids of chunk([...owner.keys()], MOST_ROWS)) {
      const found = await db('settings').whereIn('condition_id', ids).orderBy('id').forUpdate();
      for (const { id, key, revision, lockedBy, isArchived } of await readSettings(db, found)) {
        const materialId = owner.get(key.conditionId) as number;
        const { revision: number } = revision;
        drafts.set(textOf(key), { key, materialId, id, number, newest: revision, lockedBy, isArchived });
      }
    }
    return new Drafts(byName, new Map(machines.map((one) => [one.name, one])), drafts);
  }

  /** @throws AppError `notFound`, naming what the book does not have; `badInput` for a kind of blade too long to keep */
  place(setting: BookSetting) {
    const material = this.materials.get(nameOf(setting));
    const condition = material?.conditions.find(({ kind }) => kind === setting.state);
    const machine = this.machines.get(setting.machine);
    if (!material) {
      throw new AppError('notFound', `there is no material ${setting.material} of ${setting.maker}`);
    }
    if (!condition) throw new AppError('notFound', `${setting.material} has no state ${setting.state}`);
    if (!machine) throw new AppError('notFound', `there is no machine ${setting.machine}`);
    if (setting.blade.length > MOST_BLADE_KIND) {
      throw new AppError('badInput', `a kind of blade has at most ${MOST_BLADE_KIND} characters`);
    }
    return { material, condition, machine };
  }

  find(key: SettingKey): Draft | null {
    return this.drafts.get(textOf(key)) ?? null;
  }

  draft(key: SettingKey, materialId: number): Draft {
    const known = this.find(key);
    if (known) return known;
    const fresh: Draft = {
      key,
      materialId,
      id: null,
      number: 0,
      newest: null,
      lockedBy: '',
      isArchived: false,
    };
    this.drafts.set(textOf(key), fresh);
    return fresh;
  }

  write(draft: Draft, revision: NewRevision): void {
    draft.number += 1;
    this.writings.push({ draft, number: draft.number, before: draft.newest?.values ?? null, revision });
    draft.newest = revision;
    draft.isArchived = false;
  }

  carryToTabs(key: SettingKey, kiss: NewRevision): void {
    const perforation = this.find({ ...key, operation: 'perforated' });
    if (!perforation?.newest || perforation.isArchived) return;
    if (!mustFollowKiss(perforation.newest.values, kiss.values.force)) return;
    this.write(perforation, followKiss(perforation.newest, kiss));
  }
}

const nameOf = ({ maker, material }: BookSetting) => `${maker}\0${material}`;

async function writeAll(db: Store, writings: readonly Writing[], { now }: ImportedBy): Promise<void> {
  await insertRows(db, writings);
  const audits: NewAuditEntry[] = [];
  for (const some of chunk(writings, MOST_ROWS)) {
    await db('setting_revisions').insert(
      some.map(({ draft, number, revision }) => revisionColumns(idOf(draft), number, revision, now)),
    );
    audits.push(
      ...some.map(({ draft, number, before, revision }) =>
        auditRevision(idOf(draft), draft.key, number, before, revision),
      ),
    );
  }
  await addAudits(db, audits, now);
  const drafts = [...new Set(writings.map(({ draft }) => draft))];
  await setNewest(db, drafts);
  const notes = new Map(
    writings.map(({ draft: { materialId }, revision: { reason } }) => [
      `${materialId}\0${reason}`,
      { materialId, note: reason },
    ]),
  );
  await indexNotes(db, [...notes.values()]);
  await refreshStatesOf(db, drafts.map(idOf));
}

function idOf({ id }: Draft): number {
  if (id === null) throw new Error('a setting without a row has no revisions');
  return id;
}

/** Rows of settings that were never kept before. */
async function insertRows(db: Store, writings: readonly Writing[]): Promise<void> {
  const fresh = [...new Set(writings.map(({ draft }) => draft))].filter(({ id }) => id === null);
  for (const some of chunk(fresh, MOST_ROWS)) {
    await db('settings')
      .insert(some.map(({ key }) => keyColumns(key)))
      .onConflict()
      .ignore();
    const conditions = [...new Set(some.map(({ key }) => key.conditionId))];
    const found: (ReturnType<typeof keyColumns> & { readonly id: number })[] = await db('settings')
      .whereIn('condition_id', conditions)
      .select('id', 'condition_id', 'machine_id', 'blade_kind', 'operation');
    const ids = new Map(
      found.map(({ id, condition_id, machine_id, blade_kind, operation }) => [
        JSON.stringify({ condition_id, machine_id, blade_kind, operation }),
        id,
      ]),
    );
    for (const draft of some) draft.id = ids.get(textOf(draft.key)) ?? null;
  }
}

/** Few numbers stand for many settings: one statement a number. */
async function setNewest(db: Store, drafts: readonly Draft[]): Promise<void> {
  const byNumber = new Map<number, number[]>();
  for (const draft of drafts) {
    const ids = byNumber.get(draft.number) ?? [];
    ids.push(idOf(draft));
    byNumber.set(draft.number, ids);
  }
  for (const [number, ids] of byNumber) {
    for (const some of chunk(ids, MOST_ROWS)) {
      await db('settings').whereIn('id', some).update({ newest_revision: number, archived_at: null });
    }
  }
}
