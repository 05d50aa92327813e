import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { AppError } from '#core/errors/appError.ts';
import { boundContour, boundPoints, joinBoxes, overlap } from '#core/geometry/box.ts';
import type { Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isCovered, isInside } from '#core/geometry/polygon.ts';
import { bleedBands } from '#core/sheet/bleedBands.ts';
import { edgesOf } from '#core/sheet/measureEdge.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import type { Job } from '#core/job/job.ts';
import { patchOf, type TestPatch } from '#core/job/testPatch.ts';
import type { LaidJob } from '#core/job/layOutJob.ts';
import { placeCheckLine, type CheckLine } from '#core/sheet/checkLine.ts';
import type { PlacedLine, PlacedSheet } from '#core/sheet/nest/placePieces.ts';
import { drawPictureBleed, drawPictures, placeFileArt } from '#web/endpoints/jobs/printPictures.ts';
import { drawVectors } from '#web/endpoints/jobs/printVectors.ts';
import { PT_PER_MM, startPdf, type PdfPage } from '#web/endpoints/jobs/pdfPage.ts';

/** Looking needs no cutting tolerance, mm. */
const LOOK_MM = 0.2;

/**
 * One sheet to print at real size: art with its bleed, then the marks, from the same layout as the machine file.
 *
 * @param words a small line at the lower edge: which side, size of page, media
 * @throws AppError `notFound` for a sheet the job does not have
 */
export async function drawPrintSheet(
  job: Job,
  laid: LaidJob,
  sheetIndex: number,
  words: string,
): Promise<Buffer> {
  const placed = laid.sheets[sheetIndex];
  if (!placed) throw new AppError('notFound', `this job has no sheet ${sheetIndex + 1}`);
  const { widthMm, heightMm } = job.sheet;
  const { page, finish } = startPdf(`${job.name}, to print`, [widthMm * PT_PER_MM, heightMm * PT_PER_MM]);
  page.save().scale(PT_PER_MM);
  await drawArt(page, job, laid, sheetIndex);
  const patch = patchOf(laid, job);
  if (patch) drawPatch(page, patch);
  for (const { outline } of laid.marks)
    page.polygon(...outline.map(({ x, y }): [number, number] => [x, y])).fill('#000000');
  const line = placeCheckLine(job.sheet, laid.marks);
  if (line) drawCheckLine(page, line);
  page.restore();
  const measured = line ? `The line above is ${line.lengthMm} mm: measure it. ` : '';
  drawWords(page, measured + words, widthMm, heightMm);
  return finish();
}

/**
 * Art of plain colours is drawn as lines, sharp at any resolution; where lines and colours do not tell how it looks, the
 * file itself is drawn.
 */
async function drawArt(page: PdfPage, job: Job, laid: LaidJob, sheetIndex: number): Promise<void> {
  const placed = laid.sheets[sheetIndex] as PlacedSheet;
  const { bleedMm } = job.print;
  const art = placed.lines.filter((line) => roleOf(line, job) === 'art');
  const hasPictures = placed.images.length > 0;
  const isFile = laid.drawing.isMoreThanLines === true;
  const fileArt = isFile || (hasPictures && bleedMm > 0) ? placeFileArt(job, laid, sheetIndex) : [];
  if (bleedMm > 0 && fileArt.length > 0) await drawPictureBleed(page, job, placed, fileArt);
  else if (bleedMm > 0) drawBleed(page, job, placed, art);
  if (isFile) return drawPictures(page, fileArt);
  for (const image of placed.images) {
    page.save().transform(...image.toMm);
    page.image(Buffer.from(image.data.slice(image.data.indexOf(',') + 1), 'base64'), 0, 0, {
      width: 1,
      height: 1,
    });
    page.restore();
  }
  drawVectors(page, art, 0);
}

/** Ink for test pieces to be cut on. */
function drawPatch(page: PdfPage, { box: { minX, minY, maxX, maxY }, colour }: TestPatch): void {
  page.rect(minX, minY, maxX - minX, maxY - minY).fill(colour);
}

/** Whether art lies in a piece: an open or thin line by one of its points. */
function isInked(isClosed: boolean, points: readonly PointMm[], piece: Rings): boolean {
  if (points.some((point) => isCovered(point, piece))) return true;
  return isClosed && piece.flat().some((point) => isInside(point, points));
}

/** Beyond the outlines, and into their counters, the art goes on in the colours it has at the edge. */
function drawBleed(page: PdfPage, job: Job, placed: PlacedSheet, art: readonly PlacedLine[]): void {
  const outlines = edgesOf(placed.lines, job).map(({ contour }) => ringOf(contour));
  const inked = art.map((line) => {
    const points = flattenContour(line.contour, LOOK_MM);
    return { line, points, box: boundContour(line.contour) };
  });
  for (const { piece, band } of bleedBands(outlines, job.print.bleedMm)) {
    const around = joinBoxes(piece.map(boundPoints));
    // Only what lies in the piece goes on beyond it: a neighbour's art stays at home.
    const own = inked.filter(
      ({ line, points, box }) => overlap(box, around) && isInked(line.contour.isClosed, points, piece),
    );
    if (band.length === 0 || own.length === 0) continue;
    page.save();
    page.path(writeRingsData(band)).clip('even-odd');
    drawVectors(
      page,
      own.map(({ line }) => line),
      job.print.bleedMm,
    );
    page.restore();
  }
}

/** A line of known length with a tick at each end. */
function drawCheckLine(page: PdfPage, { fromX, toX, y }: CheckLine): void {
  const tick = 0.9;
  page
    .moveTo(fromX, y - tick)
    .lineTo(fromX, y + tick)
    .moveTo(fromX, y)
    .lineTo(toX, y)
    .moveTo(toX, y - tick)
    .lineTo(toX, y + tick)
    .lineWidth(0.15)
    .stroke('#8a949a');
}

function drawWords(page: PdfPage, words: string, widthMm: number, heightMm: number): void {
  page.font('text').fontSize(5.5).fillColor('#8a949a');
  page.text(words, 0, (heightMm - 3.4) * PT_PER_MM, {
    width: widthMm * PT_PER_MM,
    align: 'center',
    lineBreak: false,
  });
}
