import { itemAt } from '#core/collections/itemAt.ts';
import type { ArtSource, ShownParts } from '#core/artwork/printed/artSource.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { roleOf, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { composeAffine, mapPoint, type Affine } from '#core/geometry/affine.ts';
import { boundContour, boundPoints, growBox, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { affineOf, type Layout } from '#core/sheet/layout.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import type { Piece } from '#core/sheet/nest/splitPieces.ts';

/** The art of a piece as an SVG of its own, with its place in the drawing. */
export interface PieceArt {
  readonly svg: string;
  readonly box: BoxMm;
}

/** Shadows and glows reach a little beyond the shapes they belong to, mm. */
const GLOW_MM = 3;
/** A dot of a printer at 600 to the inch, mm: boxes of whole dots are drawn to pixels without being stretched. */
const DOT_MM = MM_PER_INCH / 600;
/** The corner of a mitred stroke reaches this many half widths far. */
const MITRE = 4;

/**
 * The art of every piece, drawn from the file itself.
 *
 * @param drawing with all mends
 * @returns `null` for a piece without art
 * @example drawPieceArt(openArt(svgText), drawing, given, []) // []
 */
export function drawPieceArt(
  art: ArtSource,
  drawing: Drawing,
  given: GivenRoles,
  pieces: readonly Pick<Piece, 'lineIds' | 'box' | 'pictures'>[],
): readonly (PieceArt | null)[] {
  const byId = linesById(drawing);
  return pieces.map((piece) => {
    const shown = shownOf(piece, drawing, byId, given);
    if (!shown) return null;
    return writeArt(art, drawing, shown.box, {
      shape: (shape) => shown.shapes.has(shape),
      picture: (picture) => shown.pictures.has(picture),
    });
  });
}

/** What is laid down at once: a picture as it stands in its file, or what is painted from the file. */
export type ArtLayer =
  | { readonly kind: 'picture'; readonly picture: number }
  | { readonly kind: 'painted'; readonly art: PieceArt };

/**
 * The art of every piece in layers from below, so that pictures which stand in the file as they are can be printed pixel
 * for pixel, with what is painted below and above them.
 *
 * @param drawing with all mends
 * @example drawPieceLayers(openArt(svgText), drawing, given, []) // []
 */
export function drawPieceLayers(
  art: ArtSource,
  drawing: Drawing,
  given: GivenRoles,
  pieces: readonly Pick<Piece, 'lineIds' | 'box' | 'pictures'>[],
): readonly (readonly ArtLayer[])[] {
  const byId = linesById(drawing);
  return pieces.map((piece) => {
    const shown = shownOf(piece, drawing, byId, given);
    return shown ? layersOf(art, drawing, shown) : [];
  });
}

function layersOf(
  art: ArtSource,
  drawing: Drawing,
  { shapes, pictures, box }: ShownPiece,
): readonly ArtLayer[] {
  const plain = [...pictures]
    .filter((picture) => itemAt(drawing.images, picture).isPlain === true && !art.isBlended)
    .sort((a, b) => a - b);
  const over = plain.map((picture) => itemAt(drawing.images, picture).overShapes ?? 0);
  const levelOfShape = (shape: number) => over.filter((count) => count <= shape).length;
  const levelOfPicture = (picture: number) => plain.filter((one) => one < picture).length;
  const painted = (level: number): readonly ArtLayer[] => {
    const own = [...shapes].filter((shape) => levelOfShape(shape) === level);
    const faded = [...pictures].filter((one) => !plain.includes(one) && levelOfPicture(one) === level);
    if (own.length + faded.length === 0) return [];
    const [isShape, isPicture] = [new Set(own), new Set(faded)];
    const shown = {
      shape: (shape: number) => isShape.has(shape),
      picture: (picture: number) => isPicture.has(picture),
    };
    return [{ kind: 'painted', art: writeArt(art, drawing, box, shown) }];
  };
  return [
    ...painted(0),
    ...plain.flatMap((picture, at): readonly ArtLayer[] => [
      { kind: 'picture', picture },
      ...painted(at + 1),
    ]),
  ];
}

/** What of a drawing is shown of a piece. */
interface ShownPiece {
  readonly shapes: ReadonlySet<number>;
  readonly pictures: ReadonlySet<number>;
  readonly box: BoxMm;
}

function linesById({ contours }: Drawing): ReadonlyMap<number, DrawnContour> {
  return new Map(contours.map((line) => [line.id, line]));
}

/** @returns `null` for a piece without art */
function shownOf(
  piece: Pick<Piece, 'lineIds' | 'box' | 'pictures'>,
  drawing: Drawing,
  byId: ReadonlyMap<number, DrawnContour>,
  given: GivenRoles,
): ShownPiece | null {
  const lines = piece.lineIds.flatMap((id) => {
    const line = byId.get(id);
    return line && roleOf(line, given) === 'art' ? [line] : [];
  });
  const frames = piece.pictures.map((picture) => frameOf(itemAt(drawing.images, picture)));
  const boxes = [...lines.map(reachOf), ...frames];
  if (boxes.length === 0) return null;
  return {
    shapes: new Set(lines.map(({ shape }) => shape)),
    pictures: new Set(piece.pictures),
    box: wholeDots(growBox(joinBoxes([...boxes, piece.box]), GLOW_MM * (drawing.scaledBy ?? 1))),
  };
}

function writeArt(art: ArtSource, { scaledBy = 1 }: Drawing, box: BoxMm, shown: ShownParts): PieceArt {
  return { svg: art.write(mapBox(box, 1 / scaledBy), shown), box };
}

/** Where the art of a piece lies on one sheet of a layout. */
export interface PlacedArt {
  readonly art: PieceArt;
  /** From the unit square to mm on the sheet. */
  readonly toMm: Affine;
  /** Which placement of the layout it belongs to. */
  readonly copy: number;
}

/**
 * The art of all pieces of a drawing on one sheet.
 *
 * @param sheetIndex which sheet, from 0
 * @param firstPiece what its first piece is called in the layout
 * @example placeArt([], [], { placements: [] }, 0) // []
 */
export function placeArt(
  arts: readonly (PieceArt | null)[],
  pieces: readonly Piece[],
  { placements }: Pick<Layout, 'placements'>,
  sheetIndex: number,
  firstPiece = 0,
): readonly PlacedArt[] {
  return placements.flatMap((placement, copy) => {
    const art = arts[placement.piece - firstPiece];
    const piece = pieces[placement.piece - firstPiece];
    if (placement.sheet !== sheetIndex || !art || !piece) return [];
    return [{ art, copy, toMm: composeAffine(affineOf(piece.box, placement), unitTo(art.box)) }];
  });
}

/**
 * From the unit square to a box.
 *
 * @example unitTo({ minX: 1, minY: 2, maxX: 4, maxY: 8 }) // [3, 0, 0, 6, 1, 2]
 */
export function unitTo({ minX, minY, maxX, maxY }: BoxMm): Affine {
  return [maxX - minX, 0, 0, maxY - minY, minX, minY];
}

function reachOf({ contour, strokeColour, strokeWidthMm }: DrawnContour): BoxMm {
  const box = boundContour(contour);
  return strokeColour === null ? box : growBox(box, (MITRE * (strokeWidthMm ?? 0)) / 2);
}

function frameOf({ toMm }: Drawing['images'][number]): BoxMm {
  const corners = [0, 1].flatMap((x) => [0, 1].map((y) => mapPoint(toMm, { x, y })));
  return boundPoints(corners);
}

function wholeDots({ minX, minY, maxX, maxY }: BoxMm): BoxMm {
  const down = (mm: number) => Math.floor(mm / DOT_MM) * DOT_MM;
  const up = (mm: number) => Math.ceil(mm / DOT_MM) * DOT_MM;
  return { minX: down(minX), minY: down(minY), maxX: up(maxX), maxY: up(maxY) };
}

function mapBox({ minX, minY, maxX, maxY }: BoxMm, factor: number): BoxMm {
  return { minX: minX * factor, minY: minY * factor, maxX: maxX * factor, maxY: maxY * factor };
}
