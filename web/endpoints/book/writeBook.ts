import { stringify } from 'csv-stringify/sync';
import type { BookSetting } from '#core/book/bookSetting.ts';
import { CSV_COLUMNS, writeCsvRow } from '#core/book/csvColumns.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { pageSettings } from '#store/repositories/book/settingPages.ts';
import type { KeptSetting } from '#store/repositories/book/settings.ts';
import { BOOK_FORMAT, BOOK_VERSION } from '#web/schemas/book.ts';

/** The whole book as it is written to a JSON file; ids and what is only of this workshop's machine room stay here. */
export async function writeJsonBook(store: Store): Promise<string> {
  const [materials, machines, settings] = await Promise.all([
    listMaterials(store),
    listMachines(store),
    listBookSettings(store),
  ]);
  const book = {
    format: BOOK_FORMAT,
    version: BOOK_VERSION,
    materials: materials.map(({ id, version, isArchived, conditions, ...material }) => ({
      ...material,
      conditions: conditions.map(({ kind, stack, coverage }) => ({
        kind,
        stack,
        coverage: coverage ?? null,
      })),
    })),
    machines: machines.map(({ id, version, isArchived, forceScale, ...machine }) => {
      const { measured, ...scale } = forceScale;
      return { ...machine, forceScale: scale };
    }),
    settings,
  };
  return `${JSON.stringify(book, null, 2)}\n`;
}

/** The settings of the book as CSV, UTF-8 with a byte order mark, so that spreadsheets read it rightly. */
export async function writeCsvBook(store: Store): Promise<string> {
  const rows = (await listBookSettings(store)).map(writeCsvRow);
  return stringify([CSV_COLUMNS.map(({ heading }) => heading), ...rows], { bom: true });
}

async function listBookSettings(store: Store): Promise<readonly BookSetting[]> {
  const materials = await listMaterials(store, true);
  const machines = new Map((await listMachines(store, true)).map((machine) => [machine.id, machine.name]));
  const owners = new Map(
    materials.flatMap((material) =>
      material.conditions.map((state) => [state.id, { material, state }] as const),
    ),
  );
  const settings: KeptSetting[] = [];
  for (let after: string | null = null, isFirst = true; isFirst || after !== null; isFirst = false) {
    const page = await pageSettings(store, { isArchived: false, materialIds: null }, after);
    settings.push(...page.settings);
    after = page.next;
  }
  return settings.flatMap(({ key, revision }) => {
    const owner = owners.get(key.conditionId);
    const machine = machines.get(key.machineId);
    if (!owner || !machine) return [];
    return {
      maker: owner.material.maker,
      material: owner.material.name,
      state: owner.state.kind,
      machine,
      blade: key.bladeKind,
      operation: key.operation,
      values: revision.values,
      reason: revision.reason,
      author: revision.author,
      keptAt: revision.at,
    };
  });
}
