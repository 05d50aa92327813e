/**
 * Where a condition begins to hold that holds for all that is more.
 *
 * @param low where it does not hold
 * @param high where it does
 * @param step how near the two are brought to each other
 * @returns the last place where it was seen not to hold, and the first where it was
 * @example bisect(0, 8, 1, (at) => at >= 5) // [4, 5]
 */
export function bisect(
  low: number,
  high: number,
  step: number,
  holds: (at: number) => boolean,
): readonly [number, number] {
  let [from, to] = [low, high];
  while (to - from > step) {
    const middle = (from + to) / 2;
    if (holds(middle)) to = middle;
    else from = middle;
  }
  return [from, to];
}
