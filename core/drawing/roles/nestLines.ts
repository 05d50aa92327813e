import Flatbush from 'flatbush';
import { itemAt } from '#core/collections/itemAt.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import { areaOfBox, boundContour, encloses } from '#core/geometry/box.ts';
import { endOf, startOf, type Contour } from '#core/geometry/contour.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { mixPoints, type PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';

/** Which lines lie in which, by their places in the list. */
export interface NestedLines {
  /** The smallest closed line of another shape around each, or `null`. */
  readonly around: readonly (number | null)[];
  /** The lines that each is the smallest around. */
  readonly holds: readonly (readonly number[])[];
  /** Whether both ends of an open line lie on closed lines. */
  readonly meetsOutline: (line: DrawnContour) => boolean;
  /** Whether an open line goes on in others at both of its ends: an outline in pieces. */
  readonly goesOn: (line: DrawnContour) => boolean;
}

/** A line and what it must lie in to be looked at this close: finer cannot change the answer, mm. */
const LOOK_MM = 0.5;
/** Ends this near to an outline are meant to lie on it, mm. */
const TOUCH_MM = 1;
/** Ends of lines this near were meant to meet, mm. */
const MEET_MM = 0.5;

/**
 * Finds which lines lie in which. Lines of one shape, as the two of a letter O, are one thing with a hole: neither holds
 * the other.
 *
 * @example nestLines(drawing.contours).around // [null, 0]
 */
export function nestLines(lines: readonly DrawnContour[]): NestedLines {
  const boxes = lines.map(({ contour }) => boundContour(contour));
  const rings = new Map<number, readonly PointMm[]>();
  const ringOf = (index: number) => {
    const known = rings.get(index) ?? flattenContour(itemAt(lines, index).contour, LOOK_MM);
    rings.set(index, known);
    return known;
  };
  const closed = lines.flatMap(({ contour }, index) => (contour.isClosed ? [index] : []));
  const tree = closed.length > 0 ? new Flatbush(closed.length) : null;
  for (const index of closed) {
    const { minX, minY, maxX, maxY } = itemAt(boxes, index);
    tree?.add(minX, minY, maxX, maxY);
  }
  tree?.finish();
  const near = ({ x, y }: PointMm, byMm: number) =>
    (tree?.search(x - byMm, y - byMm, x + byMm, y + byMm) ?? []).map((at) => itemAt(closed, at));
  const around = lines.map((line, index) => {
    const box = itemAt(boxes, index);
    const at = line.contour.isClosed ? startOf(line.contour) : middleOf(line.contour);
    const holders = near(at, 0)
      .filter((other) => other !== index && itemAt(lines, other).shape !== line.shape)
      .filter((other) => areaOfBox(itemAt(boxes, other)) > areaOfBox(box))
      .filter((other) => !line.contour.isClosed || encloses(itemAt(boxes, other), box))
      .sort((a, b) => areaOfBox(itemAt(boxes, a)) - areaOfBox(itemAt(boxes, b)));
    return holders.find((other) => isInside(at, ringOf(other))) ?? null;
  });
  const holds: number[][] = lines.map(() => []);
  around.forEach((holder, index) => {
    if (holder !== null) holds[holder]?.push(index);
  });
  const touches = (point: PointMm) =>
    near(point, TOUCH_MM).some((index) => distanceToWay(point, ringOf(index)) <= TOUCH_MM);
  const meetsOther = endsOfOpen(lines);
  return {
    around,
    holds,
    meetsOutline: ({ contour }) => !contour.isClosed && touches(startOf(contour)) && touches(endOf(contour)),
    goesOn: (line) =>
      !line.contour.isClosed &&
      meetsOther(line, startOf(line.contour)) &&
      meetsOther(line, endOf(line.contour)),
  };
}

/** Whether another open line ends near a point. */
function endsOfOpen(lines: readonly DrawnContour[]): (line: DrawnContour, at: PointMm) => boolean {
  const open = lines.filter(({ contour }) => !contour.isClosed);
  if (open.length === 0) return () => false;
  const tree = new Flatbush(open.length * 2);
  for (const { contour } of open) {
    for (const { x, y } of [startOf(contour), endOf(contour)]) tree.add(x, y);
  }
  tree.finish();
  return (line, { x, y }) =>
    tree
      .search(x - MEET_MM, y - MEET_MM, x + MEET_MM, y + MEET_MM)
      .some((at) => itemAt(open, at >> 1).id !== line.id);
}

/** A point about half along an open line: its ends may lie on the outline or a little over it. */
function middleOf(contour: Contour): PointMm {
  const way = flattenContour(contour, LOOK_MM);
  const from = Math.max(0, Math.ceil(way.length / 2) - 1);
  return mixPoints(itemAt(way, from), itemAt(way, Math.min(from + 1, way.length - 1)), 0.5);
}
