/** Whole numbers as ranges that do not touch, ascending: from up to but not including to. */
export type IndexRanges = readonly (readonly [from: number, to: number])[];

/**
 * Whether an index is in one of the ranges.
 *
 * @example hasIndex([[0, 2], [5, 9]], 4) // false
 */
export function hasIndex(ranges: IndexRanges, index: number): boolean {
  return ranges.some(([from, to]) => index >= from && index < to);
}

/**
 * The ranges with one index more.
 *
 * @example addIndex([[0, 2], [3, 5]], 2) // [[0, 5]]
 */
export function addIndex(ranges: IndexRanges, index: number): IndexRanges {
  if (hasIndex(ranges, index)) return ranges;
  const before = ranges.filter(([, to]) => to < index);
  const after = ranges.filter(([from]) => from > index + 1);
  const touching = ranges.filter(([from, to]) => to >= index && from <= index + 1);
  const from = Math.min(index, ...touching.map(([start]) => start));
  const to = Math.max(index + 1, ...touching.map(([, end]) => end));
  return [...before, [from, to], ...after];
}

/**
 * The ranges of a list of indexes, in any order.
 *
 * @example rangesOf([3, 1, 2, 7]) // [[1, 4], [7, 8]]
 */
export function rangesOf(indexes: Iterable<number>): IndexRanges {
  const ranges: [number, number][] = [];
  for (const index of [...indexes].sort((a, b) => a - b)) {
    const last = ranges.at(-1);
    if (last && index <= last[1]) last[1] = Math.max(last[1], index + 1);
    else ranges.push([index, index + 1]);
  }
  return ranges;
}

/**
 * The first index of a stretch that is in no range, or `null` when all are.
 *
 * @example firstMissing([[0, 3]], 1, 5) // 3
 */
export function firstMissing(ranges: IndexRanges, from: number, to: number): number | null {
  let at = from;
  for (const [start, end] of ranges) if (start <= at && at < end) at = end;
  return at < to ? at : null;
}
