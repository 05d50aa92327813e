import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/** A turn below this is a curve that the blade follows by itself, radians. Common practice, no source. */
const SWIVEL_RAD = (12 * Math.PI) / 180;
/** Steps of a swivel arc, radians. */
const STEP_RAD = (15 * Math.PI) / 180;

/**
 * The way of the holder's axis that leads a trailing tip along a line: ahead of it by the offset, with an arc around
 * every corner that turns the blade before it goes on.
 *
 * @param points the way of the tip, at least two points
 * @param offsetMm from the axis to the tip, 0 or more
 * @returns the same points for an offset of 0; the axis is never further than the offset from the tip's way
 * Source: pursuit of a trailed point (tractrix) in its limit for straight lines, any book on curves.
 * @example compensateOffset([{ x: 0, y: 0 }, { x: 10, y: 0 }], 0.25).at(-1) // { x: 10.25, y: 0 }
 */
export function compensateOffset(points: readonly PointMm[], offsetMm: number): readonly PointMm[] {
  if (offsetMm <= 0 || points.length < 2) return points;
  const legs = points
    .slice(1)
    .map((to, index) => {
      const from = itemAt(points, index);
      return { from, to, angle: Math.atan2(to.y - from.y, to.x - from.x), length: distanceMm(from, to) };
    })
    .filter(({ length }) => length > ROUNDING);
  const ahead = (point: PointMm, angle: number): PointMm => ({
    x: point.x + offsetMm * Math.cos(angle),
    y: point.y + offsetMm * Math.sin(angle),
  });
  const way: PointMm[] = [];
  legs.forEach(({ from, to, angle }, index) => {
    const before = legs[index - 1];
    if (!before) way.push(ahead(from, angle));
    else {
      const turn = wrap(angle - before.angle);
      if (Math.abs(turn) >= SWIVEL_RAD) {
        const steps = Math.ceil(Math.abs(turn) / STEP_RAD);
        for (let step = 1; step < steps; step++) way.push(ahead(from, before.angle + (turn * step) / steps));
        way.push(ahead(from, angle));
      }
    }
    way.push(ahead(to, angle));
  });
  return way;
}

function wrap(angle: number): number {
  return Math.atan2(Math.sin(angle), Math.cos(angle));
}
