import { seededRandom } from '#core/random/seededRandom.ts';
import { arrangePieces, type ArrangeOrder } from '#core/sheet/arrangePieces.ts';
import type { NestResult } from '#core/sheet/nest/nestPieces.ts';

export interface NestReport {
  /** The best so far, or `null` when the tries are over. */
  readonly better: NestResult | null;
}

/** Whoever asks stops it by ending the thread. */
const TRIES = 400;
/** Longer nobody waits for the last millimetres. */
const MOST_MS = 15_000;
const SEED = 11;

self.onmessage = ({ data }: MessageEvent<ArrangeOrder>) => {
  const started = performance.now();
  const isOver = () => performance.now() - started > MOST_MS;
  for (const better of arrangePieces(data, seededRandom(SEED), TRIES, isOver)) {
    self.postMessage({ better } satisfies NestReport);
  }
  self.postMessage({ better: null } satisfies NestReport);
};
