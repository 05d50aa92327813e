import type { SettingKey } from '#core/setting/setting.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';

/**
 * Settings belong to a kind of blade; without a blade they belong to none.
 *
 * @example settingKey(station, 4, 'kiss').bladeKind // '45° fine'
 */
export function settingKey(station: Station, conditionId: number, operation: Operation): SettingKey {
  const { machine, blade } = station;
  return { conditionId, machineId: machine.id, bladeKind: blade?.kind ?? 'no blade', operation };
}
