import type { DialIn } from '#core/dialIn/dialIn.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { LoadedStation } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { loadAnswer } from '#web/endpoints/bench/loadAnswer.ts';
import { loadBelief } from '#web/endpoints/bench/loadBelief.ts';
import type { DialInQuestion } from '#web/workers/tasks/dialInQuestion.ts';
import type { DialInReply } from '#web/schemas/dialIn.ts';

/** A station with the sheet of a dial-in on it, whatever lies there now. */
export interface DialInStation {
  readonly station: LoadedStation;
  readonly isLoaded: boolean;
}

export async function findDialInStation(store: Store, dialIn: DialIn): Promise<DialInStation> {
  const station = await findStation(store, dialIn.machineId);
  const sheet = await findMaterialByCondition(store, dialIn.conditionId);
  const { lot, colour } = dialIn;
  const now = station.loaded;
  const isLoaded = now?.condition.id === dialIn.conditionId && now.lot === lot && now.colour === colour;
  return { station: { ...station, loaded: { ...sheet, lot, colour } }, isLoaded };
}

/** A dial-in with the answer that its cuts leave: what every view and script of it starts from. */
export async function loadDialIn(store: Store, dialIn: DialIn): Promise<DialInReply> {
  const { station, isLoaded } = await findDialInStation(store, dialIn);
  const { passes, speed, exposureMm, operation } = dialIn;
  const bench = await loadAnswer(store, station, operation, { passes, speed, exposureMm });
  const { material, condition } = station.loaded;
  return { dialIn, bench, sheet: nameCondition(material.name, condition.kind), isLoaded };
}

/** All that a search is asked with, for the threads that answer. */
export async function questionDialIn(store: Store, dialIn: DialIn): Promise<DialInQuestion> {
  const { station } = await findDialInStation(store, dialIn);
  const { belief, runs, cuts, effects, priors, knowledgeId } = await loadBelief(
    store,
    station,
    station.loaded,
  );
  return { dialIn, station, cuts, runs, belief, effects, priors, knowledgeId };
}
