import { ROUNDING } from '#core/units/rounding.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { ThresholdPosterior } from '#core/threshold/posterior.ts';
import { weightedQuantiles } from '#core/threshold/numerics/weightedQuantiles.ts';

/** Where the tip probably ends, in µm below the top surface: median with 5 and 95 % points. */
export interface TipDepth {
  readonly lowUm: number;
  readonly middleUm: number;
  readonly highUm: number;
}

/** How far a scarring cut goes into the mat, in µm, where its boundary is passed by one step of the model. */
const MAT_REACH_UM = 80;

/**
 * The likely depth of the tip at a force. Boundaries tie force to depth at the places that grades name (top of the
 * face, top of the liner, bottom of the stack); between them depth is taken as linear in ln force.
 *
 * @param exposureMm the tip cannot go deeper than it stands out of its holder
 * @example estimateTipDepth(posterior, film, 72, 0.35).middleUm > 80 // true
 */
export function estimateTipDepth(
  posterior: ThresholdPosterior,
  stack: Stack,
  forceGf: number,
  exposureMm: number,
): TipDepth {
  const { toLinerUm, totalUm, isLayered } = measureStack(stack);
  const lnForce = Math.log(forceGf);
  const anchors = isLayered
    ? [0, toLinerUm, totalUm, totalUm + MAT_REACH_UM]
    : [0, totalUm, totalUm + MAT_REACH_UM];
  const anchorEdges = isLayered ? [0, 2, 6, 7] : [0, 2, 3];
  const edges = posterior.grades.length - 1;
  const depths = Float64Array.from({ length: posterior.drawCount }, (_, draw) => {
    const at = anchorEdges.map((edge) => posterior.boundaries[draw * edges + edge] as number);
    return Math.min(exposureMm * 1000, interpolate(lnForce, at, anchors));
  });
  const [lowUm, middleUm, highUm] = weightedQuantiles(depths, posterior.weights, [0.05, 0.5, 0.95]) as [
    number,
    number,
    number,
  ];
  return { lowUm, middleUm, highUm };
}

/** Piecewise linear, 0 before the first anchor, held at the last one. */
function interpolate(x: number, at: readonly number[], values: readonly number[]): number {
  if (x <= (at[0] as number)) return 0;
  for (let index = 1; index < at.length; index++) {
    const from = at[index - 1] as number;
    const to = at[index] as number;
    if (x > to) continue;
    const share = (x - from) / Math.max(to - from, ROUNDING);
    return (
      (values[index - 1] as number) + share * ((values[index] as number) - (values[index - 1] as number))
    );
  }
  return values.at(-1) as number;
}
