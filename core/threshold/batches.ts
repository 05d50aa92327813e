/** Share of the noise's variance that all cuts of one load have in common: the sheet, the spot, how it lies. */
const SHARED_VARIANCE = 0.5;

/** What remains of the spread for each cell once its load's shift is known, and the spread of that shift. */
export const OWN_SPREAD = Math.sqrt(1 - SHARED_VARIANCE);
export const BATCH_SPREAD = Math.sqrt(SHARED_VARIANCE);

/**
 * Gauss-Hermite rule for a standard normal, five nodes: exact for polynomials to degree 9.
 * Source: Abramowitz and Stegun 1964, table 25.10, rescaled by the square root of 2.
 */
export const BATCH_NODES: readonly (readonly [number, number])[] = [
  [0, 0.5333333333333333],
  [-1.3556261799742659, 0.2220759220056126],
  [1.3556261799742659, 0.2220759220056126],
  [-2.8569700138728056, 0.0112574113277207],
  [2.8569700138728056, 0.0112574113277207],
];

/** Where the shared noise is not worked out (fits of a whole book, the peak of a sheet), a cell counts this far. */
export const CELL_WEIGHT = 0.65;

/**
 * Cuts grouped by their load, cuts without one each by itself.
 *
 * @example groupBatches([{ load: 1 }, { load: 1 }, {}]).length // 2
 */
export function groupBatches<One extends { readonly load?: number | undefined }>(
  cuts: readonly One[],
): readonly (readonly One[])[] {
  const loads = new Map<number, One[]>();
  const groups: One[][] = [];
  for (const cut of cuts) {
    const known = cut.load === undefined ? undefined : loads.get(cut.load);
    if (known) {
      known.push(cut);
      continue;
    }
    const group = [cut];
    groups.push(group);
    if (cut.load !== undefined) loads.set(cut.load, group);
  }
  return groups;
}
