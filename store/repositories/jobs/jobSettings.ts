import type { Job } from '#core/job/job.ts';
import { valuesOnSheet } from '#core/setting/correctForce.ts';
import { derivePerforated } from '#core/setting/derivePerforated.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import { settingKey } from '#core/setting/settingKey.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findSetting, type KeptSetting } from '#store/repositories/book/settings.ts';
import { findStation } from '#store/repositories/bench/stations.ts';

/** The settings of a job's material on its machine. */
export interface JobSettings {
  readonly station: Station;
  readonly sheet: LoadedSheet;
  readonly kept: readonly KeptSetting[];
  /** For the lot and colour that lie there. A perforation nobody kept is derived from kiss and through. */
  readonly values: Readonly<Partial<Record<Operation, SettingValues>>>;
  /** What was not kept but worked out, in words. */
  readonly assumed: readonly string[];
}

/** The settings that a job on this machine would be cut with. */
export async function readJobSettings(
  store: Store,
  job: Pick<Job, 'machineId' | 'conditionId'>,
): Promise<JobSettings> {
  const station = await findStation(store, job.machineId);
  const found = await findMaterialByCondition(store, job.conditionId);
  const all = await Promise.all(
    OPERATIONS.map((operation) => findOwn(store, station, job.conditionId, operation)),
  );
  const kept = all.filter((setting) => setting !== null);
  const isLoaded = station.loaded?.condition.id === job.conditionId;
  const lot = isLoaded ? (station.loaded?.lot ?? '') : '';
  const colour = isLoaded ? (station.loaded?.colour ?? '') : '';
  const sheet = { ...found, lot, colour };
  const values: Partial<Record<Operation, SettingValues>> = Object.fromEntries(
    kept.map((setting) => [
      setting.key.operation,
      valuesOnSheet(setting.revision.values, station.machine, sheet),
    ]),
  );
  const isDerived = !values.perforated && values.through !== undefined;
  if (isDerived && values.through) {
    values.perforated = derivePerforated(values.through, values.kiss ?? null);
  }
  return {
    station,
    sheet,
    kept,
    values,
    assumed: isDerived
      ? ['The perforation is worked out from the through and the kiss cut; its tabs are not tried yet.']
      : [],
  };
}

/** A crease belongs to the tool that presses it; where none is kept so, to the blade as all others. */
async function findOwn(
  store: Store,
  station: Station,
  conditionId: number,
  operation: Operation,
): Promise<KeptSetting | null> {
  const key = settingKey(station, conditionId, operation);
  const tool = station.machine.toolSeats.find(({ holds }) => holds === 'crease')?.tool;
  const pressed =
    operation === 'crease' && tool ? await findSetting(store, { ...key, bladeKind: tool }) : null;
  return pressed ?? (await findSetting(store, key));
}
