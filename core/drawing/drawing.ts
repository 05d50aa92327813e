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
  /** Its colour is that of a gradient or a pattern, which no single one tells. */
  readonly isServed?: boolean;
  /** A colour laid down before all other art; it is art unless somebody says otherwise. */
  readonly isBehind?: boolean;
  /** How fill and stroke are laid down; absent where the kind of file does not say. */
  readonly paint?: ShapePaint;
}

/** How a shape is filled and stroked, beyond its colours. Source of the terms: W3C SVG 1.1, chapter 11. */
export interface ShapePaint {
  /** Filled by the even-odd rule instead of the nonzero one. */
  readonly isEvenOdd: boolean;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miterLimit: number;
  /** Lengths of dash and space by turns, mm; empty for an unbroken line. */
  readonly dashMm: readonly number[];
  readonly dashOffsetMm: number;
}

/** A picture inside a drawing, always art. */
export interface DrawnImage {
  /** `data:image/png;base64,…`, the same with jpeg, or where it is kept; where it is shown also svg+xml. */
  readonly data: string;
  /** From the unit square (y downwards) to mm. */
  readonly toMm: Affine;
  /** It stands in its file as it is: not clipped, masked, faded or fitted into a frame of another shape. */
  readonly isPlain?: boolean;
  /** How many shapes of the file lie below it. */
  readonly overShapes?: number;
}

/** A drawing read from a file. */
export interface Drawing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly contours: readonly DrawnContour[];
  readonly images: readonly DrawnImage[];
  /** What was seen in the file and not taken over, in words, one per kind. */
  readonly leftOut: readonly string[];
  /**
   * Gradients, opacity, clips, masks, filters, markers or words: lines and colours alone do not tell how it looks, so
   * that the file itself is drawn where it is printed.
   */
  readonly isMoreThanLines?: boolean;
  /** How many times larger than its file it is. */
  readonly scaledBy?: number;
  /** Where its file names no unit: how many times larger it most likely is than it was read. */
  readonly likelyScale?: number;
  /** Line ids that reading gave out: more than there are lines where some paint nothing. */
  readonly idsGiven?: number;
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
