import { ROUNDING } from '#core/units/rounding.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { weightedQuantiles } from '#core/threshold/numerics/weightedQuantiles.ts';
import { gfOf, gfToForce, listForces, type ForceScale } from '#core/units/forceScale.ts';

/** The stretch of force that matters for an answer, in gf, inside what the machine can do. */
export interface ForceAxis {
  readonly fromGf: number;
  readonly toGf: number;
}

/** Neighbouring forces that differ by less than this cannot be told apart by a cut. */
const FINEST_RATIO = 1.008;

/**
 * The force axis to draw: from well below the first mark to beyond the last boundary asked for.
 *
 * @param topEdge which boundary of the posterior must still be on the axis
 * @param alsoGf forces that must be on it: test cuts, the kept setting
 * @example chooseAxis(posterior, 4, [], gramScale).fromGf < 72 // true
 */
export function chooseAxis(
  posterior: ThresholdPosterior,
  topEdge: number,
  alsoGf: readonly number[],
  scale: ForceScale,
): ForceAxis {
  const edges = posterior.grades.length - 1;
  const at = (edge: number) =>
    Float64Array.from(
      { length: posterior.drawCount },
      (_, draw) => posterior.boundaries[draw * edges + edge] as number,
    );
  const [low = 0] = weightedQuantiles(at(2), posterior.weights, [0.05]);
  const [high = 0] = weightedQuantiles(at(topEdge), posterior.weights, [0.9]);
  const least = Math.min(Math.exp(low) * 0.6, ...alsoGf.map((force) => force * 0.9));
  const most = Math.max(Math.exp(high) * 1.25, ...alsoGf.map((force) => force * 1.1));
  const whole = { fromGf: gfOf(scale.min, scale), toGf: gfOf(scale.max, scale) };
  const snapped = {
    fromGf: settable(Math.max(whole.fromGf, least), scale),
    toGf: settable(Math.min(whole.toGf, most), scale),
  };
  return snapped.toGf > snapped.fromGf ? snapped : whole;
}

/**
 * Settable forces on the axis in gf, ascending, without steps too fine for any cut to show.
 *
 * @example spreadForces({ fromGf: 40, toGf: 60 }, gramScale).length // 5
 */
export function spreadForces(axis: ForceAxis, scale: ForceScale): readonly number[] {
  const kept: number[] = [];
  for (const force of listForces(scale)) {
    const forceGf = gfOf(force, scale);
    if (forceGf < axis.fromGf - ROUNDING || forceGf > axis.toGf + ROUNDING) continue;
    if (kept.length === 0 || forceGf / (kept.at(-1) as number) >= FINEST_RATIO) kept.push(forceGf);
  }
  return kept;
}

/**
 * The settable forces that matter where so much is believed: those of {@link chooseAxis}, spread.
 *
 * @example forcesAround(posterior, 4, [], gramScale).length > 5 // true
 */
export function forcesAround(
  posterior: ThresholdPosterior,
  topEdge: number,
  alsoGf: readonly number[],
  scale: ForceScale,
): readonly number[] {
  return spreadForces(chooseAxis(posterior, topEdge, alsoGf, scale), scale);
}

function settable(forceGf: number, scale: ForceScale): number {
  return gfOf(gfToForce(forceGf, scale), scale);
}
