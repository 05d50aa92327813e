import type { PointMm } from '#core/geometry/point.ts';

/**
 * Whether a point lies inside a ring, by counting crossings. On the border either answer may come.
 *
 * @param ring closed or not: the last point is joined to the first
 * @example isInside({ x: 1, y: 1 }, [{ x: 0, y: 0 }, { x: 3, y: 0 }, { x: 0, y: 3 }]) // true
 */
export function isInside(point: PointMm, ring: readonly PointMm[]): boolean {
  let inside = false;
  for (let index = 0, last = ring.length - 1; index < ring.length; last = index++) {
    const a = ring[index] as PointMm;
    const b = ring[last] as PointMm;
    const crosses = a.y > point.y !== b.y > point.y;
    if (crosses && point.x < ((b.x - a.x) * (point.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

/**
 * Whether a point lies in what rings cover, where one inside another is a hole.
 *
 * @example isCovered({ x: 1, y: 1 }, []) // false
 */
export function isCovered(point: PointMm, rings: readonly (readonly PointMm[])[]): boolean {
  return rings.filter((ring) => isInside(point, ring)).length % 2 === 1;
}

/**
 * Signed area in mm²: positive when the ring runs clockwise on screen (y downwards).
 *
 * @example signedAreaMm2([{ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 2, y: 2 }, { x: 0, y: 2 }]) // 4
 */
export function signedAreaMm2(ring: readonly PointMm[]): number {
  let twice = 0;
  for (let index = 0, last = ring.length - 1; index < ring.length; last = index++) {
    const a = ring[last] as PointMm;
    const b = ring[index] as PointMm;
    twice += a.x * b.y - b.x * a.y;
  }
  return twice / 2;
}

/**
 * The ring turned so that its signed area is positive: rings that turn one way cover what is in them.
 *
 * @example turnAlike([{ x: 0, y: 0 }, { x: 0, y: 2 }, { x: 2, y: 0 }])[0] // { x: 2, y: 0 }
 */
export function turnAlike(ring: readonly PointMm[]): readonly PointMm[] {
  return signedAreaMm2(ring) < 0 ? [...ring].reverse() : ring;
}
