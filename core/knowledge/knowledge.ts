import type { Readers } from '#core/threshold/trial.ts';

/**
 * What the whole book has taught about the effects that sheets share: plain data, kept by version so that an answer
 * can be explained later. Arrays are in the order of `names`.
 */
export interface Knowledge {
  /** The model that fitted it. */
  readonly model: string;
  readonly names: readonly string[];
  readonly mean: readonly number[];
  /** Information (inverse covariance), row-major, side = names; every material's own effects are eliminated. */
  readonly information: readonly number[];
  /** Own effects of each material by its id: where the next fit starts. */
  readonly own: Readonly<Record<string, Readonly<Record<string, number>>>>;
  readonly trialCount: number;
  readonly sheetCount: number;
  readonly iterations: number;
  readonly logPosterior: number;
  /** ln of the marginal likelihood by Laplace’s approximation, up to a constant of the book: how well the priors foretold it. */
  readonly logMarginal: number;
  /** Spreads that this book taught in place of the believed ones, and how many trials it had then. */
  readonly spreads: LearntSpreads | null;
  /** How far the best shared effects lie from the joint peak in `mean`, learnt with the spreads. */
  readonly shift?: Shift | undefined;
  /** How carelessly people were taken to read in this fit, and how carelessly they read by it: the next one takes that. */
  readonly readers?: Readers | undefined;
  readonly nextReaders?: Readers | undefined;
}

/** By effect: what is added to the joint peak, see integrateOwn. */
export type Shift = Readonly<Record<string, number>>;

/** How much sheets of one workshop truly differ, as standard deviations in place of those in the priors. */
export interface LearntSpreads {
  readonly sheet: number;
  readonly gapSheet: number;
  readonly reachSheet: number;
  readonly sharesSheet: number;
  /** Of a cut, in ln force: the middle of what sheets have. */
  readonly noise?: number | undefined;
  readonly trialCount: number;
}
