import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { ThresholdQuestion, Trial } from '#core/threshold/trial.ts';

/**
 * What is believed about one sheet under the asked conditions: weighted draws of the boundaries between grades.
 * Every threshold model answers in this form, so prediction, window and next cut do not know which one fitted it.
 */
export interface ThresholdPosterior {
  /** Names the model and its version, so that an answer can be explained later. */
  readonly model: string;
  readonly trialCount: number;
  /** The grades this sheet can show, ascending; K of them. */
  readonly grades: readonly DepthGrade[];
  readonly drawCount: number;
  /** ln of the force in gf at which each boundary lies, draw x (K - 1), row-major, ascending in a row. */
  readonly boundaries: Float64Array;
  /** Spread of the latent noise per draw, in ln force. */
  readonly spreads: Float64Array;
  /** Weight of each draw; they sum to 1. */
  readonly weights: Float64Array;
  /** Kish's effective number of draws: 1 / sum of squared weights. */
  readonly effectiveDraws: number;
}

/** A model that learns the boundaries of a sheet from its test cuts. */
export interface ThresholdModel {
  readonly version: string;
  fit(question: ThresholdQuestion, trials: readonly Trial[]): ThresholdPosterior;
}
