/** What people see. */
export const SYMPTOMS = [
  'cornersHang',
  'notThrough',
  'linerCut',
  'fuzzy',
  'jagged',
  'bunches',
  'fellOut',
  'wontPop',
  'sheetMoved',
  'whiteEdge',
  'marksNotRead',
  'oneColour',
  'linerTears',
] as const;
export type Symptom = (typeof SYMPTOMS)[number];

export const SYMPTOM_WORDS: Readonly<Record<Symptom, string>> = {
  cornersHang: 'corners hang, the rest lifts',
  notThrough: 'not through anywhere',
  linerCut: 'the liner is cut too',
  fuzzy: 'fuzzy edge',
  jagged: 'jagged ends, ragged corners',
  bunches: 'the sheet bunches or tears',
  fellOut: 'a piece came out early',
  wontPop: 'pieces will not pop out',
  sheetMoved: 'the sheet moved',
  whiteEdge: 'white edge on one side',
  marksNotRead: 'the marks are not read',
  oneColour: 'only one colour fails',
  linerTears: 'the liner tears, the sheet curls',
};

/** What may be behind it. */
export const CAUSES = [
  'forceLow',
  'forceHigh',
  'bladeDull',
  'bladeDirty',
  'exposureDeep',
  'exposureShallow',
  'tooFast',
  'matWeak',
  'matStrong',
  'fibre',
  'damp',
  'tabsWeak',
  'tabsStrong',
  'offCentre',
  'bleedSmall',
  'glare',
  'skewed',
  'strayMarks',
  'pigment',
  'otherLot',
] as const;
export type Cause = (typeof CAUSES)[number];

/** One cause: how common it is, what it shows itself by, and why it does. */
export interface CauseFacts {
  readonly words: string;
  /** Why it makes what is seen, in one sentence. */
  readonly why: string;
  /** Share of all troubles at a bench. Common practice, no source. */
  readonly prior: number;
  /** Chance that somebody with this trouble reports a symptom. What is not named: {@link LEAK}. */
  readonly shows: Readonly<Partial<Record<Symptom, number>>>;
}

/** Chance of a symptom that a cause has nothing to do with. */
export const LEAK = 0.015;

/** The network's data: priors and likelihoods in the order in which a bench suspects them (common practice, no source). */
export const CAUSE_FACTS: Readonly<Record<Cause, CauseFacts>> = {
  forceLow: {
    words: 'a little too little force',
    why: 'corners need the most: the blade turns there and lifts',
    prior: 0.16,
    shows: { cornersHang: 0.62, notThrough: 0.5, wontPop: 0.22 },
  },
  forceHigh: {
    words: 'too much force',
    why: 'the tip goes on into the liner and tears fibres instead of parting them',
    prior: 0.12,
    shows: { linerCut: 0.6, fuzzy: 0.45, bunches: 0.5, linerTears: 0.1 },
  },
  bladeDull: {
    words: 'a dull blade',
    why: 'a blunt tip pushes the sheet before it cuts',
    prior: 0.13,
    shows: { notThrough: 0.36, cornersHang: 0.34, fuzzy: 0.34, bunches: 0.3, jagged: 0.18, wontPop: 0.1 },
  },
  bladeDirty: {
    words: 'adhesive or fluff on the blade',
    why: 'what sticks to the tip drags along and holds it off the sheet',
    prior: 0.08,
    shows: { notThrough: 0.2, cornersHang: 0.2, fuzzy: 0.3, bunches: 0.28, jagged: 0.2 },
  },
  exposureDeep: {
    words: 'the blade stands out too far',
    why: 'the flank of the blade ploughs, and the tip is wide where it turns',
    prior: 0.07,
    shows: { jagged: 0.6, linerCut: 0.34, bunches: 0.25, fuzzy: 0.12 },
  },
  exposureShallow: {
    words: 'the blade stands out too little',
    why: 'the holder rests on the sheet before the tip is deep enough, whatever the force',
    prior: 0.05,
    shows: { notThrough: 0.6, cornersHang: 0.2, wontPop: 0.2 },
  },
  tooFast: {
    words: 'too fast',
    why: 'at speed the blade swings late in corners and rides up',
    prior: 0.05,
    shows: { cornersHang: 0.3, jagged: 0.3, bunches: 0.22, sheetMoved: 0.1 },
  },
  matWeak: {
    words: 'the mat does not hold',
    why: 'what is not held travels with the blade',
    prior: 0.08,
    shows: { sheetMoved: 0.7, bunches: 0.3, jagged: 0.1, fellOut: 0.18 },
  },
  matStrong: {
    words: 'the mat holds too hard',
    why: 'the liner lets go of itself before it lets go of the mat',
    prior: 0.03,
    shows: { linerTears: 0.75 },
  },
  fibre: {
    words: 'cut across the fibres',
    why: 'card tears along its fibres when a cut or crease runs across them',
    prior: 0.03,
    shows: { bunches: 0.4, fuzzy: 0.3 },
  },
  damp: {
    words: 'damp card or paper',
    why: 'fibres that took water bend away and tear',
    prior: 0.03,
    shows: { bunches: 0.45, fuzzy: 0.35, notThrough: 0.15 },
  },
  tabsWeak: {
    words: 'tabs too short or too far apart',
    why: 'the drag of the blade is more than they bear',
    prior: 0.04,
    shows: { fellOut: 0.75, jagged: 0.2 },
  },
  tabsStrong: {
    words: 'tabs too long or too close',
    why: 'a thumb tears less than stands in its way',
    prior: 0.04,
    shows: { wontPop: 0.75 },
  },
  offCentre: {
    words: 'print and cut lie apart',
    why: 'a shift that is the same on every sheet can be corrected',
    prior: 0.05,
    shows: { whiteEdge: 0.7 },
  },
  bleedSmall: {
    words: 'less bleed than the shift',
    why: 'ink ends where the cut does not',
    prior: 0.04,
    shows: { whiteEdge: 0.55 },
  },
  glare: {
    words: 'glare on the marks',
    why: 'gloss throws the light back: the sensor sees white',
    prior: 0.05,
    shows: { marksNotRead: 0.6 },
  },
  skewed: {
    words: 'the sheet lies skewed or lifted',
    why: 'marks are looked for where they should be',
    prior: 0.04,
    shows: { marksNotRead: 0.45, whiteEdge: 0.25, sheetMoved: 0.15 },
  },
  strayMarks: {
    words: 'dark art or stray marks by the marks',
    why: 'anything dark nearby can be taken for a mark',
    prior: 0.03,
    shows: { marksNotRead: 0.45 },
  },
  pigment: {
    words: 'pigment of this colour',
    why: 'strongly coloured sheets of the same make are harder',
    prior: 0.04,
    shows: { oneColour: 0.8, notThrough: 0.14, cornersHang: 0.14 },
  },
  otherLot: {
    words: 'another lot than the setting knows',
    why: 'makers change film and liner without a word',
    prior: 0.05,
    shows: { cornersHang: 0.25, linerCut: 0.25, notThrough: 0.22, oneColour: 0.08 },
  },
};
