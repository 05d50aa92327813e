import { drawDisc, drawOval, drawRoundedBox } from '#core/drawing/plainShapes.ts';
import { boundPoints, middleOf } from '#core/geometry/box.ts';
import { fillHoles, nestRings, offsetRings, type Rings } from '#core/geometry/clip.ts';
import { convexHull } from '#core/geometry/convexHull.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
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
}

/** Corners of a rounded rectangle, as a share of its shorter side. Common practice, no source. */
const CORNER_SHARE = 0.12;

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
 * The borders of what is covered, each part by itself: those of neighbours may overlap and are never joined. Holes are
 * filled.
 *
 * @param covered rings of what is printed or cut around
 * @returns one ring for each piece, more where an inward border falls apart
 * @example drawBorder([square], { byMm: 1, closesMm: 0, backing: 'outline' }).length // 1
 */
export function drawBorder(covered: Rings, { byMm, closesMm, backing }: BorderOrder): Rings {
  return piecesOf(closeGaps(covered, closesMm)).flatMap((piece) =>
    backing === 'outline' ? fillHoles(offsetRings(piece, byMm)) : back(piece, byMm, backing),
  );
}

/** The parts that are by themselves, holes filled, so that what lies in one is of it. */
function piecesOf(rings: Rings): readonly Rings[] {
  return nestRings(fillHoles(rings));
}

function back(piece: Rings, byMm: number, backing: Exclude<Backing, 'outline'>): Rings {
  const hull = convexHull(piece.flat());
  if (backing === 'hull') return offsetRings([hull], byMm);
  const box = boundPoints(hull);
  const middle = middleOf(box);
  const grown = {
    minX: box.minX - byMm,
    minY: box.minY - byMm,
    maxX: box.maxX + byMm,
    maxY: box.maxY + byMm,
  };
  const [width, height] = [grown.maxX - grown.minX, grown.maxY - grown.minY];
  if (width <= 0 || height <= 0) return [];
  switch (backing) {
    case 'rectangle':
      return [flattenContour(drawRoundedBox(grown, CORNER_SHARE * Math.min(width, height)))];
    case 'round':
      return [flattenContour(drawDisc(middle, reachFrom(hull, middle, 1) + byMm))];
    case 'oval': {
      // As wide to as high as the piece, and as small as holds it.
      const shape = (box.maxY - box.minY) / (box.maxX - box.minX);
      const half = reachFrom(hull, middle, shape);
      return [flattenContour(drawOval(middle, half + byMm, half * shape + byMm))];
    }
  }
}

/** How far the furthest point is, with heights counted in `shape`. */
function reachFrom(points: readonly PointMm[], { x, y }: PointMm, shape: number): number {
  return Math.max(...points.map((point) => Math.hypot(point.x - x, (point.y - y) / shape)));
}
