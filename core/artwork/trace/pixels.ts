/** Pixels of a picture, four bytes each: red, green, blue, alpha; row by row from the upper left. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** A colour, 0 to 255 each. */
export interface Rgb {
  readonly r: number;
  readonly g: number;
  readonly b: number;
}

/**
 * How far each pixel belongs to the piece, 0 not at all to 255 wholly, row by row. An edge runs where it passes
 * {@link HALF}.
 */
export interface Coverage {
  readonly width: number;
  readonly height: number;
  readonly values: Uint8Array;
}

/** Half covered: where an edge runs. */
export const HALF = 127.5;
