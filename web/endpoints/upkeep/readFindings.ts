import { factsOf } from '#core/stack/families/families.ts';
import type { KnownFindings } from '#core/faults/rankCauses.ts';
import type { Operation } from '#core/stack/operation.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import type { LoadedStation } from '#core/station/station.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import { fitTack, tackIndex } from '#core/wear/tackIndex.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findOpenAlarm } from '#store/repositories/log/drift.ts';
import { findRegistration } from '#store/repositories/bench/registration.ts';
import { findHumidity } from '#store/repositories/runs/runs.ts';
import { findLastFitting } from '#store/repositories/bench/tools.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';

const DAY_MS = 86_400_000;
/** Shares of a blade's life. Common practice, no source. */
const OLD = 0.8;
const YOUNG = 0.4;
/** What was done so lately is "just" done, days. */
const JUST_DAYS = 5;
const DAMP_PERCENT = 60;
const DARK = 0.6;
const FAST_SHARE = 0.7;

/** What the log knows of a station that speaks for or against causes of a fault. What it does not know is left out. */
export async function readFindings(
  store: Store,
  station: LoadedStation,
  operation: Operation,
  now: Date,
): Promise<KnownFindings> {
  const { machine, blade, loaded } = station;
  const [alarm, registration, setting, humidity, fittedAt] = await Promise.all([
    findOpenAlarm(store, machine.id),
    findRegistration(store, machine.id),
    findLoadedSetting(store, station, operation),
    findHumidity(store, new Date(now.getTime() - DAY_MS)),
    blade ? findLastFitting(store, blade.id) : null,
  ]);
  const isJust = (at: string | null) => at !== null && now.getTime() - Date.parse(at) < JUST_DAYS * DAY_MS;
  const share = blade ? blade.travelMetres / Math.max(1, blade.lifeMetres) : null;
  const { material } = loaded;
  const top = speedToMmPerS(machine.speedScale.max, machine.speedScale);
  return {
    ...(share === null
      ? {}
      : {
          bladeOld: share > OLD,
          bladeYoung: share < YOUNG,
          justCleaned: isJust(blade?.cleanedAt ?? null),
          justFitted: isJust(fittedAt),
        }),
    ...judgeMat(station, now),
    ...(humidity === null ? {} : { damp: humidity >= DAMP_PERCENT }),
    ...(setting
      ? {
          settingProven: setting.state === 'proven',
          settingPredicted: setting.state === 'predicted',
          newLot: setting.stateReason.includes('is new to it'),
          isFast: speedToMmPerS(setting.revision.values.speed, machine.speedScale) > FAST_SHARE * top,
        }
      : { settingPredicted: true }),
    driftsToMore: alarm?.direction === 'more',
    isCard: factsOf(material.family).isFibrous,
    isGlossy: /gloss|clear|holo|shiny/i.test(`${material.finish} ${material.name}`),
    isDark: material.darkness > DARK,
    isShiftMeasured: registration.error.source === 'measured',
  };
}

function judgeMat({ machine, mat, loaded }: LoadedStation, now: Date): KnownFindings {
  if (machine.kind !== 'matFed' || !mat) return {};
  const index = tackIndex(wearOfMat(mat, now));
  const fit = fitTack(index, loaded.material.family);
  return { matWorn: fit === 'slips', matStrong: fit === 'tears' };
}
