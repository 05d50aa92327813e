import { Clipper } from 'clipper2-ts';
import type { PointMm } from '#core/geometry/point.ts';

/** Points nearer to the line between their neighbours than this add nothing that a blade could follow, mm. */
const STRAIGHT_MM = 0.004;

/**
 * The ring without points that lie within 0.004 mm of the way of the others. Fewer than four stay as they are.
 *
 * @example simplifyRing([{ x: 0, y: 0 }, { x: 5, y: 0 }, { x: 10, y: 0 }, { x: 10, y: 9 }, { x: 0, y: 9 }]).length // 4
 */
export function simplifyRing(ring: readonly PointMm[]): readonly PointMm[] {
  if (ring.length < 4) return ring;
  const simple = Clipper.simplifyPathD(
    ring.map(({ x, y }) => ({ x, y })),
    STRAIGHT_MM,
    true,
  );
  return simple.length < 3 ? ring : simple.map(({ x, y }) => ({ x, y }));
}
