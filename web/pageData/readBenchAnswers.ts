import { OPERATIONS } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import { readBenchAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { readSheetPrior } from '#web/endpoints/bench/readSheetPrior.ts';
import { summarise } from '#web/pageData/summariseSettings.ts';
import type { BenchAnswers } from '#web/schemas/bench.ts';

/** The answers of the Bench for what is loaded; `null` when nothing is. */
export async function readBenchAnswers(store: Store, station: Station | null): Promise<BenchAnswers | null> {
  if (!station?.loaded) return null;
  const { machine, loaded } = station;
  const others = OPERATIONS.filter((operation) => operation !== 'kiss' && operation !== 'through');
  const believed = readSheetPrior(store, station, loaded);
  const [kiss, through, ...kept] = await Promise.all([
    readBenchAnswer(store, station, 'kiss', {}, believed),
    readBenchAnswer(store, station, 'through', {}, believed),
    ...others.map((operation) => findLoadedSetting(store, { ...station, loaded }, operation)),
  ]);
  const summaries = kept.flatMap((setting) => (setting ? summarise(setting, loaded.material, machine) : []));
  return { kiss, through, others: summaries };
}
