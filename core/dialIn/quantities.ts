import type { SimpleQuantity } from '#core/dialIn/simpleOrdinal.ts';

/** How a piece held: its tabs against the uncut stretches between them. */
export const TAB_QUANTITY: SimpleQuantity = {
  name: 'tabs',
  steps: ['fell out', 'loose', 'right', 'hard to pop', 'tore'],
  boundaries: [-1, -0.35, 0.35, 1],
  prior: {
    mean: 0,
    sd: 0.55,
    reason: 'tab and cut lengths that operators settle on lie within about a factor of two',
  },
  noise: 0.25,
};

/** How a crease folded. */
export const CREASE_QUANTITY: SimpleQuantity = {
  name: 'crease',
  steps: ['no line', 'faint', 'right', 'deep', 'cracked'],
  boundaries: [-0.6, -0.2, 0.2, 0.6],
  prior: { mean: Math.log(300), sd: 0.4, reason: 'a crease takes about 300 gf at 5 cm/s in one pass' },
  noise: 0.1,
};

/** Tab and cut length in the middle of what operators report. Common practice, no source (T6). */
const USUAL_TAB_MM = 0.9;
const USUAL_CUT_MM = 15;
/** A longer cut between tabs weakens the hold less than in proportion. Common practice, no source. */
const CUT_POWER = 0.6;
/** Each of n equal crease passes presses like this power of n times the force. Common practice, no source (T16). */
const PASS_POWER = 0.35;

/**
 * The latent hold of a perforation: 0 for the usual one, rising with the tab and falling with the cut length.
 *
 * @example holdIndex(0.9, 15) // 0
 */
export function holdIndex(tabLengthMm: number, cutLengthMm: number): number {
  return Math.log(tabLengthMm / USUAL_TAB_MM) - CUT_POWER * Math.log(cutLengthMm / USUAL_CUT_MM);
}

/**
 * The tab length that has a hold index at a cut length, mm.
 *
 * @example tabForHold(0, 15) // 0.9
 */
export function tabForHold(index: number, cutLengthMm: number): number {
  return USUAL_TAB_MM * Math.exp(index + CUT_POWER * Math.log(cutLengthMm / USUAL_CUT_MM));
}

/**
 * The latent press of a crease: ln of the force in gf, with passes.
 *
 * @example pressIndex(100, 2) > pressIndex(100, 1) // true
 */
export function pressIndex(forceGf: number, passes: number): number {
  return Math.log(forceGf) + PASS_POWER * Math.log(passes);
}
