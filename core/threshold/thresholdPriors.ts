import { FAMILIES, factsOf, type Family } from '#core/stack/families/families.ts';
import type { FamilyHabit } from '#core/stack/families/familyFacts.ts';

/** A belief before any test cut: its middle, its standard deviation and why. */
export interface Belief {
  readonly mean: number;
  readonly sd: number;
  readonly reason: string;
}

/** The habit of every family. Common practice, no source: orders of magnitude that operators start from. */
export const FAMILY_HABITS = Object.fromEntries(
  FAMILIES.map((family) => [family, factsOf(family).habit]),
) as Readonly<Record<Family, FamilyHabit>>;

/** Beliefs of the latent index, all on ln force, with the reason for each. */
export const BELIEFS = {
  layeredOffset: {
    mean: -0.18,
    sd: 0.22,
    reason: 'the usual kiss force sits a little above where the face comes free',
  },
  singleOffset: {
    mean: -0.15,
    sd: 0.22,
    reason: 'the usual force sits a little above where the sheet parts',
  },
  sheet: { mean: 0, sd: 0.24, reason: 'makes of one family differ' },
  condition: { mean: 0, sd: 0.06, reason: 'print and laminate of one make differ from the usual effect' },
  lot: { mean: 0, sd: 0.05, reason: 'deliveries of one make differ' },
  colour: { mean: 0, sd: 0.06, reason: 'colours of one make differ beyond their darkness' },
  machine: { mean: 0, sd: 0.12, reason: 'machines differ from what their scale says' },
  blade: { mean: 0, sd: 0.1, reason: 'kinds of blade want more or less force for the same cut' },
  levels: { mean: 0, sd: 1.3, reason: 'levels that nobody weighed may be off many times over' },
  bend: { mean: 0, sd: 0.2, reason: 'levels that nobody weighed need not rise as evenly as they count' },
  faceCaliper: { mean: 0.75, sd: 0.2, reason: 'a thicker face takes more, a little less than in proportion' },
  ink: { mean: 0.25, sd: 0.12, reason: 'a printed face takes more' },
  laminate: { mean: 0.06, sd: 0.06, reason: 'per 25 µm of laminate' },
  darkness: { mean: 0.18, sd: 0.1, reason: 'strong pigment takes more' },
  gapFamily: { mean: 0, sd: 0.2, reason: 'room between free and parted differs between families' },
  gapSheet: { mean: 0, sd: 0.22, reason: 'liners of one family differ' },
  gapLiner: { mean: 0.5, sd: 0.2, reason: 'a thicker liner leaves more room' },
  gapFace: { mean: -0.4, sd: 0.2, reason: 'a thicker face leaves less room in proportion' },
  reachPartial: { mean: Math.log(0.8), sd: 0.3, reason: 'how far below free a cut first marks the face' },
  reachHanging: { mean: Math.log(0.12), sd: 0.3, reason: 'how far below free only corners hang' },
  scored: { mean: -1.4, sd: 0.4, reason: 'share of the gap where the liner is still unmarked' },
  gouged: { mean: -0.5, sd: 0.4, reason: 'share of the rest where the mark is light' },
  breached: { mean: 0.85, sd: 0.4, reason: 'share of the rest where the liner holds' },
  matLayered: { mean: Math.log(0.35), sd: 0.3, reason: 'room between parted and a cut mat' },
  matSingle: { mean: Math.log(0.38), sd: 0.3, reason: 'room between parted and a cut mat' },
  reachSheet: { mean: 0, sd: 0.26, reason: 'sheets differ in how far below free a cut shows' },
  sharesSheet: { mean: 0, sd: 0.35, reason: 'sheets differ in how their liner shows a cut' },
  spread: {
    mean: Math.log(0.055),
    sd: 0.3,
    reason: 'sheet-to-sheet noise; held near this, or few cuts would shrink it to nothing',
  },
  passes: { mean: 0.35, sd: 0.15, reason: 'per ln of passes' },
  wear: { mean: 0.2, sd: 0.1, reason: 'per ln(1 + metres / 500)' },
  speed: { mean: 0.05, sd: 0.04, reason: 'per ln of speed over 100 mm/s' },
} as const satisfies Record<string, Belief>;

export type BeliefName = keyof typeof BELIEFS;

/** Everything believed before the first cut. A workshop may put its own figures in place of any of these. */
export interface Priors {
  readonly habits: Readonly<Record<Family, FamilyHabit>>;
  readonly beliefs: Readonly<Record<BeliefName, Belief>>;
  /** What other workshops told of single effects, by the effect's name, in the place of the beliefs. */
  readonly told?: Readonly<Record<string, Pick<Belief, 'mean' | 'sd'>>> | undefined;
}

export const COMMON_PRIORS: Priors = { habits: FAMILY_HABITS, beliefs: BELIEFS };

/** A belief that the threshold may lie far from where everything says: with this chance its spread is `sd` wider. */
export interface Tail {
  readonly share: number;
  readonly sd: number;
}

/** Workshops differ: 25 and 85 gf are both everyday kisses of film. Common practice, no source. */
export const ODD_SHEET: Tail = { share: 0.08, sd: 0.7 };

/** A belief that the mat lies far nearer to where the sheet parts: ln of the room is then so much lower, and wider. */
export interface NearMat extends Tail {
  readonly lower: number;
}

/** Hard mats, brittle card and blunt tips leave a through cut a few hundredths of force. Common practice, no source. */
export const NEAR_MAT: NearMat = { share: 0.1, lower: 1.6, sd: 0.6 };

/** Nothing was cut yet on a machine whose levels nobody weighed: the guess is about right, or far off. */
export const GUESSED_LEVELS: Tail = { share: 0.5, sd: 1.5 };
