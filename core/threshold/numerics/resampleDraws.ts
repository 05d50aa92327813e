import type { Random } from '#core/random/seededRandom.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';

/**
 * So many equally weighted draws of a posterior, by systematic resampling: the least noise for their number.
 *
 * @returns a posterior whose effective number of draws is still that of the one given
 * Source: Kitagawa 1996, Monte Carlo filter and smoother for non-Gaussian state space models, J. Comput. Graph.
 * Statist. 5.
 * @example resampleDraws(posterior, 10, () => 0.5).drawCount // 10
 */
export function resampleDraws(
  posterior: ThresholdPosterior,
  count: number,
  random: Random,
): ThresholdPosterior {
  const edges = posterior.grades.length - 1;
  const boundaries = new Float64Array(count * edges);
  const spreads = new Float64Array(count);
  const start = random() / count;
  let running = 0;
  let draw = -1;
  for (let slot = 0; slot < count; slot++) {
    const position = start + slot / count;
    while (running <= position && draw < posterior.drawCount - 1) {
      draw += 1;
      running += posterior.weights[draw] as number;
    }
    boundaries.set(posterior.boundaries.subarray(draw * edges, (draw + 1) * edges), slot * edges);
    spreads[slot] = posterior.spreads[draw] as number;
  }
  const weights = new Float64Array(count).fill(1 / count);
  return { ...posterior, drawCount: count, boundaries, spreads, weights };
}
