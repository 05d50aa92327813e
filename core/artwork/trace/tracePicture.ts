import { coverByAlpha, coverByGround } from '#core/artwork/trace/coverPicture.ts';
import type { Coverage, Pixels, Rgb } from '#core/artwork/trace/pixels.ts';
import { traceCoverage, type Traced } from '#core/artwork/trace/traceCoverage.ts';

/** What of a picture is the piece, and how its outline is drawn. */
export interface PictureTrace {
  /** What is clear is not the piece; or what has the colour of the ground is not. */
  readonly by: 'clear' | 'ground';
  readonly ground: Rgb;
  /** What differs from the ground by less is ground, 0 to 255. */
  readonly tolerance: number;
  readonly keepsHoles: boolean;
  /** Pieces and holes smaller than this are left out, mm². */
  readonly leastMm2: number;
  /** The outline may lie this far from the edge of the picture, mm. */
  readonly toleranceMm: number;
}

/** White is the usual ground; specks of a square mm and less are dust. Common practice, no source. */
export const PLAIN_TRACE: PictureTrace = {
  by: 'ground',
  ground: { r: 255, g: 255, b: 255 },
  tolerance: 24,
  keepsHoles: false,
  leastMm2: 1,
  toleranceMm: 0.05,
};

/**
 * How far each pixel of a picture belongs to the piece.
 *
 * @example coverPicture(blackPixel, PLAIN_TRACE).values[0] // 255
 */
export function coverPicture(
  pixels: Pixels,
  { by, ground, tolerance }: Pick<PictureTrace, 'by' | 'ground' | 'tolerance'>,
): Coverage {
  return by === 'clear' ? coverByAlpha(pixels) : coverByGround(pixels, ground, tolerance);
}

/**
 * The outlines of the pieces in a picture.
 *
 * @param coverage of its pixels, see {@link coverPicture}
 * @param widthMm how wide the picture lies on paper
 * @example tracePicture(coverPicture(whitePixel, PLAIN_TRACE), PLAIN_TRACE, 10).contours // []
 */
export function tracePicture(coverage: Coverage, trace: PictureTrace, widthMm: number): Traced {
  const { keepsHoles, leastMm2, toleranceMm } = trace;
  const pixelsPerMm = coverage.width / widthMm;
  return traceCoverage(coverage, { pixelsPerMm, toleranceMm, leastMm2, keepsHoles });
}
