import { drawDisc, drawOval, drawRoundedBox } from '#core/drawing/plainShapes.ts';
import { bisect } from '#core/geometry/bisect.ts';
import { boundPoints, middleOf, type BoxMm } from '#core/geometry/box.ts';
import { fillHoles, nestRings, offsetRings, type Rings } from '#core/geometry/clip.ts';
import { convexHull } from '#core/geometry/convexHull.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** What a border follows: the piece itself, or a plain shape around it. */
export const BACKINGS = ['outline', 'hull', 'rectangle', 'oval', 'round'] as const;
export type Backing = (typeof BACKINGS)[number];

/** How a border is drawn. */
export interface BorderOrder {
  /** How far out it lies; inside below 0. */
  readonly byMm: number;
  /** Gaps this narrow are closed before, without growing the rest; 0 for none. */
  readonly closesMm: number;
  readonly backing: Backing;
  /** Each part is a piece by itself: its border is never joined with a neighbour's. */
  readonly keepsApart?: boolean | undefined;
}

/** Corners of a rounded rectangle, as a share of its shorter side. Common practice, no source. */
const CORNER_SHARE = 0.12;
const RADIUS_STEP_MM = 0.05;

/**
 * Gaps between parts are closed: parts nearer to each other than this become one, and bays as narrow are filled; all
 * else stays where it is.
 *
 * @example closeGaps([square], 1).length // 1
 */
export function closeGaps(covered: Rings, gapMm: number): Rings {
  if (gapMm <= 0) return covered;
  return offsetRings(offsetRings(covered, gapMm / 2), -gapMm / 2);
}

/**
 * The borders of what is covered, holes filled. Where those of neighbouring parts meet they become one, as around the
 * letters of a word; or each part keeps its own, and they may lie over each other until the pieces are laid out.
 *
 * @param covered rings of what is printed or cut around
 * @returns one ring for each piece, more where an inward border falls apart
 * @example drawBorder([square], { byMm: 1, closesMm: 0, backing: 'outline' }).length // 1
 */
export function drawBorder(covered: Rings, order: BorderOrder): Rings {
  const { byMm, closesMm, backing, keepsApart = false } = order;
  const borders = piecesOf(closeGaps(covered, closesMm)).flatMap((piece) =>
    backing === 'outline' ? fillHoles(offsetRings(piece, byMm)) : back(piece, byMm, backing),
  );
  return keepsApart ? borders : fillHoles(borders);
}

/** The parts that are by themselves, holes filled, so that what lies in one is of it. */
function piecesOf(rings: Rings): readonly Rings[] {
  return nestRings(fillHoles(rings));
}

function back(piece: Rings, byMm: number, backing: Exclude<Backing, 'outline'>): Rings {
  const hull = convexHull(piece.flat());
  const [grown] = offsetRings([hull], byMm);
  if (!grown) return [];
  if (backing === 'hull') return [grown];
  const box = boundPoints(grown);
  const middle = middleOf(box);
  switch (backing) {
    case 'rectangle':
      return [flattenContour(drawRoundedBox(box, cornerRadius(grown, box)))];
    case 'round':
      return [flattenContour(drawDisc(middle, reachFrom(grown, middle, 1)))];
    case 'oval': {
      // As wide to as high as the piece, and as small as holds it.
      const shape = (box.maxY - box.minY) / (box.maxX - box.minX);
      const half = reachFrom(grown, middle, shape);
      return [flattenContour(drawOval(middle, half, half * shape))];
    }
  }
}

/** The usual corners of a rounded rectangle, or as round as leaves the rim whole. */
function cornerRadius(points: readonly PointMm[], box: BoxMm): number {
  const most = CORNER_SHARE * Math.min(box.maxX - box.minX, box.maxY - box.minY);
  const holds = (radius: number) =>
    points.every(({ x, y }) => {
      const beyondX = Math.max(box.minX + radius - x, x - (box.maxX - radius), 0);
      const beyondY = Math.max(box.minY + radius - y, y - (box.maxY - radius), 0);
      return Math.hypot(beyondX, beyondY) <= radius + LENGTH_MM || beyondX === 0 || beyondY === 0;
    });
  return holds(most) ? most : bisect(0, most, RADIUS_STEP_MM, (radius) => !holds(radius))[0];
}

/** How far the furthest point is, with heights counted in `shape`. */
function reachFrom(points: readonly PointMm[], { x, y }: PointMm, shape: number): number {
  return Math.max(...points.map((point) => Math.hypot(point.x - x, (point.y - y) / shape)));
}
