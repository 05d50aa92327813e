import type { RelativeSetting, RelativeSheet } from '#core/lookup/rankRelatives.ts';
import type { Operation } from '#core/stack/operation.ts';
import { caliperOf } from '#core/stack/measureStack.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { gfOf } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { scaleInForce } from '#store/repositories/book/machines.ts';
import { readConditionRow, readMaterialRow } from '#store/rows/materialRows.ts';
import { readRevisionRow, readSettingRow } from '#store/rows/settingRows.ts';
import { readMachineRow } from '#store/rows/stationRows.ts';

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
  const near = db.union(
    [
      db('material_conditions').where({ material_id: sheet.materialId }).select('id'),
      inFamily().where('face_um', '<', faceUm).orderBy('face_um', 'desc'),
      inFamily().where('face_um', '>=', faceUm).orderBy('face_um'),
    ],
    true,
  );
  const rows: NearRow[] = await db
    .from(near.as('near'))
    .join('settings', 'settings.condition_id', 'near.id')
    .join('setting_revisions', (on) =>
      on
        .on('setting_revisions.setting_id', 'settings.id')
        .andOn('setting_revisions.revision', 'settings.newest_revision'),
    )
    .join('material_conditions', 'material_conditions.id', 'settings.condition_id')
    .join('materials', 'materials.id', 'material_conditions.material_id')
    .join('machines', 'machines.id', 'settings.machine_id')
    .where('settings.operation', operation)
    .whereNull('settings.archived_at')
    .whereNull('materials.archived_at')
    .whereNull('machines.archived_at')
    .orderBy('settings.id')
    .limit(MOST_SETTINGS)
    .select('settings.*', 'setting_revisions.*', 'material_conditions.*', 'materials.*', 'machines.*')
    .select(scaleInForce(db))
    .options({ nestTables: true });
  return rows.map(readNearRow);
}

/** Columns by the table they come from; what is worked out has none. */
interface NearRow {
  readonly settings: object;
  readonly setting_revisions: object;
  readonly material_conditions: object;
  readonly materials: object;
  readonly machines: object;
  readonly '': object;
}

function readNearRow(row: NearRow): NearSetting {
  const { id, key, state } = readSettingRow(row.settings);
  const { values } = readRevisionRow(row.setting_revisions);
  const { materialId, ...condition } = readConditionRow(row.material_conditions);
  const { name, maker, family, darkness } = readMaterialRow(row.materials, [condition]);
  const machine = readMachineRow({ ...row.machines, ...row[''] });
  return {
    id,
    key,
    state,
    values,
    forceGf: gfOf(values.force, machine.forceScale),
    machineName: machine.name,
    machine,
    name: nameCondition(name, condition.kind),
    sheet: { materialId, conditionId: condition.id, maker, family, darkness, stack: condition.stack },
  };
}
