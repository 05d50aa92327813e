import { itemAt } from '#core/collections/itemAt.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import type { Drawing, DrawnContour, DrawnImage } from '#core/drawing/drawing.ts';
import { isCutRole, roleOf, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { composeAffine, mapContour } from '#core/geometry/affine.ts';
import { boundContour, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { affineOf, type Layout } from '#core/sheet/layout.ts';
import { requireSheet, type Sheet } from '#core/sheet/sheetSize.ts';
import type { Piece } from '#core/sheet/nest/splitPieces.ts';

/** A line at its place on the sheet. Its id is its own; `sourceId` is that of the line in the drawing. */
export interface PlacedLine extends DrawnContour {
  readonly sourceId: number;
  /** Which placement of the layout it belongs to. */
  readonly copy: number;
}

/** A picture at its place on the sheet. */
export interface PlacedImage extends DrawnImage {
  /** Which placement of the layout it belongs to. */
  readonly copy: number;
}

/** The lines on one sheet. */
export interface PlacedSheet {
  readonly lines: readonly PlacedLine[];
  readonly images: readonly PlacedImage[];
  /** Around what is cut, or around all where nothing is; `null` for an empty sheet. */
  readonly box: BoxMm | null;
  /** By how many mm cut lines reach over each usable edge; 0 where they fit. */
  readonly over: Readonly<Record<'left' | 'top' | 'right' | 'bottom', number>>;
  readonly isInside: boolean;
}

/**
 * Puts the pieces of one sheet of a layout on it.
 *
 * @param sheetIndex which sheet of the job, from 0
 * @throws AppError `badInput` when the sheet has no usable area
 * @example placePieces(drawing, given, [], { placements: [] }, sheet).isInside // true
 */
export function placePieces(
  drawing: Drawing,
  given: GivenRoles,
  pieces: readonly Piece[],
  { placements }: Pick<Layout, 'placements'>,
  sheet: Sheet,
  sheetIndex = 0,
): PlacedSheet {
  requireSheet(sheet);
  const lines: PlacedLine[] = [];
  const images: PlacedImage[] = [];
  const boxes: BoxMm[] = [];
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  for (const [copy, placement] of placements.entries()) {
    const piece = pieces[placement.piece];
    if (!piece || placement.sheet !== sheetIndex) continue;
    const affine = affineOf(piece.box, placement);
    for (const sourceId of piece.lineIds) {
      const source = byId.get(sourceId) as DrawnContour;
      const contour = mapContour(affine, source.contour);
      if (isCutRole(roleOf(source, given))) boxes.push(boundContour(contour));
      lines.push({ ...source, contour, id: lines.length, sourceId, copy });
    }
    for (const picture of piece.pictures) {
      const image = itemAt(drawing.images, picture);
      images.push({ ...image, copy, toMm: composeAffine(affine, image.toMm) });
    }
  }
  const all = boxes.length > 0 ? boxes : lines.map(({ contour }) => boundContour(contour));
  const box = all.length > 0 ? joinBoxes(all) : null;
  const beyond = (value: number) => (box && value > LENGTH_MM ? value : 0);
  const { marginMm, widthMm, heightMm } = sheet;
  const over = {
    left: beyond(marginMm - (box?.minX ?? 0)),
    top: beyond(marginMm - (box?.minY ?? 0)),
    right: beyond((box?.maxX ?? 0) - (widthMm - marginMm)),
    bottom: beyond((box?.maxY ?? 0) - (heightMm - marginMm)),
  };
  return { lines, images, box, over, isInside: over.left + over.top + over.right + over.bottom === 0 };
}
