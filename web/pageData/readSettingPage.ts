import type { SettingKey } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { correctionsOf, valuesOnSheet, wordCorrections } from '#core/setting/correctForce.ts';
import { withHolder } from '#core/station/withHolder.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import { DEPTH_OPERATIONS } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listAudit } from '#store/repositories/log/audit.ts';
import { findMachine, listMachines } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { listRevisionEvidence } from '#store/repositories/dialIn/revisionEvidence.ts';
import { findSetting, listRevisions, requireSetting } from '#store/repositories/book/settings.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { findBladeOfKind } from '#store/repositories/bench/tools.ts';
import { listRelatives } from '#web/endpoints/bench/listRelatives.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { summarise } from '#web/pageData/summariseSettings.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';

const MOST_AUDIT = 30;

/** The page of a kept setting. @throws AppError `notFound` */
export async function readKeptSettingPage(store: Store, id: number): Promise<SettingPageData> {
  const { key } = await requireSetting(store, id);
  return readSettingPage(store, key);
}

/** The page of a setting, kept or still to be kept. @throws AppError `notFound` for a sheet or machine that is not there */
export async function readSettingPage(store: Store, key: SettingKey): Promise<SettingPageData> {
  const [{ material, condition }, own, machines, blade, kept, kiss, bench] = await Promise.all([
    findMaterialByCondition(store, key.conditionId),
    findMachine(store, key.machineId),
    listMachines(store),
    findBladeOfKind(store, key.bladeKind, key.machineId),
    findSetting(store, key),
    findSetting(store, { ...key, operation: 'kiss' }),
    findStation(store, key.machineId),
  ]);
  const machine = withHolder(own, blade);
  const station: Station = {
    machine,
    blade,
    mat: null,
    loaded: { material, condition, lot: '', colour: '' },
  };
  const id = kept?.id ?? null;
  const dialled = DEPTH_OPERATIONS.find((one) => one === key.operation);
  const kissForce = kiss?.revision.values.force ?? null;
  return {
    key,
    summary: kept && summarise(kept, material, machine),
    revisions: id === null ? [] : await listRevisions(store, id),
    evidence: id === null ? [] : await listRevisionEvidence(store, id),
    material,
    condition,
    machine,
    blade,
    start: kept?.revision.values ?? suggestStart(station, key, kissForce),
    startSources: kept?.revision.sources ?? {},
    kissForce,
    onSheet: kept && forceOnSheet(kept.revision.values, key, bench),
    machines,
    bench: dialled ? await readAnswer(store, station, dialled) : null,
    relatives: await listRelatives(store, station, key.operation),
    audit: id === null ? [] : await listAudit(store, { entity: 'setting', entityId: id }, MOST_AUDIT),
  };
}

/** What the setting comes to on the sheet that lies there, as the Bench says it. */
function forceOnSheet(
  values: SettingValues,
  { conditionId }: SettingKey,
  { machine, loaded }: Station,
): SettingPageData['onSheet'] {
  if (loaded?.condition.id !== conditionId) return null;
  const { lot, colour, material } = loaded;
  const corrections = correctionsOf(material, colour, lot);
  if (corrections.length === 0) return null;
  const { force } = valuesOnSheet(values, machine, loaded);
  return { force, words: wordCorrections(corrections) };
}

/** Where a setting starts that nobody kept yet: from the stack, in the middle of the machine's force scale at most. */
function suggestStart(
  { machine, blade, loaded }: Station,
  { operation }: SettingKey,
  kissForce: number | null,
): SettingValues {
  if (!loaded) throw new Error('a setting is always of a sheet');
  const { min, max } = machine.forceScale;
  const cut = operation === 'kiss' ? 'kiss' : 'through';
  const middleGf = forceToGf(kissForce ?? (min + max) / 3, machine.forceScale);
  const { values } = suggestValues(loaded.material, loaded.condition, machine, blade, cut, middleGf);
  if (!machine.operations.includes(operation)) return values;
  return settleValues(values, operation, machine, kissForce ?? values.force);
}
