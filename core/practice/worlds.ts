import { drawNormal, type Random } from '#core/random/seededRandom.ts';

/**
 * A world of its own, for sheets that nobody can look into: the referee judges by it, and learners practise on it. It knows nothing of the model: layers resist by their thickness and their stuff, the tip
 * goes as deep as the force pays for, and grades are read off the depth. Figures are invented and deliberately not
 * those of the model's priors.
 */
export interface World {
  /** Share of grades read wrongly. */
  readonly misjudged: number;
  /** Degrees of freedom of the noise on force; `Infinity` is normal. */
  readonly noiseDf: number;
  /** Relative error of the calipers that the operator typed in. */
  readonly layerError: number;
  /** Share of grades that are any grade at all. */
  readonly lost: number;
  /** How far the usual forces of a workshop's families lie from the common ones, in ln. */
  readonly familySd: number;
  /** Levels that nobody weighed may be off by this factor either way; 1 where their slope is known. */
  readonly levelsOff: number;
  /** How far from even such levels rise: the spread of their exponent around 1. */
  readonly bendSd: number;
  /** Blades of one kind differ by this much, in ln force. */
  readonly sharpnessSd: number;
  /** Kinds of blade differ by this much in the force that they want; 0 where all cut with one kind. */
  readonly kindSd: number;
  /** From where the sheet parts to where the mat is scarred, as a ratio of forces: drawn evenly between these. */
  readonly matRoom: readonly [least: number, most: number];
  /** Whether every sheet is a single layer. */
  readonly isSingleOnly: boolean;
}

export const PLAIN_WORLD: World = {
  misjudged: 0.05,
  noiseDf: Infinity,
  layerError: 0.03,
  lost: 0,
  familySd: 0,
  levelsOff: 1,
  bendSd: 0,
  sharpnessSd: 0,
  kindSd: 0,
  matRoom: [1.16, 1.6],
  isSingleOnly: false,
};
export const HARD_WORLD: World = { ...PLAIN_WORLD, misjudged: 0.1, noiseDf: 4, layerError: 0.15 };
/** Workshops, machines and blades that differ as they do, and not as the priors say. */
export const WIDE_WORLD: World = {
  ...PLAIN_WORLD,
  familySd: 0.55,
  levelsOff: 20,
  bendSd: 0.2,
  sharpnessSd: 0.1,
  kindSd: 0.15,
};
/** Single layers whose window for a through cut is 3 to 8 % of force wide. */
export const NARROW_WORLD: World = { ...PLAIN_WORLD, matRoom: [1.03, 1.08], isSingleOnly: true };
/** One grade in five says nothing. */
export const WILD_WORLD: World = { ...PLAIN_WORLD, misjudged: 0, lost: 0.2 };

/** A figure drawn evenly between two. */
export const between = (random: Random, low: number, high: number) => low + (high - low) * random();
/** A factor around 1, with this spread of its ln. */
export const around = (random: Random, sd: number) => Math.exp(sd * drawNormal(random));
