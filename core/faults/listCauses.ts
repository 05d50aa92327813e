import type { Action } from '#core/faults/faultActions.ts';
import type { Finding } from '#core/faults/findings.ts';
import type { Symptom } from '#core/faults/symptoms.ts';

/** One cause of faults: how common it is, what it shows itself by, what speaks for it, and what mends it. */
export interface CauseFacts {
  readonly words: string;
  /** Why it makes what is seen, in one sentence. */
  readonly why: string;
  /** Share of all troubles at a bench. Common practice, no source. */
  readonly prior: number;
  /** Chance that somebody with this trouble reports a symptom. What is not named: as likely as with any other cause. */
  readonly shows: Readonly<Partial<Record<Symptom, number>>>;
  /** Chance of what is known of the bench, with this cause. What is not named is as likely as at any bench. */
  readonly given: Readonly<Partial<Record<Finding, number>>>;
  /** Chance that an action mends it; what is not named does not. */
  readonly mendedBy: Readonly<Partial<Record<Action, number>>>;
  /** Where alone it can be: on a mat, or under rollers. */
  readonly needs?: Hold;
}

/** How a machine holds its sheet. */
export type Hold = 'mat' | 'rollers';

/** The causes, in the order in which a bench suspects them. All chances: common practice, no source. */
export const CAUSE_FACTS = {
  forceLow: {
    words: 'a little too little force',
    why: 'corners need the most: the blade turns there and lifts',
    prior: 0.16,
    shows: { cornersHang: 0.62, notThrough: 0.5, wontPop: 0.12 },
    given: {
      driftsToMore: 0.12,
      settingProven: 0.15,
      settingPredicted: 0.35,
      everyCorner: 0.85,
      cameAtOnce: 0.4,
      otherRoll: 0.15,
    },
    mendedBy: { moreForce: 0.9, onePassMore: 0.7, dialIn: 0.9 },
  },
  forceHigh: {
    words: 'too much force',
    why: 'the tip goes on into the liner and tears fibres instead of parting them',
    prior: 0.12,
    shows: { linerCut: 0.6, fuzzy: 0.45, bunches: 0.5, linerTears: 0.1 },
    given: {
      settingProven: 0.15,
      settingPredicted: 0.35,
      everyCorner: 0.85,
      cameAtOnce: 0.4,
      otherRoll: 0.15,
    },
    mendedBy: { lessForce: 0.9, lessExposure: 0.2, dialIn: 0.9 },
  },
  bladeDull: {
    words: 'a dull blade',
    why: 'a blunt tip pushes the sheet before it cuts',
    prior: 0.13,
    shows: { notThrough: 0.36, cornersHang: 0.34, fuzzy: 0.34, bunches: 0.3, jagged: 0.18, wontPop: 0.1 },
    given: { bladeOld: 0.72, bladeYoung: 0.05, driftsToMore: 0.6, justFitted: 0.03, cameAtOnce: 0.15 },
    mendedBy: {
      moreForce: 0.45,
      onePassMore: 0.5,
      slower: 0.15,
      cleanBlade: 0.12,
      changeBlade: 0.92,
      dialIn: 0.4,
    },
  },
  bladeDirty: {
    words: 'adhesive or fluff on the blade',
    why: 'what sticks to the tip drags along and holds it off the sheet',
    prior: 0.08,
    shows: { notThrough: 0.2, cornersHang: 0.2, fuzzy: 0.3, bunches: 0.28, jagged: 0.2 },
    given: {
      bladeOld: 0.25,
      driftsToMore: 0.3,
      justCleaned: 0.04,
      justFitted: 0.04,
      oneSpot: 0.85,
      cameAtOnce: 0.6,
    },
    mendedBy: { moreForce: 0.2, cleanBlade: 0.9, changeBlade: 0.9 },
  },
  exposureDeep: {
    words: 'the blade stands out too far',
    why: 'the flank of the blade ploughs, and the tip is wide where it turns',
    prior: 0.07,
    shows: { jagged: 0.6, linerCut: 0.34, bunches: 0.25, fuzzy: 0.12 },
    given: { justFitted: 0.4, settingProven: 0.25, everyCorner: 0.85, cameAtOnce: 0.85, holderTouched: 0.8 },
    mendedBy: { slower: 0.15, lessExposure: 0.85 },
  },
  exposureShallow: {
    words: 'the blade stands out too little',
    why: 'the holder rests on the sheet before the tip is deep enough, whatever the force',
    prior: 0.05,
    shows: { notThrough: 0.6, cornersHang: 0.2, wontPop: 0.12 },
    given: { justFitted: 0.4, settingProven: 0.25, everyCorner: 0.85, cameAtOnce: 0.85, holderTouched: 0.8 },
    mendedBy: { moreExposure: 0.85 },
  },
  tooFast: {
    words: 'too fast',
    why: 'at speed the blade swings late in corners and rides up',
    prior: 0.05,
    shows: { cornersHang: 0.3, jagged: 0.3, bunches: 0.22, sheetMoved: 0.1 },
    given: { settingProven: 0.2, isFast: 0.7 },
    mendedBy: { slower: 0.85 },
  },
  matWeak: {
    words: 'the mat does not hold',
    why: 'what is not held travels with the blade',
    prior: 0.08,
    shows: { sheetMoved: 0.7, bunches: 0.3, jagged: 0.1, fellOut: 0.18 },
    given: { matWorn: 0.75, matStrong: 0.02, everyCorner: 0.2, cameAtOnce: 0.2 },
    mendedBy: { freshMat: 0.88, pressDown: 0.5, longerTabs: 0.15, loadAgain: 0.2 },
    needs: 'mat',
  },
  matStrong: {
    words: 'the mat holds too hard',
    why: 'the liner lets go of itself before it lets go of the mat',
    prior: 0.03,
    shows: { linerTears: 0.75 },
    given: { matStrong: 0.7, isCard: 0.05, afterWeeding: 0.9, cameAtOnce: 0.8 },
    mendedBy: { weakerMat: 0.9 },
    needs: 'mat',
  },
  pinchWeak: {
    words: 'the rollers or the suction hold weakly',
    why: 'a sheet that slips under the rollers is cut where it no longer lies',
    prior: 0.06,
    shows: { sheetMoved: 0.65, bunches: 0.2, jagged: 0.05 },
    given: { everyCorner: 0.2, otherRoll: 0.4 },
    mendedBy: { morePinch: 0.8, loadAgain: 0.3 },
    needs: 'rollers',
  },
  fibre: {
    words: 'cut across the fibres',
    why: 'card tears along its fibres when a cut or crease runs across them',
    prior: 0.03,
    shows: { bunches: 0.4, fuzzy: 0.3 },
    given: { isCard: 0.97 },
    mendedBy: { turnFibre: 0.75 },
  },
  damp: {
    words: 'damp card or paper',
    why: 'fibres that took water bend away and tear',
    prior: 0.03,
    shows: { bunches: 0.45, fuzzy: 0.35, notThrough: 0.15 },
    given: { isCard: 0.85, damp: 0.85, cameAtOnce: 0.35 },
    mendedBy: { onePassMore: 0.2, dryCard: 0.8 },
  },
  tabsWeak: {
    words: 'tabs too short or too far apart',
    why: 'the drag of the blade is more than they bear',
    prior: 0.04,
    shows: { fellOut: 0.75, jagged: 0.2 },
    given: {},
    mendedBy: { longerTabs: 0.85 },
  },
  tabsStrong: {
    words: 'tabs too long or too close',
    why: 'a thumb tears less than stands in its way',
    prior: 0.04,
    shows: { wontPop: 0.75 },
    given: {},
    mendedBy: { shorterTabs: 0.85 },
  },
  offCentre: {
    words: 'print and cut lie apart',
    why: 'a shift that is the same on every sheet can be corrected',
    prior: 0.05,
    shows: { whiteEdge: 0.7 },
    given: { isShiftMeasured: 0.15, isShifted: 0.9, cameAtOnce: 0.3 },
    mendedBy: { calibrate: 0.9, moreBleed: 0.4 },
  },
  bleedSmall: {
    words: 'less bleed than the shift',
    why: 'ink ends where the cut does not',
    prior: 0.04,
    shows: { whiteEdge: 0.55 },
    given: { isShifted: 0.3 },
    mendedBy: { moreBleed: 0.9 },
  },
  glare: {
    words: 'glare on the marks',
    why: 'gloss throws the light back: the sensor sees white',
    prior: 0.05,
    shows: { marksNotRead: 0.6 },
    given: { isGlossy: 0.8, otherRoll: 0.4 },
    mendedBy: { shadeMarks: 0.8 },
  },
  skewed: {
    words: 'the sheet lies skewed or lifted',
    why: 'marks are looked for where they should be',
    prior: 0.04,
    shows: { marksNotRead: 0.45, whiteEdge: 0.25, sheetMoved: 0.15 },
    given: { isShifted: 0.4, everyCorner: 0.3 },
    mendedBy: { freshMat: 0.2, pressDown: 0.3, calibrate: 0.1, loadAgain: 0.85 },
  },
  strayMarks: {
    words: 'dark art or stray marks by the marks',
    why: 'anything dark nearby can be taken for a mark',
    prior: 0.03,
    shows: { marksNotRead: 0.45 },
    given: {},
    mendedBy: { clearMarks: 0.85 },
  },
  pigment: {
    words: 'pigment of this colour',
    why: 'strongly coloured sheets of the same make are harder',
    prior: 0.04,
    shows: { oneColour: 0.8, notThrough: 0.14, cornersHang: 0.14 },
    given: { isDark: 0.7, otherRoll: 0.6 },
    mendedBy: { moreForce: 0.5, ownColour: 0.85, dialIn: 0.7 },
  },
  otherLot: {
    words: 'another lot than the setting knows',
    why: 'makers change film and liner without a word',
    prior: 0.05,
    shows: { cornersHang: 0.25, linerCut: 0.25, notThrough: 0.22, oneColour: 0.08 },
    given: { driftsToMore: 0.2, newLot: 0.8, cameAtOnce: 0.9, otherRoll: 0.92 },
    mendedBy: { moreForce: 0.4, lessForce: 0.4, dialIn: 0.9 },
  },
} as const satisfies Readonly<Record<string, CauseFacts>>;
