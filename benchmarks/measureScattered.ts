import { time } from '#benchmarks/measureReading.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { orderTravel, type TravelStop } from '#core/passes/orderTravel.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { heldKarpBound } from '#core/tests/heldKarp.ts';

/** A round trip through scattered points, beside its bound and its rival. */
export interface ScatteredScore {
  readonly count: number;
  readonly boundMm: number;
  readonly nearestMm: number;
  readonly oursMm: number;
  readonly oursMs: number;
}

/** Points at random, a round trip, beside the bound that no trip goes below. A kick for each, as plans spend them. */
export function measureScattered(count: number): ScatteredScore {
  const random = seededRandom(count);
  const points = Array.from({ length: count }, () => ({ x: random() * 600, y: random() * 900 }));
  const [first, ...rest] = points;
  const start = first as PointMm;
  const stops = rest.map((point): TravelStop => ({ isClosed: true, points: [point] }));
  let order: readonly number[] = [];
  const oursMs = time(() => {
    order = orderTravel(stops, start, { end: start, before: [], kicks: count }).map(({ stop }) => stop);
  });
  const trip = [start, ...order.map((stop) => rest[stop] as PointMm), start];
  const oursMm = measurePolyline(trip);
  return {
    count,
    boundMm: heldKarpBound(points, oursMm),
    nearestMm: nearestNeighbour(stops, start),
    oursMm,
    oursMs,
  };
}

/** The plain way: always to the nearest point of what is left. @returns its length, mm */
export function nearestNeighbour(stops: readonly TravelStop[], home: PointMm): number {
  const left = new Set(stops.keys());
  let at = home;
  let sum = 0;
  while (left.size > 0) {
    let best = { stop: -1, point: at, distance: Infinity };
    for (const stop of left) {
      for (const point of (stops[stop] as TravelStop).points) {
        const distance = distanceMm(at, point);
        if (distance < best.distance) best = { stop, point, distance };
      }
    }
    left.delete(best.stop);
    sum += best.distance;
    at = best.point;
  }
  return sum;
}
