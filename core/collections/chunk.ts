/**
 * Items in groups of at most so many, in their order.
 *
 * @example chunk([1, 2, 3], 2) // [[1, 2], [3]]
 * @throws RangeError for a size below 1
 */
export function chunk<One>(items: readonly One[], size: number): One[][] {
  if (!(size >= 1)) throw new RangeError(`a group of ${size} holds nothing`);
  const groups: One[][] = [];
  for (let from = 0; from < items.length; from += size) groups.push(items.slice(from, from + size));
  return groups;
}
