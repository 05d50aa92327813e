import Flatbush from 'flatbush';
import type { PointMm } from '#core/geometry/point.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { TravelSearch } from '#core/passes/travelSearch.ts';

/** Something to visit: a closed line may be entered at any of its points, an open one at either end. */
export interface TravelStop {
  readonly isClosed: boolean;
  /** Closed: places to enter and leave, at least one. Open: first and last point. */
  readonly points: readonly PointMm[];
}

/** How a stop is taken. */
export interface TravelStep {
  readonly stop: number;
  /** Closed: which of its points. Open: 0 as drawn, 1 backwards. */
  readonly entry: number;
}

export interface TravelOptions {
  /** Where the head goes at last, or `null` when that does not count. */
  readonly end: PointMm | null;
  /** For each stop, those that must come before it; without cycles. Empty for none. */
  readonly before: readonly (readonly number[])[];
  /** Kicks: 0 for plain descent. More take longer and shorten the way by a few hundredths. */
  readonly kicks: number;
}

/** Above so many stops the first way follows strips instead of the nearest neighbour. */
const MOST_BY_NEAREST = 20_000;
/** Entries of a closed line that are compared. */
const MOST_ENTRIES = 24;
const ROUNDS = 2;

/**
 * A short way through all stops: the nearest neighbour first, then 2-opt and Or-opt with the entries of closed lines
 * and the directions of open ones chosen anew between rounds, then kicks. Repeatable: chance is seeded.
 *
 * @param start where the head stands before
 * @returns every stop once
 * @example orderTravel([{ isClosed: false, points: [{ x: 9, y: 0 }, { x: 8, y: 0 }] }, { isClosed: false, points: [{ x: 1, y: 0 }, { x: 2, y: 0 }] }], { x: 0, y: 0 }, { end: null, before: [], kicks: 0 }).map(({ stop }) => stop) // [1, 0]
 */
export function orderTravel(
  stops: readonly TravelStop[],
  start: PointMm,
  { end, before, kicks }: TravelOptions,
): readonly TravelStep[] {
  if (stops.length === 0) return [];
  const bound = before.length === stops.length ? before : stops.map(() => []);
  const thin = stops.map((stop) => (stop.isClosed ? thinEntries(stop.points) : [0, stop.points.length - 1]));
  let order = putBoundFirst(firstWay(stops, start), bound);
  let entries = stops.map((_, stop) => thin[stop]?.[0] ?? 0);
  let isTurned = stops.map(() => false);
  for (let round = 0; round < ROUNDS; round++) {
    entries = chooseEntries(stops, thin, order, entries, isTurned, start, end);
    const search = new TravelSearch(endsOf(stops, entries, isTurned, bound), start, end, order);
    const turnedBefore = isTurned;
    search.improve();
    if (round === ROUNDS - 1 && kicks > 0) search.kick(kicks, seededRandom(stops.length));
    order = [...search.order];
    isTurned = stops.map((stop, at) => (stop.isClosed ? false : hasTurned(search, stop, at, turnedBefore)));
  }
  entries = chooseEntries(stops, thin, order, entries, isTurned, start, end);
  return order.map((stop) => ({
    stop,
    entry: stops[stop]?.isClosed ? (entries[stop] as number) : isTurned[stop] ? 1 : 0,
  }));
}

/** Whether an open line is run backwards: the search keeps where it comes down. */
function hasTurned(search: TravelSearch, stop: TravelStop, at: number, before: readonly boolean[]): boolean {
  const first = stop.points[0] as PointMm;
  const last = stop.points.at(-1) as PointMm;
  const [x, y] = search.enterOf(at);
  if (first.x === last.x && first.y === last.y) return before[at] as boolean;
  return x === last.x && y === last.y;
}

function endsOf(
  stops: readonly TravelStop[],
  entries: readonly number[],
  isTurned: readonly boolean[],
  before: readonly (readonly number[])[],
) {
  const make = (of: (stop: TravelStop, at: number) => number) => Float64Array.from(stops, of);
  const enter = (stop: TravelStop, at: number) =>
    (stop.isClosed
      ? stop.points[entries[at] as number]
      : isTurned[at]
        ? stop.points.at(-1)
        : stop.points[0]) as PointMm;
  const leave = (stop: TravelStop, at: number) =>
    (stop.isClosed
      ? stop.points[entries[at] as number]
      : isTurned[at]
        ? stop.points[0]
        : stop.points.at(-1)) as PointMm;
  return {
    enterX: make((stop, at) => enter(stop, at).x),
    enterY: make((stop, at) => enter(stop, at).y),
    leaveX: make((stop, at) => leave(stop, at).x),
    leaveY: make((stop, at) => leave(stop, at).y),
    before,
  };
}

function thinEntries(points: readonly PointMm[]): readonly number[] {
  const count = Math.min(MOST_ENTRIES, points.length);
  return Array.from({ length: count }, (_, index) => Math.floor((index * points.length) / count));
}

function firstWay(stops: readonly TravelStop[], start: PointMm): readonly number[] {
  const places = stops.map(({ points }) => points[0] as PointMm);
  return stops.length > MOST_BY_NEAREST ? byStrips(places) : byNearest(places, start);
}

function byNearest(places: readonly PointMm[], start: PointMm): readonly number[] {
  const tree = new Flatbush(places.length);
  for (const { x, y } of places) tree.add(x, y);
  tree.finish();
  const isLeft = new Uint8Array(places.length).fill(1);
  const order: number[] = [];
  let at = start;
  while (order.length < places.length) {
    const [next] = tree.neighbors(at.x, at.y, 1, Infinity, (index) => isLeft[index] === 1);
    if (next === undefined) break;
    isLeft[next] = 0;
    order.push(next);
    at = places[next] as PointMm;
  }
  return order;
}

/** Up one strip and down the next. */
function byStrips(places: readonly PointMm[]): readonly number[] {
  const xs = places.map(({ x }) => x);
  const low = xs.reduce((a, b) => Math.min(a, b), Infinity);
  const high = xs.reduce((a, b) => Math.max(a, b), -Infinity);
  const strips = Math.max(1, Math.ceil(Math.sqrt(places.length / 2)));
  const stripOf = (x: number) => Math.min(strips - 1, Math.floor(((x - low) / (high - low || 1)) * strips));
  return [...places.keys()].sort((a, b) => {
    const [from, to] = [places[a] as PointMm, places[b] as PointMm];
    const [stripA, stripB] = [stripOf(from.x), stripOf(to.x)];
    if (stripA !== stripB) return stripA - stripB;
    return stripA % 2 === 0 ? from.y - to.y : to.y - from.y;
  });
}

/** The same order, with what must come first brought before what waits for it. */
function putBoundFirst(order: readonly number[], before: readonly (readonly number[])[]): number[] {
  const done = new Uint8Array(order.length);
  const put: number[] = [];
  const visit = (stop: number) => {
    if (done[stop]) return;
    done[stop] = 1;
    for (const first of before[stop] as readonly number[]) visit(first);
    put.push(stop);
  };
  order.forEach(visit);
  return put;
}

/** For the order as it is, the entry of every closed line that makes the whole way shortest: exact, by stages. */
function chooseEntries(
  stops: readonly TravelStop[],
  thin: readonly (readonly number[])[],
  order: readonly number[],
  entries: readonly number[],
  isTurned: readonly boolean[],
  start: PointMm,
  end: PointMm | null,
): number[] {
  const chosen = [...entries];
  let costs: number[] = [0];
  let leaves: readonly PointMm[] = [start];
  const back: number[][] = [];
  for (const stop of order) {
    const { isClosed, points } = stops[stop] as TravelStop;
    const options = thin[stop] as readonly number[];
    const enters = isClosed
      ? options.map((at) => points[at] as PointMm)
      : [(isTurned[stop] ? points.at(-1) : points[0]) as PointMm];
    const from = enters.map((enter) => cheapest(costs, leaves, enter));
    back.push(from.map(({ at }) => at));
    costs = from.map(({ cost }) => cost);
    leaves = isClosed ? enters : [(isTurned[stop] ? points[0] : points.at(-1)) as PointMm];
  }
  let at = end ? cheapest(costs, leaves, end).at : costs.indexOf(Math.min(...costs));
  for (let index = order.length - 1; index >= 0; index--) {
    const stop = order[index] as number;
    if (stops[stop]?.isClosed) chosen[stop] = thin[stop]?.[at] ?? 0;
    at = back[index]?.[at] ?? 0;
  }
  return chosen;
}

function cheapest(costs: readonly number[], leaves: readonly PointMm[], to: PointMm) {
  let best = { at: 0, cost: Infinity };
  for (let at = 0; at < costs.length; at++) {
    const leave = leaves[at] as PointMm;
    const cost = (costs[at] as number) + Math.hypot(leave.x - to.x, leave.y - to.y);
    if (cost < best.cost) best = { at, cost };
  }
  return best;
}
