import type { SimpleQuantity } from '#core/dialIn/simpleOrdinal.ts';

/** How a crease folded. */
export const CREASE_QUANTITY: SimpleQuantity = {
  name: 'crease',
  steps: ['no line', 'faint', 'right', 'deep', 'cracked'],
  boundaries: [-0.6, -0.2, 0.2, 0.6],
  prior: { mean: Math.log(300), sd: 0.4, reason: 'a crease takes about 300 gf at 5 cm/s in one pass' },
  noise: 0.1,
};

/** Each of n equal crease passes presses like this power of n times the force. Common practice, no source (T16). */
const PASS_POWER = 0.35;

/**
 * The latent press of a crease: ln of the force in gf, with passes.
 *
 * @example pressIndex(100, 2) > pressIndex(100, 1) // true
 */
export function pressIndex(forceGf: number, passes: number): number {
  return Math.log(forceGf) + PASS_POWER * Math.log(passes);
}
