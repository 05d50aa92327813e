import { chunk } from '#core/collections/chunk.ts';
import { AppError } from '#core/errors/appError.ts';
import { caliperOf, requireStack } from '#core/stack/measureStack.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import { NO_DETAILS, type MaterialDetails } from '#core/stack/materialDetails.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { putAway } from '#store/repositories/log/putAway.ts';
import { addAudit, addAudits } from '#store/repositories/log/audit.ts';
import { insertUnique, isDuplicate } from '#store/repositories/workshop/insertUnique.ts';
import { indexMaterial, indexNewMaterials } from '#store/repositories/book/lookup.ts';
import { readConditionRow, readMaterialRow } from '#store/rows/materialRows.ts';

/** What a material is, apart from its states. */
export type MaterialFacts = Omit<Material, 'id' | 'conditions' | 'version' | 'isArchived'>;

/** A material before it has an id. */
export type NewMaterial = Omit<MaterialFacts, 'details'> & {
  readonly details?: MaterialDetails;
  readonly conditions: readonly Omit<MaterialCondition, 'id'>[];
};

/** A changed material: a state with the id of a kept one changes it, one without is added. */
export type ChangedMaterial = MaterialFacts & {
  readonly conditions: readonly (Omit<MaterialCondition, 'id'> & { readonly id?: number | undefined })[];
};

/** All materials by maker and name, with their conditions; those put away only when asked for. */
export async function listMaterials(db: Store, withArchived = false): Promise<readonly Material[]> {
  const rows = db('materials').orderBy(['maker', 'name']);
  if (!withArchived) void rows.whereNull('archived_at');
  return withConditions(db, await rows);
}

/** The materials with these ids, in no order. */
export async function findMaterials(db: Store, ids: readonly number[]): Promise<readonly Material[]> {
  if (ids.length === 0) return [];
  return withConditions(db, await db('materials').whereIn('id', [...ids]));
}

/** Materials of a family that are not put away, the newest first. */
export async function listFamily(db: Store, family: string, most: number): Promise<readonly Material[]> {
  const rows: { id: number }[] = await db('materials')
    .where({ family, archived_at: null })
    .orderBy('id', 'desc')
    .limit(most)
    .select('id');
  return findMaterials(
    db,
    rows.map(({ id }) => id),
  );
}

/** @throws AppError `notFound` */
export async function findMaterial(db: Store, id: number): Promise<Material> {
  const [material] = await findMaterials(db, [id]);
  if (!material) throw new AppError('notFound', `there is no material ${id}`);
  return material;
}

/** The material of this maker and name, put away or not; as the store tells names apart, without regard to case. */
export async function findMaterialByName(
  db: Store,
  { maker, name }: Pick<Material, 'maker' | 'name'>,
): Promise<Material | null> {
  const [material] = await withConditions(db, await db('materials').where({ maker, name }).limit(1));
  return material ?? null;
}

/** The material that has a condition. @throws AppError `notFound` */
export async function findMaterialByCondition(
  db: Store,
  conditionId: number,
): Promise<{ readonly material: Material; readonly condition: MaterialCondition }> {
  const rows: { readonly materials: object; readonly material_conditions: object }[] = await db(
    'material_conditions as wanted',
  )
    .where('wanted.id', conditionId)
    .join('materials', 'materials.id', 'wanted.material_id')
    .join('material_conditions', 'material_conditions.material_id', 'materials.id')
    .orderBy('material_conditions.id')
    .select('materials.*', 'material_conditions.*')
    .options({ nestTables: true });
  const conditions = rows.map(({ material_conditions: row }) => {
    const { materialId, ...condition } = readConditionRow(row);
    return condition;
  });
  const condition = conditions.find(({ id }) => id === conditionId);
  if (!condition) throw new AppError('notFound', `there is no material condition ${conditionId}`);
  return { material: readMaterialRow(rows[0]?.materials, conditions), condition };
}

/**
 * Adds a material with its conditions, all or nothing.
 *
 * @throws AppError `conflict` when the maker already has a material of this name; `badInput` for an impossible stack
 */
export async function addMaterial(db: Store, given: NewMaterial, now: Date, author = ''): Promise<number> {
  const material = { ...given, details: given.details ?? NO_DETAILS };
  for (const condition of material.conditions) requireStack(condition.stack);
  return db.transaction(async (transaction) => {
    const row = { ...factColumns(material), created_at: now };
    const id = await insertUnique(transaction, 'materials', takenWords(material), row);
    for (const condition of material.conditions) {
      await transaction('material_conditions').insert(conditionColumns(id, material, condition));
    }
    await indexMaterial(transaction, id, material);
    const what = `${material.name} added`;
    await addAudit(
      transaction,
      { entity: 'material', entityId: id, action: 'add', what, after: material, author },
      now,
    );
    return id;
  });
}

/** So many materials are added in one statement. */
const MOST_ROWS = 250;

/**
 * Adds materials that are not in the book, in few statements, all or nothing.
 *
 * @throws AppError as {@link addMaterial} does
 */
export async function addMaterials(
  db: Store,
  given: readonly NewMaterial[],
  now: Date,
  author: string,
): Promise<void> {
  const materials = given.map((one) => ({ ...one, details: one.details ?? NO_DETAILS }));
  for (const { conditions } of materials) for (const { stack } of conditions) requireStack(stack);
  await db.transaction(async (transaction) => {
    for (const some of chunk(materials, MOST_ROWS)) {
      const rows = some.map((one) => ({ ...factColumns(one), created_at: now }));
      await insertOrRefuse('a maker already has a material of this name', () =>
        transaction('materials').insert(rows),
      );
      const found: { id: number; maker: string; name: string }[] = await transaction('materials')
        .whereIn(
          ['maker', 'name'],
          some.map(({ maker, name }) => [maker, name]),
        )
        .select('id', 'maker', 'name');
      const ids = new Map(found.map(({ id, maker, name }) => [`${maker}\0${name}`, id]));
      const added = some.map((material) => ({
        id: ids.get(`${material.maker}\0${material.name}`) as number,
        material,
      }));
      await transaction('material_conditions').insert(
        added.flatMap(({ id, material }) =>
          material.conditions.map((condition) => conditionColumns(id, material, condition)),
        ),
      );
      await indexNewMaterials(transaction, added);
      await addAudits(
        transaction,
        added.map(({ id, material }) => ({
          entity: 'material',
          entityId: id,
          action: 'add',
          what: `${material.name} added`,
          after: material,
          author,
        })),
        now,
      );
    }
  });
}

/**
 * Changes a material. Its states keep their ids, so settings and the log stay with them; none is taken away.
 *
 * @param version the version its author saw
 * @returns the id of the audit entry, by which the change can be taken back
 * @throws AppError `conflict` when somebody changed it meanwhile, `notFound`, `badInput` for an impossible stack
 */
export async function changeMaterial(
  db: Store,
  id: number,
  change: ChangedMaterial,
  version: number,
  author: string,
  now: Date,
  undoes?: number,
): Promise<number> {
  for (const condition of change.conditions) requireStack(condition.stack);
  return db.transaction(async (transaction) => {
    await transaction('materials').where({ id }).forUpdate().first();
    const before = await findMaterial(transaction, id);
    requireVersion(before.version, version, before.name);
    await insertOrRefuse(takenWords(change), () =>
      transaction('materials')
        .where({ id })
        .update({ ...factColumns(change), version: version + 1 }),
    );
    for (const condition of change.conditions) {
      const columns = conditionColumns(id, change, condition);
      const kept = before.conditions.find((one) => one.id === condition.id || one.kind === condition.kind);
      if (kept) await transaction('material_conditions').where({ id: kept.id }).update(columns);
      else await transaction('material_conditions').insert(columns);
    }
    await indexMaterial(transaction, id, change);
    const what = `${change.name} changed`;
    const after = await findMaterial(transaction, id);
    const entry = {
      entity: 'material',
      entityId: id,
      action: 'change',
      what,
      before,
      after,
      author,
    } as const;
    return addAudit(transaction, undoes ? { ...entry, undoes } : entry, now);
  });
}

/** Puts a material away, or takes it back out. Nothing is deleted: the log and settings refer to it. */
export async function setMaterialArchived(
  db: Store,
  id: number,
  isArchived: boolean,
  author: string,
  now: Date,
): Promise<number> {
  return db.transaction(async (transaction) => {
    const { name } = await findMaterial(transaction, id);
    return putAway(transaction, { entity: 'material', entityId: id, name }, isArchived, author, now);
  });
}

/** @throws AppError `conflict`, saying that nothing was overwritten */
export function requireVersion(now: number, seen: number, name: string): void {
  if (now === seen) return;
  throw new AppError('conflict', `Somebody else changed ${name} while you worked. Nothing was overwritten.`, {
    version: now,
  });
}

/** Runs a change that may break a unique key. @throws AppError `conflict` with the words given */
export async function insertOrRefuse(taken: string, change: () => PromiseLike<unknown>): Promise<void> {
  try {
    await change();
  } catch (error) {
    if (isDuplicate(error)) throw new AppError('conflict', taken);
    throw error;
  }
}

async function withConditions(db: Store, rows: readonly { id: number }[]): Promise<readonly Material[]> {
  if (rows.length === 0) return [];
  const ids = rows.map(({ id }) => id);
  const conditions = (await db('material_conditions').whereIn('material_id', ids).orderBy('id')).map(
    readConditionRow,
  );
  const byMaterial = new Map<number, MaterialCondition[]>();
  for (const { materialId, ...condition } of conditions) {
    byMaterial.set(materialId, [...(byMaterial.get(materialId) ?? []), condition]);
  }
  return rows.map((row) => readMaterialRow(row, byMaterial.get(row.id) ?? []));
}

function takenWords({ maker, name }: Pick<Material, 'maker' | 'name'>): string {
  return `${maker} already has a material named ${name}`;
}

function factColumns(material: MaterialFacts): Record<string, unknown> {
  return {
    name: material.name,
    maker: material.maker,
    family: material.family,
    finish: material.finish,
    colour_name: material.colourName,
    colour_hex: material.colourHex,
    darkness: material.darkness,
    cautions: JSON.stringify(material.cautions),
    details: JSON.stringify(material.details),
  };
}

/** A condition's row. */
export function conditionColumns(
  materialId: number,
  { family }: Pick<Material, 'family'>,
  { kind, stack, coverage }: Omit<MaterialCondition, 'id'>,
): Record<string, unknown> {
  return {
    material_id: materialId,
    kind,
    stack: JSON.stringify(stack),
    coverage: coverage ?? null,
    family,
    face_um: caliperOf(stack, 'face') + caliperOf(stack, 'body'),
  };
}
