import { P } from '#core/threshold/sheetModel/sheetParameters.ts';

/**
 * Boundaries between grades, relative to the threshold, ascending by construction, with their gradient.
 * Layered: 0|1 to 7|8, eight of them. Single layer: 0|1, 1|2, 2|7, 7|8.
 */
export interface RelativeBoundaries {
  readonly positions: Float64Array;
  /** boundary x parameter, row-major. */
  readonly gradient: Float64Array;
}

/**
 * @param parameters in the order of LAYERED_PARAMETERS (length 12) or SINGLE_PARAMETERS (length 8)
 * @example sheetBoundaries(question.belief.mean).positions.length // 8
 */
export function sheetBoundaries(parameters: Float64Array): RelativeBoundaries {
  return parameters.length === 8 ? singleBoundaries(parameters) : layeredBoundaries(parameters);
}

/**
 * The positions alone, for thousands of draws: no gradient is worked out.
 *
 * @param parameters as for {@link sheetBoundaries}
 * @example boundaryPositions(question.belief.mean).length // 8
 */
export function boundaryPositions(parameters: Float64Array): Float64Array {
  const hanging = Math.exp(parameters[P.reachHanging] as number);
  const partial = Math.exp(parameters[P.reachPartial] as number) + hanging;
  const mat = Math.exp(parameters[P.mat] as number);
  if (parameters.length === 8) return Float64Array.of(-partial, -hanging, 0, mat);
  const gap = Math.exp(parameters[P.gap] as number);
  const afterScored = 1 - logistic(parameters[P.scored] as number);
  const afterGouged = afterScored * (1 - logistic(parameters[P.gouged] as number));
  const afterBreached = afterGouged * (1 - logistic(parameters[P.breached] as number));
  return Float64Array.of(
    -partial,
    -hanging,
    0,
    (1 - afterScored) * gap,
    (1 - afterGouged) * gap,
    (1 - afterBreached) * gap,
    gap,
    gap + mat,
  );
}

function singleBoundaries(parameters: Float64Array): RelativeBoundaries {
  const gradient = new Float64Array(4 * 8);
  const [partial, hanging] = reach(parameters, gradient, 8);
  const mat = Math.exp(parameters[P.mat] as number);
  gradient[3 * 8 + P.mat] = mat;
  return { positions: Float64Array.of(partial, hanging, 0, mat), gradient };
}

/**
 * The liner's boundaries split the gap by stick-breaking: each takes a share of what the one before left, so
 * that no parameter value can put them out of order.
 */
function layeredBoundaries(parameters: Float64Array): RelativeBoundaries {
  const size = 12;
  const gradient = new Float64Array(8 * size);
  const [partial, hanging] = reach(parameters, gradient, size);
  const gap = Math.exp(parameters[P.gap] as number);
  const mat = Math.exp(parameters[P.mat] as number);
  const positions = Float64Array.of(partial, hanging, 0, 0, 0, 0, gap, gap + mat);
  const shares = [P.scored, P.gouged, P.breached].map((name) => logistic(parameters[name] as number));
  let left = 1;
  shares.forEach((share, index) => {
    left *= 1 - share;
    const edge = 3 + index;
    positions[edge] = (1 - left) * gap;
    gradient[edge * size + P.gap] = (1 - left) * gap;
    for (let earlier = 0; earlier <= index; earlier++) {
      gradient[edge * size + P.scored + earlier] = left * (shares[earlier] as number) * gap;
    }
  });
  gradient[6 * size + P.gap] = gap;
  gradient[7 * size + P.gap] = gap;
  gradient[7 * size + P.mat] = mat;
  return { positions, gradient };
}

function reach(parameters: Float64Array, gradient: Float64Array, size: number): readonly [number, number] {
  const partial = Math.exp(parameters[P.reachPartial] as number);
  const hanging = Math.exp(parameters[P.reachHanging] as number);
  gradient[P.reachPartial] = -partial;
  gradient[P.reachHanging] = -hanging;
  gradient[size + P.reachHanging] = -hanging;
  return [-(partial + hanging), -hanging];
}

function logistic(x: number): number {
  return 1 / (1 + Math.exp(-x));
}
