import { groupBy } from '#core/collections/groupBy.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import { boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { pointAlong } from '#core/geometry/pointAlong.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';

/** Lines nearer than this everywhere are one line twice, mm. */
const SAME_MM = 0.05;
const SAMPLES = 12;

/** A line and those that lie on it. */
export interface Duplicate {
  readonly first: number;
  readonly again: readonly number[];
}

/**
 * Lines that are drawn again on the same place, whichever way and wherever they start. Lines drawn with a stroke are
 * compared among themselves: a fill beneath an outline is no duplicate of it.
 *
 * @example findDuplicates(drawing.contours) // []
 */
export function findDuplicates(contours: readonly DrawnContour[]): readonly Duplicate[] {
  const round = (value: number) => Math.round(value / (4 * SAME_MM));
  const buckets = groupBy(contours, ({ contour, strokeColour }) => {
    const { minX, minY, maxX, maxY } = boundContour(contour);
    return [minX, minY, maxX, maxY].map(round).join('/') + (strokeColour === null ? '/fill' : '');
  });
  const found: Duplicate[] = [];
  for (const bucket of buckets.values()) {
    const left = [...bucket];
    while (left.length > 1) {
      const first = left.shift() as DrawnContour;
      const again = left.filter((line) => liesOn(line, first));
      for (const line of again) left.splice(left.indexOf(line), 1);
      if (again.length > 0) found.push({ first: first.id, again: again.map(({ id }) => id) });
    }
  }
  return found;
}

function liesOn(line: DrawnContour, other: DrawnContour): boolean {
  if (line.contour.isClosed !== other.contour.isClosed) return false;
  const length = measureContour(line.contour);
  if (Math.abs(length - measureContour(other.contour)) > 4 * SAME_MM) return false;
  const way = flattenContour(other.contour, SAME_MM / 4);
  const own = flattenContour(line.contour, SAME_MM / 4);
  const total = measurePolyline(own);
  for (let sample = 0; sample < SAMPLES; sample++) {
    const point = pointAlong(own, ((sample + 0.5) / SAMPLES) * total);
    if (distanceToWay(point, way) > SAME_MM) return false;
  }
  return true;
}
