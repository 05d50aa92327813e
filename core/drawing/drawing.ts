import type { Affine } from '#core/geometry/affine.ts';
import type { Contour } from '#core/geometry/contour.ts';

/** One line of a drawing, in mm from the drawing's upper left corner. */
export interface DrawnContour {
  /** Position in reading order, from 0. */
  readonly id: number;
  readonly contour: Contour;
  /** The nearest named group or layer around it, or `null`. */
  readonly layer: string | null;
  /** Stroke colour as #rrggbb, or `null` for no stroke. */
  readonly strokeColour: string | null;
  /** How wide the stroke is drawn, mm; `null` where the file does not say. */
  readonly strokeWidthMm: number | null;
  /** Fill colour as #rrggbb, or `null` for no fill. */
  readonly fillColour: string | null;
  /** The dash pattern as lengths with spaces between, or `null` for an unbroken line. */
  readonly dash: string | null;
  /** The element or entity it was drawn by: lines of one shape share it. */
  readonly shape: number;
}

/** A picture inside a drawing, always art. */
export interface DrawnImage {
  /** `data:image/png;base64,…` or the same with jpeg. */
  readonly data: string;
  /** From the unit square (y downwards) to mm. */
  readonly toMm: Affine;
}

/** A drawing read from a file. */
export interface Drawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly contours: readonly DrawnContour[];
  readonly images: readonly DrawnImage[];
  /** What was seen in the file and not taken over, in words, one per kind. */
  readonly leftOut: readonly string[];
}

/** Kinds of file that are read. */
export const DRAWING_FORMATS = ['svg', 'dxf', 'hpgl'] as const;
export type DrawingFormat = (typeof DRAWING_FORMATS)[number];

/** Largest file taken, in characters. */
export const MAX_DRAWING_LENGTH = 50_000_000;
/** Most lines taken. */
export const MAX_CONTOURS = 100_000;
/** No sheet is so large: a line beyond it is a mistake of the file, mm. */
export const FURTHEST_MM = 1e6;

/** Told now and then while a file is read: share done, 0 to 1. */
export type ReadProgress = (share: number) => void;
