/** What is known of the bench beside what is seen. */
export const FINDINGS = [
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
  'cameAtOnce',
  'holderTouched',
  'otherRoll',
] as const;
export type Finding = (typeof FINDINGS)[number];

/** A piece of evidence: how likely it is at any bench. How likely it is with a cause, the cause says. */
export interface FindingFacts {
  /** What it says, once it is known to be so. */
  readonly words: string;
  /** Where the log cannot know, what to ask; `null` where it is looked up. */
  readonly question: string | null;
  /** Chance of it at any bench. */
  readonly usual: number;
}

/** How common each is. Common practice, no source. */
export const FINDING_FACTS: Readonly<Record<Finding, FindingFacts>> = {
  bladeOld: {
    words: 'the blade is near its end',
    question: null,
    usual: 0.15,
  },
  bladeYoung: { words: 'the blade is young', question: null, usual: 0.35 },
  driftsToMore: {
    words: 'cuts have needed more force lately',
    question: null,
    usual: 0.08,
  },
  justCleaned: {
    words: 'the blade was cleaned a few days ago',
    question: null,
    usual: 0.15,
  },
  justFitted: {
    words: 'the blade was fitted a few days ago',
    question: null,
    usual: 0.12,
  },
  matWorn: {
    words: 'the mat has lost much of its tack',
    question: null,
    usual: 0.2,
  },
  matStrong: {
    words: 'the mat is too strong for this sheet',
    question: null,
    usual: 0.1,
  },
  isCard: {
    words: 'it is card',
    question: null,
    usual: 0.3,
  },
  isGlossy: { words: 'it is glossy or clear', question: null, usual: 0.25 },
  isDark: { words: 'the sheet is dark', question: null, usual: 0.15 },
  newLot: { words: 'this lot is new to the setting', question: null, usual: 0.1 },
  settingProven: {
    words: 'the setting is proven',
    question: null,
    usual: 0.35,
  },
  settingPredicted: {
    words: 'the setting was never cut',
    question: null,
    usual: 0.12,
  },
  damp: {
    words: 'the room was damp',
    question: 'Is the room damp, above 60 %?',
    usual: 0.15,
  },
  isShiftMeasured: {
    words: 'the shift of print and cut was measured',
    question: null,
    usual: 0.3,
  },
  isShifted: {
    words: 'the white edge is on the same side of every piece',
    question: 'Is the white edge on the same side of every piece?',
    usual: 0.4,
  },
  isFast: { words: 'it runs fast for this machine', question: null, usual: 0.2 },
  everyCorner: {
    words: 'it is at every corner, all over the sheet',
    question: 'Is it the same all over the sheet?',
    usual: 0.55,
  },
  oneSpot: {
    words: 'fluff or adhesive hangs on the tip',
    question: 'Power off, holder out: does fluff or adhesive hang on the tip?',
    usual: 0.12,
  },
  afterWeeding: {
    words: 'it tears when the sheet is taken off the mat',
    question: 'Does it tear only when the sheet comes off the mat?',
    usual: 0.2,
  },
  cameAtOnce: {
    words: 'it began from one sheet to the next',
    question: 'Since when: did it begin from one sheet to the next?',
    usual: 0.5,
  },
  holderTouched: {
    words: 'blade or holder were touched since it last went well',
    question: 'What changed: were blade or holder touched since it last went well?',
    usual: 0.2,
  },
  otherRoll: {
    words: 'another roll or pack lies on than when it last went well',
    question: 'What changed: is it another roll or pack than when it last went well?',
    usual: 0.25,
  },
};
