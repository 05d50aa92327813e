import { itemAt } from '#core/collections/itemAt.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { readSheetPrior } from '#web/endpoints/bench/readSheetPrior.ts';

/** Only for tests: where the loaded sheet is believed to come free before its own cuts, ln gf, as the server answers. */
export async function believedThreshold(db: Store, machineId: number): Promise<number> {
  const station = requireLoaded(await findStation(db, machineId));
  return itemAt((await readSheetPrior(db, station, station.loaded)).belief.mean, P.threshold);
}
