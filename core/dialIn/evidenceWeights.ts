import type { RunVerdict } from '#core/setting/setting.ts';

/** How far evidence that is not a fresh test cut counts, as a share of one, each with its reason. */
export const EVIDENCE_WEIGHTS = {
  otherBlade: {
    weight: 0.6,
    reason: 'cut with another blade: its own sharpness is not known as well as its metres',
  },
  cleanRun: {
    weight: 0.3,
    reason: 'a clean run says that its force was right on many contours, but nobody graded them one by one',
  },
  spoiledRun: {
    weight: 0.1,
    reason: 'some pieces were spoiled, so its force was right for most of them only',
  },
} as const;

/**
 * How far a run's verdict counts; 0 when it says nothing about depth (a run fails for many reasons).
 *
 * @example weighVerdict('failed') // 0
 */
export function weighVerdict(verdict: RunVerdict): number {
  if (verdict === 'clean') return EVIDENCE_WEIGHTS.cleanRun.weight;
  return verdict === 'someSpoiled' ? EVIDENCE_WEIGHTS.spoiledRun.weight : 0;
}
