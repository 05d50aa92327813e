import { openArt } from '#core/artwork/printed/artSource.ts';
import { drawPieceArt } from '#core/artwork/printed/pieceArt.ts';
import { coverShown } from '#core/artwork/trace/coverShown.ts';
import { traceCoverage } from '#core/artwork/trace/traceCoverage.ts';
import { PLAIN_TRACE } from '#core/artwork/trace/tracePicture.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import type { GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { mapContour, type Affine } from '#core/geometry/affine.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import { PRINT_DPI, renderPixels } from '#web/endpoints/jobs/renderArt.ts';

/** An outline may lie this far from the edge of the printed picture, mm. */
const TOLERANCE_MM = 0.03;
/** Smaller specks are no stickers: the end of a shadow, a stray dot, mm². */
const SPECK_MM2 = PLAIN_TRACE.leastMm2;

/**
 * What the art of a drawing covers, traced from the picture that is printed: clips, masks, opacity, patterns and pictures
 * included.
 *
 * @param drawing with all mends
 * @returns path data in mm of the file; `null` where nothing shows
 * @throws AppError `badDrawing` where the renderer refuses the file
 */
export async function traceCover(
  source: string,
  drawing: Drawing,
  given: GivenRoles,
): Promise<string | null> {
  const [art] = drawPieceArt(openArt(source), drawing, given, splitPieces(drawing, given, true));
  if (!art) return null;
  const { pixels, dpi } = await renderPixels(art, PRINT_DPI);
  const pixelsPerMm = dpi / MM_PER_INCH;
  const { contours } = traceCoverage(coverShown(pixels), {
    pixelsPerMm,
    toleranceMm: TOLERANCE_MM,
    leastMm2: SPECK_MM2,
    keepsHoles: true,
  });
  const perMm = 1 / (drawing.scaledBy ?? 1);
  const { minX, minY } = art.box;
  const toFile: Affine = [perMm, 0, 0, perMm, minX * perMm, minY * perMm];
  const data = contours.map((contour) => writePathData(mapContour(toFile, contour))).join('');
  return data === '' ? null : data;
}
