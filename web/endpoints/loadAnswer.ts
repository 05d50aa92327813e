import { composeAnswer } from '#core/setting/composeAnswer.ts';
import type { Operation } from '#core/stack/depthGrade.ts';
import type { Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findSetting } from '#store/repositories/settings.ts';
import { listTestCuts } from '#store/repositories/testCuts.ts';
import { settingKey } from '#web/endpoints/settingKey.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

/**
 * The answer for what is loaded at a station, with its evidence.
 *
 * @param passes asks for another number of passes than the kept or usual one
 */
export async function loadAnswer(
  store: Store,
  station: Station,
  operation: Operation,
  passes: number | null = null,
): Promise<BenchAnswer> {
  const { loaded, machine } = station;
  if (!loaded) return { answer: null, revision: null, verdicts: [], lastNote: '', cuts: [] };
  const [setting, cuts] = await Promise.all([
    findSetting(store, settingKey(station, loaded.condition.id, operation)),
    listTestCuts(store, loaded.condition.id, machine.id),
  ]);
  return {
    answer: composeAnswer(station, operation, setting, cuts, passes),
    revision: setting?.revision ?? null,
    verdicts: setting?.verdicts ?? [],
    lastNote: setting?.lastNote ?? '',
    cuts,
  };
}
