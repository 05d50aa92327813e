import type { Symptom } from '#core/faults/symptoms.ts';

/** What can be done about a fault. */
export const ACTIONS = [
  'moreForce',
  'lessForce',
  'onePassMore',
  'slower',
  'cleanBlade',
  'changeBlade',
  'lessExposure',
  'moreExposure',
  'freshMat',
  'pressDown',
  'weakerMat',
  'morePinch',
  'turnFibre',
  'dryCard',
  'longerTabs',
  'shorterTabs',
  'calibrate',
  'moreBleed',
  'shadeMarks',
  'loadAgain',
  'clearMarks',
  'ownColour',
  'dialIn',
] as const;
export type Action = (typeof ACTIONS)[number];

/** Which number of a setting an action changes. */
export type ChangedNumber = 'force' | 'passes' | 'speed' | 'exposureMm' | 'tabLengthMm';

/** One action: what it costs and how it is done. What it mends, the causes say. */
export interface ActionFacts {
  readonly words: string;
  readonly how: string;
  /** Minutes at the bench and sheets spent until one knows whether it helped. Common practice, no source. */
  readonly minutes: number;
  readonly sheets: number;
  readonly changes: ChangedNumber | null;
  /** For these signs it would make matters worse. */
  readonly notFor?: readonly Symptom[];
  readonly caution?: string;
  /** What is looked at before every run where it helped for good, and whether only on sheets with marks. */
  readonly standing?: { readonly words: string; readonly needsMarks?: true };
  /** Where alone it can be done. */
  readonly needs?: 'mat' | 'rollers';
  /** Where in the application it is done, beside the settings. */
  readonly link?: string;
}

const BLADE_CAUTION =
  'Power off or retract first. Never feel the tip or press it in with a finger; tweezers and a cut-resistant pad.';

export const ACTION_FACTS: Readonly<Record<Action, ActionFacts>> = {
  moreForce: {
    words: 'a little more force',
    how: 'one step up, and look again',
    minutes: 2,
    sheets: 0.2,
    changes: 'force',
    notFor: ['linerCut', 'bunches'],
  },
  lessForce: {
    words: 'a little less force',
    how: 'one step down, and look again',
    minutes: 2,
    sheets: 0.2,
    changes: 'force',
    notFor: ['notThrough', 'cornersHang'],
  },
  onePassMore: {
    words: 'one pass more',
    how: 'the same path again, at the same force',
    minutes: 2,
    sheets: 0.1,
    changes: 'passes',
    notFor: ['linerCut', 'fuzzy'],
  },
  slower: {
    words: 'slower',
    how: 'half the speed',
    minutes: 2,
    sheets: 0.2,
    changes: 'speed',
  },
  cleanBlade: {
    words: 'clean the blade',
    how: 'holder out, soft cloth or a piece of foil for the debris; look at the tip',
    minutes: 4,
    sheets: 0.1,
    changes: null,
    caution: BLADE_CAUTION,
    link: '/upkeep',
  },
  changeBlade: {
    words: 'a fresh blade',
    how: 'fit it, set the exposure anew, and one test cut: it will want less force',
    minutes: 6,
    // A blade is worth more than the sheet it is tried on.
    sheets: 1.5,
    changes: null,
    caution: `${BLADE_CAUTION} Old blades go into a sharps container.`,
    link: '/upkeep',
  },
  lessExposure: {
    words: 'less exposure',
    how: 'one step of the holder in',
    minutes: 3,
    sheets: 0.2,
    changes: 'exposureMm',
    notFor: ['notThrough'],
    caution: BLADE_CAUTION,
  },
  moreExposure: {
    words: 'more exposure',
    how: 'one step of the holder out',
    minutes: 3,
    sheets: 0.2,
    changes: 'exposureMm',
    notFor: ['jagged', 'linerCut'],
    caution: BLADE_CAUTION,
  },
  freshMat: {
    words: 'another mat',
    how: 'a mat with more tack, or wash and dry this one',
    minutes: 5,
    sheets: 0.1,
    changes: null,
    link: '/upkeep',
    needs: 'mat',
  },
  pressDown: {
    words: 'press the sheet down with a roller',
    how: 'from the middle outwards, edges last',
    minutes: 1,
    sheets: 0,
    changes: null,
    needs: 'mat',
    standing: { words: 'The sheet is rolled down hard, its edges too' },
  },
  weakerMat: {
    words: 'a lighter mat, and peel the mat off the sheet',
    how: 'turn the mat over and bend it away from the sheet',
    minutes: 3,
    sheets: 0.1,
    changes: null,
    needs: 'mat',
    standing: { words: 'A lighter mat is under this kind of liner' },
  },
  morePinch: {
    words: 'pinch or suction one step up',
    how: 'thick or slippery sheet wants more; cover suction holes beside a narrow one',
    minutes: 3,
    sheets: 0.2,
    changes: null,
    needs: 'rollers',
    standing: { words: 'Pinch or suction is one step up' },
  },
  turnFibre: {
    words: 'turn the sheet a quarter',
    how: 'long cuts and creases along the fibres',
    minutes: 3,
    sheets: 0.5,
    changes: null,
  },
  dryCard: {
    words: 'let the card dry',
    how: 'opened, some hours in a dry room',
    minutes: 240,
    sheets: 0,
    changes: null,
  },
  longerTabs: {
    words: 'longer tabs',
    how: 'a quarter longer, the kiss force stays',
    minutes: 3,
    sheets: 0.3,
    changes: 'tabLengthMm',
  },
  shorterTabs: {
    words: 'shorter tabs',
    how: 'a quarter shorter, the kiss force stays',
    minutes: 3,
    sheets: 0.3,
    changes: 'tabLengthMm',
  },
  calibrate: {
    words: 'measure print to cut',
    how: 'one card tells the shift to a tenth of a mm',
    minutes: 10,
    sheets: 1,
    changes: null,
    link: '/upkeep',
  },
  moreBleed: {
    words: 'more bleed',
    how: 'as much as the job proposes under its sheet',
    minutes: 3,
    sheets: 1,
    changes: null,
    link: '/jobs',
  },
  shadeMarks: {
    words: 'take the shine off the marks',
    how: 'matt tape over them, white crayon, or a lamp beside the machine',
    minutes: 2,
    sheets: 0,
    changes: null,
    standing: { words: 'The shine is off the marks, or the lamp stands by', needsMarks: true },
  },
  loadAgain: {
    words: 'load the sheet again',
    how: 'square in the corner, flat, rolled down',
    minutes: 2,
    sheets: 0,
    changes: null,
    standing: { words: 'The sheet lies square and level, supported in front and behind' },
  },
  clearMarks: {
    words: 'clear the ground around the marks',
    how: 'trim or cover dark art, pen marks, marks of another print',
    minutes: 2,
    sheets: 0,
    changes: null,
    standing: { words: 'Nothing lies or shows beside the marks', needsMarks: true },
  },
  ownColour: {
    words: 'a correction for this colour',
    how: 'kept with the material: every setting takes it',
    minutes: 3,
    sheets: 0.3,
    changes: 'force',
  },
  dialIn: {
    words: 'find it anew with test cuts',
    how: 'a few cuts in a corner, and the window is known',
    minutes: 8,
    sheets: 0.3,
    changes: null,
    link: '/test-cuts',
  },
};

/** Actions whose help is kept up at a machine from then on. */
export const STANDING_ACTIONS: readonly Action[] = ACTIONS.filter((action) => ACTION_FACTS[action].standing);
