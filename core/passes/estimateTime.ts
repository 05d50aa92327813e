import { ROUNDING } from '#core/units/rounding.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/** How a machine moves. */
export interface Motion {
  readonly speedMmPerS: number;
  readonly accelerationMmPerS2: number;
}

/** The change of direction, as a speed, that a machine takes without slowing further, mm/s. Common practice. */
const CORNER_JUMP_MM_PER_S = 10;

/**
 * Seconds along a polyline from rest to rest, with constant acceleration, a top speed and slowing at corners: a
 * corner that turns by an angle is taken no faster than the speed whose change of direction is the allowed jump.
 *
 * @returns 0 for fewer than two points
 * Source: constant-acceleration kinematics, any mechanics textbook.
 * @example estimateTime([{ x: 0, y: 0 }, { x: 100, y: 0 }], { speedMmPerS: 100, accelerationMmPerS2: 1000 }) // 1.1
 */
export function estimateTime(points: readonly PointMm[], motion: Motion): number {
  if (points.length < 2) return 0;
  const lengths = points.slice(1).map((point, index) => distanceMm(points[index] as PointMm, point));
  const limits = points.map((_, index) => cornerSpeed(points, index, motion.speedMmPerS));
  const twice = 2 * motion.accelerationMmPerS2;
  for (let index = 1; index < limits.length; index++) {
    const reachable = Math.sqrt((limits[index - 1] as number) ** 2 + twice * (lengths[index - 1] as number));
    limits[index] = Math.min(limits[index] as number, reachable);
  }
  for (let index = limits.length - 2; index >= 0; index--) {
    const stoppable = Math.sqrt((limits[index + 1] as number) ** 2 + twice * (lengths[index] as number));
    limits[index] = Math.min(limits[index] as number, stoppable);
  }
  return lengths.reduce(
    (sum, length, index) =>
      sum + legTime(length, limits[index] as number, limits[index + 1] as number, motion),
    0,
  );
}

function cornerSpeed(points: readonly PointMm[], index: number, topSpeed: number): number {
  const before = points[index - 1];
  const here = points[index] as PointMm;
  const after = points[index + 1];
  if (!before || !after) return 0;
  const turn =
    Math.atan2(after.y - here.y, after.x - here.x) - Math.atan2(here.y - before.y, here.x - before.x);
  const change = 2 * Math.abs(Math.sin(turn / 2));
  return change < ROUNDING ? topSpeed : Math.min(topSpeed, CORNER_JUMP_MM_PER_S / change);
}

/** Seconds over one leg: up to the highest speed it allows, along, and down to its end. */
function legTime(length: number, from: number, to: number, motion: Motion): number {
  const a = motion.accelerationMmPerS2;
  const peak = Math.min(motion.speedMmPerS, Math.sqrt((2 * a * length + from * from + to * to) / 2));
  const ramps = (2 * peak * peak - from * from - to * to) / (2 * a);
  return (2 * peak - from - to) / a + Math.max(0, length - ramps) / Math.max(peak, ROUNDING);
}
