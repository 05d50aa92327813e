import Flatbush from 'flatbush';
import type { PointMm } from '#core/geometry/point.ts';
import type { Rings } from '#core/geometry/clip.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';

/** How an outline differs from the true one. */
export interface OutlineError {
  /** 95 in 100 points of either lie no further from the other, mm. */
  readonly apartMm: number;
  /** By how much of its area it is too large or too small. */
  readonly area: number;
}

/** Points along an outline stand so far apart, mm. */
const STEP_MM = 0.2;
/** Segments that are asked for their distance, the nearest boxes first. */
const NEIGHBOURS = 12;

/** Compares two outlines both ways. Source: Huttenlocher 1993, Comparing images using the Hausdorff distance (partial). */
export function compareOutlines(traced: Rings, truth: Rings): OutlineError {
  const distances = [...distancesTo(traced, truth), ...distancesTo(truth, traced)].sort((a, b) => a - b);
  const areaOf = (rings: Rings) => rings.reduce((sum, ring) => sum + signedAreaMm2(ring), 0);
  const whole = Math.abs(areaOf(truth));
  return {
    apartMm: distances[Math.floor(0.95 * distances.length)] ?? Infinity,
    area: Math.abs(Math.abs(areaOf(traced)) - whole) / whole,
  };
}

function distancesTo(from: Rings, to: Rings): readonly number[] {
  const segments = to.flatMap((ring) =>
    ring.map((a, at) => [a, ring[(at + 1) % ring.length] as PointMm] as const),
  );
  if (segments.length === 0) return [Infinity];
  const index = new Flatbush(segments.length);
  for (const [a, b] of segments) {
    index.add(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y));
  }
  index.finish();
  return from.flatMap(pointsAlong).map((point) => {
    let least = Infinity;
    for (const at of index.neighbors(point.x, point.y, NEIGHBOURS)) {
      const [a, b] = segments[at] as (typeof segments)[number];
      least = Math.min(least, toSegment(point, a, b));
    }
    return least;
  });
}

function pointsAlong(ring: readonly PointMm[]): readonly PointMm[] {
  return ring.flatMap((a, at) => {
    const b = ring[(at + 1) % ring.length] as PointMm;
    const count = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / STEP_MM));
    return Array.from({ length: count }, (_, k) => ({
      x: a.x + ((b.x - a.x) * k) / count,
      y: a.y + ((b.y - a.y) * k) / count,
    }));
  });
}

function toSegment(point: PointMm, a: PointMm, b: PointMm): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const long = dx * dx + dy * dy;
  const t = long === 0 ? 0 : Math.max(0, Math.min(1, ((point.x - a.x) * dx + (point.y - a.y) * dy) / long));
  return Math.hypot(point.x - a.x - t * dx, point.y - a.y - t * dy);
}
