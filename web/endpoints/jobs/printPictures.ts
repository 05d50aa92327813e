import { openArt } from '#core/artwork/printed/artSource.ts';
import { drawPieceArt, placeArt, type PieceArt, type PlacedArt } from '#core/artwork/printed/pieceArt.ts';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { boundContour, boundPoints, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import type { Job } from '#core/job/job.ts';
import type { LaidJob } from '#core/job/layOutJob.ts';
import { bleedBands } from '#core/sheet/bleedBands.ts';
import { edgesOf } from '#core/sheet/measureEdge.ts';
import type { PlacedSheet } from '#core/sheet/nest/placePieces.ts';
import { openPdfPicture, type PdfPage, type PdfPicture } from '#web/endpoints/jobs/pdfPage.ts';
import { PRINT_DPI, renderArt, renderBleed } from '#web/endpoints/jobs/renderArt.ts';

/** Boxes nearer to each other than this are of one outline, mm: clipping counts in thousandths. */
const SAME_MM = 0.01;

/** The art of a job's pieces on one of its sheets, to be drawn from the file. */
export function placeFileArt(
  job: Job,
  { drawing, pieces }: LaidJob,
  sheetIndex: number,
): readonly PlacedArt[] {
  const arts = drawPieceArt(openArt(job.source), drawing, job, pieces);
  return placeArt(arts, pieces, job.layout, sheetIndex);
}

/** Draws art at its places; each piece is rendered and held in the file once. */
export async function drawPictures(page: PdfPage, placed: readonly PlacedArt[]): Promise<void> {
  const pictures = await renderOnce(page, placed, (art) => renderArt(art, PRINT_DPI));
  for (const one of placed) drawPicture(page, one, pictures.get(one.art));
}

/** Beyond the outlines, and into their counters, the art goes on in the colours it has at its edge. */
export async function drawPictureBleed(
  page: PdfPage,
  job: Job,
  sheet: PlacedSheet,
  placed: readonly PlacedArt[],
): Promise<void> {
  const { bleedMm } = job.print;
  const edges = edgesOf(sheet.lines, job);
  const outlines = edges.map(({ copy, contour }) => ({ copy, box: boundContour(contour) }));
  const pictures = await renderOnce(page, placed, (art) => renderBleed(art, bleedMm));
  const rings = edges.map(({ contour }) => ringOf(contour));
  for (const { piece, band } of bleedBands(rings, bleedMm)) {
    const outer = joinBoxes(piece.map(boundPoints));
    const owner = outlines.find(({ box }) => isSame(box, outer))?.copy;
    const own = placed.filter(({ copy }) => copy === owner);
    if (band.length === 0 || own.length === 0) continue;
    page.save();
    page.path(writeRingsData(band)).clip('even-odd');
    for (const one of own) drawPicture(page, one, pictures.get(one.art));
    page.restore();
  }
}

async function renderOnce(
  page: PdfPage,
  placed: readonly PlacedArt[],
  render: (art: PieceArt) => Promise<Buffer>,
): Promise<ReadonlyMap<PieceArt, PdfPicture>> {
  const pictures = new Map<PieceArt, PdfPicture>();
  for (const art of new Set(placed.map((one) => one.art)))
    pictures.set(art, openPdfPicture(page, await render(art)));
  return pictures;
}

function drawPicture(page: PdfPage, { toMm }: PlacedArt, picture: PdfPicture | undefined): void {
  if (!picture) return;
  page.save().transform(...toMm);
  page.image(picture, 0, 0, { width: 1, height: 1 });
  page.restore();
}

function isSame(a: BoxMm, b: BoxMm): boolean {
  return (['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(a[side] - b[side]) <= SAME_MM);
}
