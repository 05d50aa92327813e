import { itemAt } from '#core/collections/itemAt.ts';
import { startOf } from '#core/geometry/contour.ts';
import Flatbush from 'flatbush';
import { groupBy } from '#core/collections/groupBy.ts';
import type { Drawing, DrawnContour, DrawnImage } from '#core/drawing/drawing.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import { isCutRole, roleOf, type GivenRoles, type Role } from '#core/drawing/roles/lineRoles.ts';
import {
  areaOfBox,
  boundContour,
  boundPoints,
  encloses,
  joinBoxes,
  middleOf,
  type BoxMm,
} from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';

/** What can be moved on a sheet by itself: an outermost outline with everything in it. */
export interface Piece {
  readonly index: number;
  readonly lineIds: readonly number[];
  /** Around all lines that are cut, or all lines where none is. */
  readonly box: BoxMm;
  /** Its pictures, by their places among the drawing's. */
  readonly pictures: readonly number[];
}

/** What lies in what needs no cutting tolerance, mm. */
const LOOK_MM = 0.1;

interface Line {
  readonly line: DrawnContour;
  readonly role: Role | null;
  readonly box: BoxMm;
}

/**
 * The pieces of a drawing. With `isWhole` there is one: everything, as it was drawn. Otherwise every outermost closed
 * line that is cut makes a piece, lines in it and art over it go with it, and what lies outside all makes pieces of
 * its own. Lines to ignore belong to none.
 *
 * @example splitPieces(drawing, given, false).length // 1
 */
export function splitPieces(drawing: Drawing, given: GivenRoles, isWhole: boolean): readonly Piece[] {
  const lines = drawing.contours
    .map((line): Line => ({ line, role: roleOf(line, given), box: boundContour(line.contour) }))
    .filter(({ role }) => role !== 'ignore');
  if (drawing.contours.length === 0 && drawing.images.length > 0) return [pictureAlone(drawing)];
  if (lines.length === 0) return [];
  if (isWhole) return [{ ...toPiece(0, lines), pictures: [...drawing.images.keys()] }];
  const owners = findOwners(lines);
  const groups = groupBy(lines.keys(), (index) => itemAt(owners, index));
  const pieces = [...groups.values()].map((group, index) =>
    toPiece(
      index,
      group.map((one) => itemAt(lines, one)),
    ),
  );
  const pictures = groupBy(drawing.images.keys(), (picture) =>
    pictureOwner(itemAt(drawing.images, picture), pieces),
  );
  return pieces.map((piece) => ({ ...piece, pictures: pictures.get(piece.index) ?? [] }));
}

/** A drawing of pictures without a line: they are printed, and nothing is cut. */
function pictureAlone({ images }: Drawing): Piece {
  const corners = images.flatMap(({ toMm }) =>
    [0, 1].flatMap((x) => [0, 1].map((y) => mapPoint(toMm, { x, y }))),
  );
  return { index: 0, lineIds: [], box: boundPoints(corners), pictures: [...images.keys()] };
}

/** The smallest piece in whose box the middle of a picture lies; the first where it lies in none. */
function pictureOwner({ toMm }: DrawnImage, pieces: readonly Pick<Piece, 'index' | 'box'>[]): number {
  const { x, y } = mapPoint(toMm, { x: 0.5, y: 0.5 });
  const around = pieces.filter(({ box }) => x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY);
  return around.sort((a, b) => areaOfBox(a.box) - areaOfBox(b.box))[0]?.index ?? 0;
}

/** For each line the outermost outline it belongs to: itself where it lies in none. */
function findOwners(lines: readonly Line[]): readonly number[] {
  const outlines = lines
    .map((line, index) => ({ ...line, index }))
    .filter(({ line, role }) => line.contour.isClosed && isCutRole(role))
    .sort((a, b) => areaOfBox(b.box) - areaOfBox(a.box));
  const tree = outlines.length > 0 ? new Flatbush(outlines.length) : null;
  for (const { box } of outlines) tree?.add(box.minX, box.minY, box.maxX, box.maxY);
  tree?.finish();
  const rings = new Map<number, readonly PointMm[]>();
  const ringOf = (rank: number) => {
    const known = rings.get(rank);
    if (known) return known;
    const ring = flattenContour(itemAt(outlines, rank).line.contour, LOOK_MM);
    rings.set(rank, ring);
    return ring;
  };
  return lines.map(({ line, role, box }, index) => {
    const isCut = isCutRole(role);
    const at = isCut ? startOf(line.contour) : middleOf(box);
    const near = (tree?.search(box.minX, box.minY, box.maxX, box.maxY) ?? [])
      .sort((a, b) => a - b)
      .filter((rank) => outlines[rank]?.index !== index);
    const around = near.filter((rank) => {
      const outer = itemAt(outlines, rank);
      if (isCut && !(areaOfBox(outer.box) > areaOfBox(box) && encloses(outer.box, box))) return false;
      return isInside(at, ringOf(rank));
    });
    // Art that lies over an edge goes with what it lies over.
    const owner = mostAround(line, around, ringOf) ?? (isCut ? undefined : near[0]);
    return owner === undefined ? index : (outlines[owner] as { readonly index: number }).index;
  });
}

/** The largest outline around a line; where borders of neighbours overlap, the first that holds most of the line. */
function mostAround(
  { contour }: DrawnContour,
  around: readonly number[],
  ringOf: (rank: number) => readonly PointMm[],
): number | undefined {
  if (around.length < 2) return around[0];
  const points = flattenContour(contour, LOOK_MM);
  let best: { readonly rank: number; readonly held: number } | undefined;
  for (const rank of around) {
    const held = points.filter((point) => isInside(point, ringOf(rank))).length;
    if (!best || held > best.held) best = { rank, held };
  }
  return best?.rank;
}

function toPiece(index: number, lines: readonly Line[]): Omit<Piece, 'pictures'> {
  const cut = lines.filter(({ role }) => isCutRole(role));
  const shown = cut.length > 0 ? cut : lines;
  return { index, lineIds: lines.map(({ line }) => line.id), box: joinBoxes(shown.map(({ box }) => box)) };
}
