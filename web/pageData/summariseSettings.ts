import { nameCondition, type Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { describeExposure } from '#core/units/depthScale.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findMaterials } from '#store/repositories/book/materials.ts';
import type { KeptSetting } from '#store/repositories/book/settings.ts';
import type { SettingSummary } from '#web/schemas/setting.ts';

/** Settings with the words to show them, in their order; the materials they are of are read in one query. */
export async function summariseSettings(
  store: Store,
  settings: readonly KeptSetting[],
): Promise<readonly SettingSummary[]> {
  if (settings.length === 0) return [];
  const owners: { material_id: number }[] = await store('material_conditions')
    .whereIn('id', [...new Set(settings.map(({ key }) => key.conditionId))])
    .distinct('material_id');
  const [materials, machines] = await Promise.all([
    findMaterials(
      store,
      owners.map(({ material_id }) => material_id),
    ),
    listMachines(store, true),
  ]);
  const byCondition = new Map(
    materials.flatMap((material) => material.conditions.map(({ id }) => [id, material] as const)),
  );
  const byMachine = new Map(machines.map((machine) => [machine.id, machine]));
  return settings.flatMap((setting) => {
    const material = byCondition.get(setting.key.conditionId);
    const machine = byMachine.get(setting.key.machineId);
    return material && machine ? summarise(setting, material, machine) : [];
  });
}

/** One setting with the words to show it. */
export function summarise(setting: KeptSetting, material: Material, machine: Machine): SettingSummary {
  const { conditionId, machineId, bladeKind, operation } = setting.key;
  const kind = material.conditions.find(({ id }) => id === conditionId)?.kind ?? 'bare';
  const { id, state, stateReason, lockedBy, isArchived, revision, verdicts } = setting;
  return {
    id,
    conditionId,
    materialId: material.id,
    machineId,
    material: nameCondition(material.name, kind),
    maker: material.maker,
    machine: machine.name,
    bladeKind,
    operation,
    state,
    stateReason,
    lockedBy,
    isArchived,
    revision,
    forceUnit: forceUnit(machine.forceScale),
    speedUnit: machine.speedScale.unit,
    exposureWords:
      operation === 'crease' ? 'no blade' : describeExposure(revision.values.exposureMm, machine.depthScale),
    cleanRuns: verdicts.filter((verdict) => verdict === 'clean').length,
    runs: verdicts.length,
  };
}
