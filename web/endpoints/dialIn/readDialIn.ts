import type { DialIn } from '#core/dialIn/dialIn.ts';
import { AppError } from '#core/errors/appError.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { LoadedStation } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findBench } from '#store/repositories/bench/stations.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { readSheetPrior } from '#web/endpoints/bench/readSheetPrior.ts';
import type { DialInQuestion } from '#web/workers/tasks/dialInQuestion.ts';
import type { DialInReply } from '#web/schemas/dialIn.ts';

/** A station with the sheet of a dial-in on it, whatever lies there now. */
export interface DialInStation {
  readonly station: LoadedStation;
  readonly isLoaded: boolean;
}

export async function findDialInStation(store: Store, dialIn: DialIn): Promise<DialInStation> {
  const { conditionId, lot: lotNow, colour: colourNow, ...bench } = await findBench(store, dialIn.machineId);
  const sheet = await findMaterialByCondition(store, dialIn.conditionId);
  const { lot, colour } = dialIn;
  const isLoaded = conditionId === dialIn.conditionId && lotNow === lot && colourNow === colour;
  return { station: { ...bench, loaded: { ...sheet, lot, colour } }, isLoaded };
}

/**
 * A dial-in with the answer that its cuts leave: what every view and script of it starts from.
 *
 * @param at its station, where that was read already
 */
export async function readDialIn(store: Store, dialIn: DialIn, at?: DialInStation): Promise<DialInReply> {
  const { station, isLoaded } = at ?? (await findDialInStation(store, dialIn));
  const { passes, speed, exposureMm, operation } = dialIn;
  const bench = await readAnswer(store, station, operation, { passes, speed, exposureMm });
  const { material, condition } = station.loaded;
  return { dialIn, bench, sheet: nameCondition(material.name, condition.kind), isLoaded };
}

/** All that a search is asked with, for the threads that answer. */
export async function questionDialIn(store: Store, dialIn: DialIn): Promise<DialInQuestion> {
  const { station } = await findDialInStation(store, dialIn);
  const { belief, runs, cuts, effects, priors, knowledgeId } = await readSheetPrior(
    store,
    station,
    station.loaded,
  );
  return { dialIn, station, cuts, runs, belief, effects, priors, knowledgeId };
}

/** @throws AppError `conflict` while a card waits: one thing is graded at a time */
export function requireNoCard({ card }: DialIn): void {
  if (card) throw new AppError('conflict', 'A card waits for its grades. Grade it or put it away.');
}
