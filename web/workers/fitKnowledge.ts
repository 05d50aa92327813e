import { parentPort, workerData } from 'node:worker_threads';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import type { Priors } from '#core/threshold/thresholdPriors.ts';

/** What the thread that fits the book is given. */
export interface FitOrder {
  readonly sheets: readonly EvidenceSheet[];
  readonly priors: Priors;
  readonly start: Knowledge | null;
}

const { sheets, priors, start } = workerData as FitOrder;
const fitted = fitKnowledge(sheets, {
  priors,
  start,
  onProgress: (progress) => parentPort?.postMessage({ progress }),
});
parentPort?.postMessage({ fitted });
