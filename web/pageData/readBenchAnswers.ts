import { OPERATIONS } from '#core/stack/operation.ts';
import { valuesOnSheet } from '#core/setting/correctForce.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import type { KeptSetting } from '#store/repositories/book/settings.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import { readBenchAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { readSheetPrior } from '#web/endpoints/bench/readSheetPrior.ts';
import { summarise } from '#web/pageData/summariseSettings.ts';
import type { BenchAnswers } from '#web/schemas/bench.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

/** The answers of the Bench for what is loaded; `null` when nothing is. */
export async function readBenchAnswers(store: Store, station: Station | null): Promise<BenchAnswers | null> {
  if (!station?.loaded) return null;
  const { machine, loaded } = station;
  const judged = OPERATIONS.filter((operation) => operation !== 'kiss' && operation !== 'through');
  const believed = readSheetPrior(store, station, loaded);
  const [kiss, through, ...kept] = await Promise.all([
    readBenchAnswer(store, station, 'kiss', {}, believed),
    readBenchAnswer(store, station, 'through', {}, believed),
    ...judged.map((operation) => findLoadedSetting(store, { ...station, loaded }, operation)),
  ]);
  const others = kept.flatMap((setting) =>
    setting ? summarise(onSheet(setting, machine, loaded), loaded.material, machine) : [],
  );
  return { kiss: inBrief(kiss), through: inBrief(through), others };
}

/** Chances are drawn here, not read: four digits of them do, and the page is lighter. */
function inBrief(bench: BenchAnswer): BenchAnswer {
  if (!bench.answer) return bench;
  const { window } = bench.answer;
  const outlooks = window.outlooks.map(({ forceGf, under, right, over }) => ({
    forceGf,
    under: drawn(under),
    right: drawn(right),
    over: drawn(over),
  }));
  return { ...bench, answer: { ...bench.answer, window: { ...window, outlooks } } };
}

const drawn = (chance: number) => Math.round(10_000 * chance) / 10_000;

/** A setting with the figures that the sheet that lies there wants. */
function onSheet(setting: KeptSetting, machine: Machine, loaded: LoadedSheet): KeptSetting {
  const { revision } = setting;
  return { ...setting, revision: { ...revision, values: valuesOnSheet(revision.values, machine, loaded) } };
}
