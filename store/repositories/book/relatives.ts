import type { RelativeSetting, RelativeSheet } from '#core/lookup/rankRelatives.ts';
import type { Operation } from '#core/stack/operation.ts';
import { caliperOf } from '#core/stack/measureStack.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { gfOf } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findMaterials } from '#store/repositories/book/materials.ts';
import { loadSettings } from '#store/repositories/book/settings.ts';

/** So many states of sheets are read on each side of the face's caliper. */
const NEIGHBOURS = 10;
const MOST_SETTINGS = 120;

/** A setting of a related sheet, with what it takes to show it. */
export interface NearSetting extends RelativeSetting {
  readonly id: number;
  readonly name: string;
  readonly machine: Machine;
}

/**
 * Settings of the same operation on sheets that may be related: the same material in any state on any machine, and
 * sheets of the same family with the nearest faces. Read by index, however large the book is.
 */
export async function findNearSettings(
  db: Store,
  sheet: RelativeSheet,
  operation: Operation,
): Promise<readonly NearSetting[]> {
  const faceUm = caliperOf(sheet.stack, 'face') + caliperOf(sheet.stack, 'body');
  const inFamily = () =>
    db('material_conditions').where({ family: sheet.family }).limit(NEIGHBOURS).select('id');
  const [own, thinner, thicker] = (await Promise.all([
    db('material_conditions').where({ material_id: sheet.materialId }).select('id'),
    inFamily().where('face_um', '<', faceUm).orderBy('face_um', 'desc'),
    inFamily().where('face_um', '>=', faceUm).orderBy('face_um'),
  ])) as { id: number }[][];
  const ids = [...new Set([...(own ?? []), ...(thinner ?? []), ...(thicker ?? [])].map(({ id }) => id))];
  const rows = await db('settings')
    .whereIn('condition_id', ids)
    .where({ operation })
    .whereNull('archived_at')
    .limit(MOST_SETTINGS);
  const settings = await loadSettings(db, rows);
  const owners: { id: number; material_id: number }[] = await db('material_conditions')
    .whereIn('id', ids)
    .select('id', 'material_id');
  const materials = await findMaterials(db, [...new Set(owners.map(({ material_id }) => material_id))]);
  const machines = await listMachines(db);
  return settings.flatMap(({ id, key, revision, state }) => {
    const material = materials.find((one) =>
      one.conditions.some((condition) => condition.id === key.conditionId),
    );
    const condition = material?.conditions.find((one) => one.id === key.conditionId);
    const machine = machines.find((one) => one.id === key.machineId);
    if (!material || !condition || !machine || material.isArchived) return [];
    const { maker, family, darkness } = material;
    return {
      id,
      key,
      state,
      values: revision.values,
      forceGf: gfOf(revision.values.force, machine.forceScale),
      machineName: machine.name,
      machine,
      name: nameCondition(material.name, condition.kind),
      sheet: {
        materialId: material.id,
        conditionId: condition.id,
        maker,
        family,
        darkness,
        stack: condition.stack,
      },
    };
  });
}
