/**
 * Items by key, keys and items in the order in which they came.
 *
 * @example [...groupBy([1, 2, 3], (one) => one % 2).keys()] // [1, 0]
 */
export function groupBy<One, Key>(
  items: Iterable<One>,
  keyOf: (item: One) => Key,
): ReadonlyMap<Key, readonly One[]> {
  const groups = new Map<Key, One[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}
