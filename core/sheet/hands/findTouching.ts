import Flatbush from 'flatbush';
import { itemAt } from '#core/collections/itemAt.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import { boundPoints, type BoxMm } from '#core/geometry/box.ts';
import { areaOfRings, intersectRings, subtractRings, type Rings } from '#core/geometry/clip.ts';
import { affineOf, type Layout } from '#core/sheet/layout.ts';

/** A piece with what it covers. */
interface TouchPiece {
  readonly box: BoxMm;
  readonly silhouette: Rings;
  /** `null` for a card that others lie on. */
  readonly drawing: number | null;
}

/** Less shared than this is rounding, mm². */
const TOUCH_MM2 = 0.05;

/**
 * Placements of a layout made by hand that lie over each other, or over the edge of the card they lie on: their cuts
 * would meet.
 *
 * @returns their places among the placements
 * @example findTouching([], { placements: [] }) // []
 */
export function findTouching(
  pieces: readonly TouchPiece[],
  { arrangement, placements }: Pick<Layout, 'arrangement' | 'placements'>,
): readonly number[] {
  // What was laid out by reckoning keeps its distance.
  if (arrangement !== undefined) return [];
  const placed = placements.flatMap((placement, at) => {
    const piece = pieces[placement.piece];
    if (!piece) return [];
    const affine = affineOf(piece.box, placement);
    const rings = piece.silhouette.map((ring) => ring.map((point) => mapPoint(affine, point)));
    const box = rings.length > 0 ? boundPoints(rings.flat()) : null;
    return box ? [{ at, sheet: placement.sheet, isCard: piece.drawing === null, rings, box }] : [];
  });
  if (placed.length === 0) return [];
  const tree = new Flatbush(placed.length);
  for (const { box } of placed) tree.add(box.minX, box.minY, box.maxX, box.maxY);
  tree.finish();
  const touching = new Set<number>();
  for (const [index, one] of placed.entries()) {
    const near = tree.search(one.box.minX, one.box.minY, one.box.maxX, one.box.maxY);
    for (const other of near.filter((rank) => rank > index).map((rank) => itemAt(placed, rank))) {
      if (other.sheet !== one.sheet || !meet(one, other)) continue;
      touching.add(one.at);
      touching.add(other.at);
    }
  }
  return [...touching].sort((a, b) => a - b);
}

interface Placed {
  readonly isCard: boolean;
  readonly rings: Rings;
}

function meet(a: Placed, b: Placed): boolean {
  const shared = areaOfRings(intersectRings(a.rings, b.rings));
  if (shared <= TOUCH_MM2) return false;
  if (a.isCard === b.isCard) return true;
  const [card, piece] = a.isCard ? [a, b] : [b, a];
  return areaOfRings(subtractRings(piece.rings, card.rings)) > TOUCH_MM2;
}
