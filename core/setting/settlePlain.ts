import { valuesOffSheet } from '#core/setting/correctForce.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedSheet } from '#core/station/station.ts';

/**
 * Values found on a loaded sheet as they are kept: settled on the machine, without what colour and lot add to the force.
 *
 * @throws AppError as {@link settleValues} does
 * @example settlePlain(values, 'kiss', machine, station.loaded).force // 90
 */
export function settlePlain(
  values: SettingValues,
  operation: Operation,
  machine: Machine,
  loaded: LoadedSheet,
): SettingValues {
  return valuesOffSheet(settleValues(values, operation, machine, null), machine, loaded);
}
