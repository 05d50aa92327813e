import { rankRelatives } from '#core/lookup/rankRelatives.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import { forceUnit, gfToForce } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findNearSettings } from '#store/repositories/book/relatives.ts';
import type { RelativeReply } from '#web/schemas/setting.ts';

const MOST = 4;

/** The nearest relatives of a sheet that have this operation, with where to start from them on this machine. */
export async function listRelatives(
  store: Store,
  { machine, blade, loaded }: Station,
  operation: Operation,
): Promise<readonly RelativeReply[]> {
  if (!loaded) return [];
  const { material, condition } = loaded;
  const { maker, family, darkness } = material;
  const { stack } = condition;
  const sheet = { materialId: material.id, conditionId: condition.id, maker, family, darkness, stack };
  const near = await findNearSettings(store, sheet, operation);
  const at = { machineId: machine.id, bladeKind: blade?.kind ?? 'no blade' };
  return rankRelatives(sheet, at, near, MOST).map(({ setting, reasons, impliedGf, startGf }) => ({
    settingId: setting.id,
    name: setting.name,
    machine: setting.machine.name,
    state: setting.state,
    reasons,
    force: setting.values.force,
    forceUnit: forceUnit(setting.machine.forceScale),
    startForce: gfToForce(startGf, machine.forceScale),
    impliedForce: gfToForce(impliedGf, machine.forceScale),
  }));
}
