/** A point in mm; x to the right, y downwards as in drawings on screen. */
export interface PointMm {
  readonly x: number;
  readonly y: number;
}

/** Straight distance in mm. @example distanceMm({ x: 0, y: 0 }, { x: 3, y: 4 }) // 5 */
export function distanceMm(a: PointMm, b: PointMm): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/**
 * The mean of points, of which there is at least one.
 *
 * @example meanPoint([{ x: 0, y: 0 }, { x: 2, y: 4 }]) // { x: 1, y: 2 }
 */
export function meanPoint(points: readonly PointMm[]): PointMm {
  const sum = points.reduce((total, { x, y }) => ({ x: total.x + x, y: total.y + y }), { x: 0, y: 0 });
  return { x: sum.x / points.length, y: sum.y / points.length };
}

/**
 * The point a share of the way from a (0) to b (1).
 *
 * @example mixPoints({ x: 0, y: 0 }, { x: 10, y: 0 }, 0.3) // { x: 3, y: 0 }
 */
export function mixPoints(a: PointMm, b: PointMm, share: number): PointMm {
  return { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share };
}
