import type { MessagePort } from 'node:worker_threads';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge, type FitProgress } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge, LearntSpreads, Shift } from '#core/knowledge/knowledge.ts';
import { learnReaders } from '#core/knowledge/learnReaders.ts';
import { integrateOwn } from '#core/knowledge/integrateOwn.ts';
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
  /** How far the best effects lie from the joint peak, as learnt before. */
  readonly shift: Shift | undefined;
  /** Where it says how far it is. */
  readonly port: MessagePort;
}

/** Fits the whole book. */
export function fitBookTask({ sheets, priors, start, spreads, shift, port }: FitOrder): Knowledge {
  const onProgress = (progress: FitProgress) => port.postMessage(progress);
  const readers = start?.nextReaders ?? {};
  const fitted = fitKnowledge(sheets, { priors, start, spreads, readers, shift, onProgress });
  const nextReaders = learnReaders(sheets, fitted, priors);
  port.close();
  return { ...fitted, nextReaders };
}

/** What a book teaches slowly. */
export interface LearntSlowly {
  readonly spreads: LearntSpreads;
  readonly shift: Shift;
}

/**
 * How much the sheets of the book differ, and how far the best effects lie from the joint peak: a score of fits.
 *
 * @returns `null` for a book too small to say
 */
export function learnSpreadsTask({
  sheets,
  priors,
  fitted,
}: BookToFit & { readonly fitted: Knowledge }): LearntSlowly | null {
  const spreads = learnSpreads(sheets, fitted, priors);
  if (!spreads) return null;
  const { readers = {} } = fitted;
  const again = fitKnowledge(sheets, { priors, start: fitted, spreads, readers });
  const found = integrateOwn(sheets, again, priors);
  return found && { spreads, shift: found.shift };
}
