import sharp from 'sharp';
import { extendInk } from '#core/artwork/printed/extendInk.ts';
import type { PieceArt } from '#core/artwork/printed/pieceArt.ts';
import type { Pixels } from '#core/artwork/trace/pixels.ts';
import { AppError } from '#core/errors/appError.ts';
import { MM_PER_INCH } from '#core/units/length.ts';

/** As fine as a sticker printer lays ink. */
export const PRINT_DPI = 600;
/** Ink beyond a cut line is seen by nobody but a blade that runs astray. */
export const BLEED_DPI = 300;
/** A larger piece is drawn coarser: an A4 sheet at 600 dpi is within it. */
const MOST_PIXELS = 40_000_000;
const SECONDS = 60;
const POINTS_PER_INCH = 72;

/**
 * The art of a piece as a picture, drawn by the renderer that is shipped with the app (librsvg, in sharp).
 *
 * @param dpi finest resolution; less where the picture would pass 40 megapixels
 * @returns PNG with clear ground
 * @throws AppError `badDrawing` where the renderer refuses the file
 */
export async function renderArt(art: PieceArt, dpi: number): Promise<Buffer> {
  const { data } = await render(art, dpiWithin(art, dpi), (drawn) => drawn.png({ compressionLevel: 3 }));
  return data;
}

/**
 * The same with its ink going on beyond its edges.
 *
 * @param reachMm how far
 */
export async function renderBleed(art: PieceArt, reachMm: number): Promise<Buffer> {
  const { pixels, dpi } = await renderPixels(art, BLEED_DPI);
  const extended = extendInk(pixels, (reachMm / MM_PER_INCH) * dpi);
  const { width, height, data } = extended;
  return sharp(data, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toBuffer();
}

/** Pixels of the art of a piece, and how many there are to the inch. @throws AppError `badDrawing` */
export async function renderPixels(
  art: PieceArt,
  dpi: number,
): Promise<{ readonly pixels: Pixels; readonly dpi: number }> {
  const own = dpiWithin(art, dpi);
  const { data, info } = await render(art, own, (drawn) => drawn.raw());
  return { pixels: { width: info.width, height: info.height, data }, dpi: own };
}

async function render(
  { svg }: PieceArt,
  dpi: number,
  as: (drawn: sharp.Sharp) => sharp.Sharp,
): Promise<{ readonly data: Buffer; readonly info: sharp.OutputInfo }> {
  const density = densityFor(dpi);
  const drawn = sharp(Buffer.from(svg), { density, unlimited: true, limitInputPixels: MOST_PIXELS * 1.1 });
  try {
    return await as(drawn.timeout({ seconds: SECONDS }).ensureAlpha().toColourspace('srgb')).toBuffer({
      resolveWithObject: true,
    });
  } catch (error) {
    throw refused(error);
  }
}

/** What the library is told for a resolution: it takes it twice, for what a mm is and for how large a pixel is drawn. */
export function densityFor(dpi: number): number {
  return Math.sqrt(POINTS_PER_INCH * dpi);
}

function dpiWithin({ box }: PieceArt, dpi: number): number {
  const areaInch2 = ((box.maxX - box.minX) * (box.maxY - box.minY)) / MM_PER_INCH ** 2;
  return Math.max(1, Math.min(dpi, Math.sqrt(MOST_PIXELS / areaInch2)));
}

function refused(error: unknown): AppError {
  const reason = error instanceof Error ? error.message.split('\n')[0] : String(error);
  return new AppError('badDrawing', `the art cannot be drawn: ${reason}`);
}
