import type { SheetBelief } from '#core/threshold/trial.ts';
import { LRUCache } from 'lru-cache';
import { gatherEvidence, type CutSource } from '#core/dialIn/gatherEvidence.ts';
import type { RunEvidence } from '#core/dialIn/listTrials.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import type { ThresholdEffect } from '#core/knowledge/sheetPrior.ts';
import { placeOf } from '#core/answer/composeAnswer.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readCutSources } from '#store/repositories/dialIn/evidence.ts';
import {
  findKnowledgeIdAndPriors,
  findNewestKnowledge,
  type KeptKnowledge,
} from '#store/repositories/dialIn/knowledge.ts';
import { runTask } from '#web/workers/pool.ts';

/** What the whole book leaves to be believed of one sheet on one machine, and what was seen of it there. */
export interface BookPrior {
  /** Test cuts of the condition on the machine, of any lot and colour, oldest first. */
  readonly cuts: readonly TestCut[];
  readonly runs: readonly RunEvidence[];
  readonly belief: SheetBelief;
  readonly effects: readonly ThresholdEffect[];
  readonly knowledgeId: number;
  readonly priors: Priors;
  /** What harm costs in this workshop, in test cuts. */
  readonly harmCuts: number;
}

let newest: KeptKnowledge | null = null;
const believed = new LRUCache<string, Promise<Pick<BookPrior, 'belief' | 'effects'>>>({ max: 200 });

/** Reads what is believed of the loaded sheet before its own trials; worked out once for the same book. */
export async function readSheetPrior(
  store: Store,
  station: Station,
  loaded: LoadedSheet,
): Promise<BookPrior> {
  const [{ kept, priors, harmCuts }, sources] = await Promise.all([
    readKnowledge(store),
    readCutSources(store, loaded.material, null, [station.machine]),
  ]);
  const place = placeOf(station, loaded);
  const all = gatherEvidence(sources);
  const key = JSON.stringify([kept?.id ?? 0, priors, place, all]);
  const work = () => {
    const learnt = kept ? gatherEvidence(untilCut(sources, kept.lastCutId)) : [];
    const fitted = kept && withOnly(loaded.material.id, kept.fitted);
    const working = runTask('believe', [place, fitted, { learnt, all }, priors], { lane: 'quick' });
    believed.set(key, working);
    working.catch(() => believed.delete(key));
    return working;
  };
  const detail = await (believed.get(key) ?? work());
  const own = sources.find(
    ({ condition, machine }) => condition.id === loaded.condition.id && machine.id === station.machine.id,
  );
  return {
    ...detail,
    knowledgeId: kept?.id ?? 0,
    priors,
    harmCuts,
    cuts: own?.cuts ?? [],
    runs: own?.runs ?? [],
  };
}

/**
 * The fit with where this material stands in it, which is needed to take out what its own trials taught. Where other
 * materials stand says nothing here, and is most of what a fit holds.
 */
function withOnly(materialId: number, fitted: Knowledge): Knowledge {
  const own = fitted.own[String(materialId)];
  return { ...fitted, own: own ? { [materialId]: own } : {} };
}

/** The newest fit, read again only when there is a newer one, and the beliefs it starts from. */
export async function readKnowledge(
  store: Store,
): Promise<{ readonly kept: KeptKnowledge | null; readonly priors: Priors; readonly harmCuts: number }> {
  const { knowledgeId, priors, harmCuts } = await findKnowledgeIdAndPriors(store);
  if (knowledgeId !== (newest?.id ?? 0)) newest = await findNewestKnowledge(store);
  return { kept: newest, priors, harmCuts };
}

/** What a fit has seen: its cuts; runs noted later are few and weak. */
function untilCut(sources: readonly CutSource[], lastCutId: number): readonly CutSource[] {
  return sources.map((source) => ({ ...source, cuts: source.cuts.filter(({ id }) => id <= lastCutId) }));
}
