import { itemAt } from '#core/collections/itemAt.ts';
import type { ArtSource } from '#core/artwork/printed/artSource.ts';
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
  const factor = drawing.scaledBy ?? 1;
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  return pieces.map((piece) => {
    const lines = piece.lineIds.flatMap((id) => {
      const line = byId.get(id);
      return line && roleOf(line, given) === 'art' ? [line] : [];
    });
    const shapes = new Set(lines.map(({ shape }) => shape));
    const own = new Set(piece.pictures);
    const frames = piece.pictures.map((picture) => frameOf(itemAt(drawing.images, picture)));
    const boxes = [...lines.map(reachOf), ...frames];
    if (boxes.length === 0) return null;
    const box = wholeDots(growBox(joinBoxes([...boxes, piece.box]), GLOW_MM * factor));
    const svg = art.write(mapBox(box, 1 / factor), {
      shape: (shape) => shapes.has(shape),
      picture: (picture) => own.has(picture),
    });
    return { svg, box };
  });
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
