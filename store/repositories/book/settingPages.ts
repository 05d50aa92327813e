import { itemAt } from '#core/collections/itemAt.ts';
import type { SettingState } from '#core/setting/setting.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readSettings, type KeptSetting } from '#store/repositories/book/settings.ts';

/** Which settings of the book are asked for. */
export interface SettingFilter {
  readonly state?: SettingState | undefined;
  readonly operation?: Operation | undefined;
  readonly machineId?: number | undefined;
  readonly isArchived: boolean;
  /** Only of these materials, in this order; `null` for all, by name. */
  readonly materialIds: readonly number[] | null;
}

/** Some materials' settings, and where the next page begins. */
export interface SettingPage {
  readonly settings: readonly KeptSetting[];
  /** Materials in the order of the page. */
  readonly materialIds: readonly number[];
  /** Handed in again for the next page; `null` at the end. */
  readonly next: string | null;
}

const MATERIALS_A_PAGE = 25;

/** One page of the book, by material name: whole materials, so that a page never tears one apart. */
export async function pageSettings(
  db: Store,
  filter: SettingFilter,
  after: string | null,
): Promise<SettingPage> {
  const rows = await findPageMaterials(db, filter, after);
  const ids = rows.map(({ id }) => id);
  const wanted = matching(db, filter)
    .join('material_conditions', 'material_conditions.id', 'settings.condition_id')
    .whereIn('material_conditions.material_id', ids)
    .orderBy('settings.id')
    .select('settings.*');
  const last = rows.length === MATERIALS_A_PAGE ? rows.at(-1) : undefined;
  return {
    settings: ids.length > 0 ? await readSettings(db, await wanted) : [],
    materialIds: ids,
    next: last ? Buffer.from(JSON.stringify([last.name, last.id])).toString('base64url') : null,
  };
}

/** How many settings the book holds, without those put away. */
export async function countSettings(db: Store): Promise<number> {
  const [row] = (await db('settings').whereNull('archived_at').count({ count: '*' })) as { count: number }[];
  return Number(row?.count ?? 0);
}

interface PageMaterial {
  readonly id: number;
  readonly name: string;
}

async function findPageMaterials(
  db: Store,
  filter: SettingFilter,
  after: string | null,
): Promise<readonly PageMaterial[]> {
  const query = db('materials')
    .whereExists(
      matching(db, filter)
        .join('material_conditions', 'material_conditions.id', 'settings.condition_id')
        .where('material_conditions.material_id', db.ref('materials.id'))
        .select(db.raw('1')),
    )
    .orderBy(['name', 'id'])
    .limit(MATERIALS_A_PAGE)
    .select('id', 'name');
  if (filter.materialIds) {
    const found: PageMaterial[] = await query.whereIn('id', [...filter.materialIds]);
    return filter.materialIds.flatMap((id) => found.find((one) => one.id === id) ?? []);
  }
  const from = readCursor(after);
  if (from) void query.whereRaw('(name, id) > (?, ?)', [...from]).andWhere('name', '>=', from[0]);
  return query;
}

function matching(db: Store, { state, operation, machineId, isArchived }: SettingFilter) {
  const query = db('settings').where('newest_revision', '>', 0);
  if (isArchived) void query.whereNotNull('settings.archived_at');
  else void query.whereNull('settings.archived_at');
  if (state) void query.where('settings.state', state);
  if (operation) void query.where({ operation });
  if (machineId) void query.where({ machine_id: machineId });
  return query;
}

/** A cursor that nobody could have been given begins at the start. */
function readCursor(after: string | null): readonly [string, number] | null {
  if (!after) return null;
  try {
    const read: unknown = JSON.parse(Buffer.from(after, 'base64url').toString('utf8'));
    const isCursor = Array.isArray(read) && typeof read[0] === 'string' && typeof read[1] === 'number';
    return isCursor ? [itemAt(read, 0), itemAt(read, 1)] : null;
  } catch {
    return null;
  }
}
