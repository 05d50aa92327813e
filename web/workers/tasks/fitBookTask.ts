import type { MessagePort } from 'node:worker_threads';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge, type FitProgress } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { learnSpreads } from '#core/knowledge/learnSpreads.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/** What the thread that fits the book is given. */
export interface FitOrder {
  readonly sheets: readonly EvidenceSheet[];
  readonly priors: Priors;
  readonly start: Knowledge | null;
  /** Where it says how far it is. */
  readonly port: MessagePort;
}

/** Spreads are learnt anew when the book has grown by this share since they were learnt last. */
const GROWN = 0.25;

/** Fits the whole book. */
export function fitBookTask({ sheets, priors, start, port }: FitOrder): Knowledge {
  const onProgress = (progress: FitProgress) => port.postMessage(progress);
  const known = start?.spreads ?? null;
  const first = fitKnowledge(sheets, { priors, start, spreads: known, onProgress });
  const isDue = !known || first.trialCount > known.trialCount * (1 + GROWN);
  const spreads = isDue ? learnSpreads(sheets, first, priors) : known;
  const fitted =
    spreads === known ? first : fitKnowledge(sheets, { priors, start: first, spreads, onProgress });
  port.close();
  return fitted;
}
