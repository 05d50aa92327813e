import type { Cause } from '#core/faults/faultNetwork.ts';

/** What is known of the bench beside what is seen. */
export const EVIDENCE = [
  'bladeOld',
  'bladeYoung',
  'driftsToMore',
  'justCleaned',
  'justFitted',
  'matWorn',
  'matStrong',
  'isCard',
  'isGlossy',
  'isDark',
  'newLot',
  'settingProven',
  'settingPredicted',
  'damp',
  'isShiftMeasured',
  'isShifted',
  'isFast',
  'everyCorner',
  'oneSpot',
  'afterWeeding',
] as const;
export type Evidence = (typeof EVIDENCE)[number];

/** A piece of evidence: how likely it is with each cause, and without any that it speaks for. */
export interface EvidenceFacts {
  /** What it says, once it is known to be so. */
  readonly words: string;
  /** Where the log cannot know, what to ask; `null` where it is looked up. */
  readonly question: string | null;
  /** Chance of it at any bench. */
  readonly usual: number;
  readonly given: Readonly<Partial<Record<Cause, number>>>;
}

/** Likelihoods of evidence. Common practice, no source. */
export const EVIDENCE_FACTS: Readonly<Record<Evidence, EvidenceFacts>> = {
  bladeOld: {
    words: 'the blade is near its end',
    question: null,
    usual: 0.15,
    given: { bladeDull: 0.72, bladeDirty: 0.25 },
  },
  bladeYoung: { words: 'the blade is young', question: null, usual: 0.35, given: { bladeDull: 0.05 } },
  driftsToMore: {
    words: 'cuts have needed more force lately',
    question: null,
    usual: 0.08,
    given: { bladeDull: 0.6, bladeDirty: 0.3, forceLow: 0.12, otherLot: 0.2 },
  },
  justCleaned: {
    words: 'the blade was cleaned a few days ago',
    question: null,
    usual: 0.15,
    given: { bladeDirty: 0.04 },
  },
  justFitted: {
    words: 'the blade was fitted a few days ago',
    question: null,
    usual: 0.12,
    given: { exposureDeep: 0.4, exposureShallow: 0.4, bladeDull: 0.03, bladeDirty: 0.04 },
  },
  matWorn: {
    words: 'the mat has lost much of its tack',
    question: null,
    usual: 0.2,
    given: { matWeak: 0.75 },
  },
  matStrong: {
    words: 'the mat is too strong for this sheet',
    question: null,
    usual: 0.1,
    given: { matStrong: 0.7, matWeak: 0.02 },
  },
  isCard: {
    words: 'it is card',
    question: null,
    usual: 0.3,
    given: { fibre: 0.97, damp: 0.85, matStrong: 0.05 },
  },
  isGlossy: { words: 'it is glossy or clear', question: null, usual: 0.25, given: { glare: 0.8 } },
  isDark: { words: 'the sheet is dark', question: null, usual: 0.15, given: { pigment: 0.7 } },
  newLot: { words: 'this lot is new to the setting', question: null, usual: 0.1, given: { otherLot: 0.8 } },
  settingProven: {
    words: 'the setting is proven',
    question: null,
    usual: 0.35,
    given: { forceLow: 0.15, forceHigh: 0.15, tooFast: 0.2, exposureDeep: 0.25, exposureShallow: 0.25 },
  },
  settingPredicted: {
    words: 'the setting was never cut',
    question: null,
    usual: 0.12,
    given: { forceLow: 0.35, forceHigh: 0.35 },
  },
  damp: {
    words: 'the room was damp',
    question: 'Is the room damp, above 60 %?',
    usual: 0.15,
    given: { damp: 0.85 },
  },
  isShiftMeasured: {
    words: 'the shift of print and cut was measured',
    question: null,
    usual: 0.3,
    given: { offCentre: 0.15 },
  },
  isShifted: {
    words: 'the white edge is on the same side of every piece',
    question: 'Is the white edge on the same side of every piece?',
    usual: 0.4,
    given: { offCentre: 0.9, bleedSmall: 0.3, skewed: 0.4 },
  },
  isFast: { words: 'it runs fast for this machine', question: null, usual: 0.2, given: { tooFast: 0.7 } },
  everyCorner: {
    words: 'it is at every corner, all over the sheet',
    question: 'Is it the same all over the sheet?',
    usual: 0.55,
    given: {
      forceLow: 0.85,
      forceHigh: 0.85,
      exposureDeep: 0.85,
      exposureShallow: 0.85,
      matWeak: 0.2,
      skewed: 0.3,
    },
  },
  oneSpot: {
    words: 'fluff or adhesive hangs on the tip',
    question: 'Power off, holder out: does fluff or adhesive hang on the tip?',
    usual: 0.12,
    given: { bladeDirty: 0.85 },
  },
  afterWeeding: {
    words: 'it tears when the sheet is taken off the mat',
    question: 'Does it tear only when the sheet comes off the mat?',
    usual: 0.2,
    given: { matStrong: 0.9 },
  },
};
