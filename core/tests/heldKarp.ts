import type { PointMm } from '#core/geometry/point.ts';

/** Steps of the ascent; the bound is flat by then. */
const STEPS = 120;

/**
 * A bound below which no closed way through all points is: the longest 1-tree that prices at the points can make.
 *
 * Source: Held and Karp 1970; steps after Volgenant and Jonker 1982. A cheaper tree is never taken for a dearer one, so
 * that stopping early only lowers the bound.
 */
export function heldKarpBound(points: readonly PointMm[], upperMm: number): number {
  const count = points.length;
  const xs = Float64Array.from(points, ({ x }) => x);
  const ys = Float64Array.from(points, ({ y }) => y);
  const price = new Float64Array(count);
  const before = new Float64Array(count);
  let best = 0;
  let step = 0;
  for (let round = 0; round < STEPS; round++) {
    const { lengthMm, degrees } = oneTree(xs, ys, price);
    best = Math.max(best, lengthMm);
    if (round === 0) step = (upperMm - lengthMm) / count;
    else step *= 0.96;
    for (let at = 0; at < count; at++) {
      const off = (degrees[at] as number) - 2;
      // Some of the last step is kept: the ascent zigzags less.
      price[at] = (price[at] as number) + step * (0.7 * off + 0.3 * (before[at] as number));
      before[at] = off;
    }
  }
  return best;
}

/** The shortest tree over all points but the first, and the first joined to it by its two cheapest edges. */
function oneTree(xs: Float64Array, ys: Float64Array, price: Float64Array) {
  const count = xs.length;
  const degrees = new Int32Array(count);
  const isIn = new Uint8Array(count);
  const nearest = new Float64Array(count).fill(Infinity);
  const parent = new Int32Array(count);
  const cost = (a: number, b: number) =>
    distance((xs[a] as number) - (xs[b] as number), (ys[a] as number) - (ys[b] as number)) +
    (price[a] as number) +
    (price[b] as number);
  let lengthMm = 0;
  let at = 1;
  isIn[1] = 1;
  for (let taken = 2; taken < count; taken++) {
    let next = -1;
    let least = Infinity;
    for (let other = 1; other < count; other++) {
      if (isIn[other]) continue;
      const own = cost(at, other);
      if (own < (nearest[other] as number)) {
        nearest[other] = own;
        parent[other] = at;
      }
      if ((nearest[other] as number) < least) {
        least = nearest[other] as number;
        next = other;
      }
    }
    lengthMm += least;
    degrees[next] = (degrees[next] as number) + 1;
    const from = parent[next] as number;
    degrees[from] = (degrees[from] as number) + 1;
    isIn[next] = 1;
    at = next;
  }
  const joins = Array.from({ length: count - 1 }, (_, index) => index + 1).sort(
    (a, b) => cost(0, a) - cost(0, b),
  );
  for (const other of joins.slice(0, 2)) {
    lengthMm += cost(0, other);
    degrees[0] = (degrees[0] as number) + 1;
    degrees[other] = (degrees[other] as number) + 1;
  }
  return { lengthMm: lengthMm - 2 * price.reduce((sum, one) => sum + one, 0), degrees };
}

/** In a twentieth of the time that `Math.hypot` takes: it is asked a billion times. */
function distance(dx: number, dy: number): number {
  return Math.sqrt(dx * dx + dy * dy);
}
