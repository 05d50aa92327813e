import { OPERATIONS } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import { loadBenchAnswer } from '#web/endpoints/bench/loadAnswer.ts';
import { loadSheetPrior } from '#web/endpoints/bench/loadSheetPrior.ts';
import { summarise } from '#web/pageData/summariseSettings.ts';
import type { BenchAnswers } from '#web/schemas/bench.ts';

/** The answers of the Bench for what is loaded; `null` when nothing is. */
export async function readBenchAnswers(store: Store, station: Station | null): Promise<BenchAnswers | null> {
  if (!station?.loaded) return null;
  const { machine, loaded } = station;
  const others = OPERATIONS.filter((operation) => operation !== 'kiss' && operation !== 'through');
  const believed = loadSheetPrior(store, station, loaded);
  const [kiss, through, ...kept] = await Promise.all([
    loadBenchAnswer(store, station, 'kiss', {}, believed),
    loadBenchAnswer(store, station, 'through', {}, believed),
    ...others.map((operation) => findLoadedSetting(store, { ...station, loaded }, operation)),
  ]);
  const summaries = kept.flatMap((setting) => (setting ? summarise(setting, loaded.material, machine) : []));
  return { kiss, through, others: summaries };
}
