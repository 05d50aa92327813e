import { AppError } from '#core/errors/appError.ts';
import { requireStack } from '#core/stack/measureStack.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { insertUnique } from '#store/repositories/insertUnique.ts';
import { readConditionRow, readMaterialRow } from '#store/rows/materialRows.ts';

/** A material before it has an id. */
export type NewMaterial = Omit<Material, 'id' | 'conditions'> & {
  readonly conditions: readonly Omit<MaterialCondition, 'id'>[];
};

/** All materials by maker and name, with their conditions. */
export async function listMaterials(db: Store): Promise<readonly Material[]> {
  const rows: { id: number }[] = await db('materials').orderBy(['maker', 'name']);
  const conditions = (await db('material_conditions').orderBy('id')).map(readConditionRow);
  return rows.map((row) =>
    readMaterialRow(
      row,
      conditions.filter((condition) => condition.materialId === row.id).map(withoutMaterial),
    ),
  );
}

/** The material that has a condition. @throws AppError `notFound` */
export async function findMaterialByCondition(
  db: Store,
  conditionId: number,
): Promise<{ readonly material: Material; readonly condition: MaterialCondition }> {
  const found = await db('material_conditions').where({ id: conditionId }).first();
  if (!found) throw new AppError('notFound', `there is no material condition ${conditionId}`);
  const { materialId, ...condition } = readConditionRow(found);
  const row = await db('materials').where({ id: materialId }).first();
  const all = await db('material_conditions').where({ material_id: materialId }).orderBy('id');
  return { material: readMaterialRow(row, all.map(readConditionRow).map(withoutMaterial)), condition };
}

/**
 * Adds a material with its conditions, all or nothing.
 *
 * @throws AppError `conflict` when the maker already has a material of this name; `badInput` for an impossible stack
 */
export async function addMaterial(db: Store, material: NewMaterial, now: Date): Promise<number> {
  for (const condition of material.conditions) requireStack(condition.stack);
  return db.transaction(async (transaction) => {
    const taken = `${material.maker} already has a material named ${material.name}`;
    const id = await insertUnique(transaction, 'materials', taken, {
      name: material.name,
      maker: material.maker,
      family: material.family,
      finish: material.finish,
      colour_name: material.colourName,
      colour_hex: material.colourHex,
      darkness: material.darkness,
      cautions: JSON.stringify(material.cautions),
      created_at: now,
    });
    for (const { kind, stack } of material.conditions) {
      await transaction('material_conditions').insert({
        material_id: id,
        kind,
        stack: JSON.stringify(stack),
      });
    }
    return id;
  });
}

function withoutMaterial({ id, kind, stack }: MaterialCondition): MaterialCondition {
  return { id, kind, stack };
}
