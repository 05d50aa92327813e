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
  const positions = boundaryPositions(parameters);
  const gradient = new Float64Array(4 * 8);
  addReach(positions, gradient, 8);
  gradient[3 * 8 + P.mat] = positions[3] as number;
  return { positions, gradient };
}

/**
 * The liner's boundaries split the gap by stick-breaking: each takes a share of what the one before left, so
 * that no parameter value can put them out of order.
 */
function layeredBoundaries(parameters: Float64Array): RelativeBoundaries {
  const size = 12;
  const positions = boundaryPositions(parameters);
  const gradient = new Float64Array(8 * size);
  addReach(positions, gradient, size);
  const gap = positions[6] as number;
  const shares = [P.scored, P.gouged, P.breached].map((name) => logistic(parameters[name] as number));
  shares.forEach((_, index) => {
    const edge = 3 + index;
    const at = positions[edge] as number;
    gradient[edge * size + P.gap] = at;
    for (let earlier = 0; earlier <= index; earlier++) {
      gradient[edge * size + P.scored + earlier] = (gap - at) * (shares[earlier] as number);
    }
  });
  gradient[6 * size + P.gap] = gap;
  gradient[7 * size + P.gap] = gap;
  gradient[7 * size + P.mat] = Math.exp(parameters[P.mat] as number);
  return { positions, gradient };
}

/** How the two boundaries below free move with their reach. */
function addReach(positions: Float64Array, gradient: Float64Array, size: number): void {
  const hanging = positions[1] as number;
  gradient[P.reachPartial] = (positions[0] as number) - hanging;
  gradient[P.reachHanging] = hanging;
  gradient[size + P.reachHanging] = hanging;
}

function logistic(x: number): number {
  return 1 / (1 + Math.exp(-x));
}
