import type { Contour } from '#core/geometry/contour.ts';

/** One line of a drawing, in mm from the drawing's upper left corner. */
export interface DrawnContour {
  /** Position in reading order, from 0. */
  readonly id: number;
  readonly contour: Contour;
  /** The nearest named group around it, or `null`. */
  readonly layer: string | null;
  /** Stroke colour as #rrggbb, or `null` for no stroke. */
  readonly strokeColour: string | null;
  /** Fill colour as #rrggbb, or `null` for no fill. */
  readonly fillColour: string | null;
}

/** A drawing read from a file. */
export interface Drawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly contours: readonly DrawnContour[];
  /** What was seen in the file and not taken over, in words, one per kind. */
  readonly leftOut: readonly string[];
}
