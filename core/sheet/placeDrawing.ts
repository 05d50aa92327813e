import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { mapContour } from '#core/geometry/affine.ts';
import { boundContour, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { requireSheet, type Sheet } from '#core/sheet/sheetSize.ts';

/** Where the upper left corner of a drawing's lines lies on the sheet, mm. */
export interface Placement {
  readonly xMm: number;
  readonly yMm: number;
}

/** The lines of a drawing at their place on the sheet. */
export interface PlacedDrawing {
  readonly contours: readonly DrawnContour[];
  readonly box: BoxMm;
  /** By how many mm the lines reach over each usable edge; 0 where they fit. */
  readonly over: {
    readonly left: number;
    readonly top: number;
    readonly right: number;
    readonly bottom: number;
  };
  readonly isInside: boolean;
}

/** Dust of floating point that is not a line outside the sheet, mm. */
const DUST_MM = 1e-6;

/**
 * Puts a drawing on a sheet by the box of its lines, so that empty margins in the file waste no sheet.
 *
 * @throws AppError `badInput` when the sheet has no usable area
 */
export function placeDrawing(drawing: Drawing, sheet: Sheet, placement: Placement): PlacedDrawing {
  requireSheet(sheet);
  const own = boundDrawing(drawing);
  const shift = [1, 0, 0, 1, placement.xMm - own.minX, placement.yMm - own.minY] as const;
  const contours = drawing.contours.map((line) => ({ ...line, contour: mapContour(shift, line.contour) }));
  const box = {
    minX: placement.xMm,
    minY: placement.yMm,
    maxX: placement.xMm + own.maxX - own.minX,
    maxY: placement.yMm + own.maxY - own.minY,
  };
  const beyond = (value: number) => (value > DUST_MM ? value : 0);
  const over = {
    left: beyond(sheet.marginMm - box.minX),
    top: beyond(sheet.marginMm - box.minY),
    right: beyond(box.maxX - (sheet.widthMm - sheet.marginMm)),
    bottom: beyond(box.maxY - (sheet.heightMm - sheet.marginMm)),
  };
  return { contours, box, over, isInside: over.left + over.top + over.right + over.bottom === 0 };
}

/** The exact box of all lines of a drawing, mm. */
export function boundDrawing(drawing: Drawing): BoxMm {
  return joinBoxes(drawing.contours.map((line) => boundContour(line.contour)));
}
