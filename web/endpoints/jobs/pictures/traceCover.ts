import { openArt } from '#core/artwork/printed/artSource.ts';
import { drawPieceArt } from '#core/artwork/printed/pieceArt.ts';
import { coverShown } from '#core/artwork/trace/coverShown.ts';
import { traceCoverage } from '#core/artwork/trace/traceCoverage.ts';
import { PLAIN_TRACE } from '#core/artwork/trace/tracePicture.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import { keptPictureSize, SMALL_PX } from '#core/drawing/keptPicture.ts';
import type { GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { mapContour, scaling, type Affine } from '#core/geometry/affine.ts';
import { fillRings, type Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { JobPart } from '#core/job/joinDrawings.ts';
import { isTraced } from '#core/job/startJob.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import { PRINT_DPI, renderPixels } from '#web/endpoints/jobs/pictures/renderArt.ts';

/** An outline may lie this far from the edge of the printed picture, mm. */
const TOLERANCE_MM = 0.03;
/** Smaller specks are no stickers: the end of a shadow, a stray dot, mm². */
const SPECK_MM2 = PLAIN_TRACE.leastMm2;

/**
 * What the art of a drawing covers, traced from the picture that is printed: clips, masks, opacity, patterns and pictures
 * included.
 *
 * @param drawing with all mends
 * @param finestDpi how fine it is looked at
 * @returns path data in mm of the file; `null` where nothing shows
 * @throws AppError `badDrawing` where the renderer refuses the file
 */
export async function traceCover(
  source: string,
  drawing: Drawing,
  given: GivenRoles,
  finestDpi = PRINT_DPI,
): Promise<string | null> {
  const [art] = drawPieceArt(openArt(source), drawing, given, splitPieces(drawing, given, true));
  if (!art) return null;
  const { pixels, dpi } = await renderPixels(art, finestDpi);
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

/** Fine enough to tell how far ink is from a line, to a tenth of a millimetre. */
const LOOK_DPI = 150;

/** Whether a kept picture lies so large that its small copy has too few pixels for a look. */
export function isAnyTooCoarse({ images }: Pick<Drawing, 'images'>): boolean {
  return images.some(({ data, toMm: [a, b, c, d] }) => {
    const size = keptPictureSize(data);
    if (!size) return false;
    // One that is small itself has no more to show.
    if (Math.max(size.widthPx, size.heightPx) <= SMALL_PX) return false;
    const longestMm = Math.max(Math.hypot(a, b), Math.hypot(c, d));
    return (SMALL_PX * MM_PER_INCH) / longestMm < LOOK_DPI;
  });
}

/**
 * What a drawing shows of itself where its lines do not tell, mm of the drawing.
 *
 * @param part the drawing with all mends
 * @param source its file, with its pictures in it
 * @returns `null` where its lines tell
 */
export async function showDrawing(
  { drawing, given }: Pick<JobPart, 'drawing' | 'given'>,
  source: string,
): Promise<Rings | null> {
  if (!isTraced(drawing)) return null;
  const data = await traceCover(source, drawing, given, LOOK_DPI);
  const contours = data === null ? [] : readSvgPath(data, scaling(drawing.scaledBy ?? 1));
  return fillRings(
    contours.map((contour) => flattenContour(contour)),
    true,
  );
}
