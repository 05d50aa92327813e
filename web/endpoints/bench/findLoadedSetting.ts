import type { Operation } from '#core/stack/operation.ts';
import type { LoadedStation } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findSetting, type KeptSetting } from '#store/repositories/book/settings.ts';
import { settingKey } from '#core/setting/settingKey.ts';

/** The setting of an operation for the very sheet, machine and blade at a station, or `null`. */
export function findLoadedSetting(
  store: Store,
  station: LoadedStation,
  operation: Operation,
): Promise<KeptSetting | null> {
  return findSetting(store, settingKey(station, station.loaded.condition.id, operation));
}
