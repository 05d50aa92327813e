import type { MessagePort } from 'node:worker_threads';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge, type FitProgress } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge, LearntSpreads } from '#core/knowledge/knowledge.ts';
import { learnReaders } from '#core/knowledge/learnReaders.ts';
import { learnSpreads } from '#core/knowledge/learnSpreads.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/** A book to learn from. */
export interface BookToFit {
  readonly sheets: readonly EvidenceSheet[];
  readonly priors: Priors;
}

/** What the thread that fits the book is given. */
export interface FitOrder extends BookToFit {
  readonly start: Knowledge | null;
  /** How much sheets differ, as learnt before. */
  readonly spreads: LearntSpreads | null;
  /** Where it says how far it is. */
  readonly port: MessagePort;
}

/** Fits the whole book. */
export function fitBookTask({ sheets, priors, start, spreads, port }: FitOrder): Knowledge {
  const onProgress = (progress: FitProgress) => port.postMessage(progress);
  const readers = start?.nextReaders ?? {};
  const fitted = fitKnowledge(sheets, { priors, start, spreads, readers, onProgress });
  const nextReaders = learnReaders(sheets, fitted, priors);
  port.close();
  return { ...fitted, nextReaders };
}

/** How much the sheets of the book differ: a score of fits. @returns `null` for a book too small to say */
export function learnSpreadsTask({
  sheets,
  priors,
  fitted,
}: BookToFit & { readonly fitted: Knowledge }): LearntSpreads | null {
  return learnSpreads(sheets, fitted, priors);
}
