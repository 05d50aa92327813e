import { itemAt } from '#core/collections/itemAt.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import { writePathData, writeRingsData } from '#core/drawing/writePathData.ts';
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
import { PT_PER_MM, startPdf, type PdfPage } from '#web/endpoints/jobs/pdfPage.ts';

/** A stroke whose width the file does not say, mm. */
const HAIR_MM = 0.25;
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
  const art = placed.lines.filter((line) => roleOf(line, job) === 'art');
  if (job.print.bleedMm > 0) drawBleed(page, job, placed, art);
  for (const image of placed.images) {
    page.save().transform(...image.toMm);
    page.image(Buffer.from(image.data.slice(image.data.indexOf(',') + 1), 'base64'), 0, 0, {
      width: 1,
      height: 1,
    });
    page.restore();
  }
  drawArt(page, art, 0);
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

/** Art by shape, so that holes stay holes. @param growMm how far every shape is widened, for bleed */
function drawArt(page: PdfPage, art: readonly PlacedLine[], growMm: number): void {
  for (const lines of groupBy(art, ({ copy, shape }) => `${copy}/${shape}`).values()) {
    const { fillColour, strokeColour, strokeWidthMm } = itemAt(lines, 0);
    const data = lines.map(({ contour }) => writePathData(contour)).join('');
    if (fillColour) page.path(data).fill(fillColour, 'even-odd');
    const colour = strokeColour ?? (growMm > 0 ? fillColour : null);
    if (!colour) continue;
    const ownMm = strokeColour ? (strokeWidthMm ?? HAIR_MM) : 0;
    page
      .path(data)
      .lineJoin('round')
      .lineCap('round')
      .lineWidth(ownMm + 2 * growMm)
      .stroke(colour);
  }
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
    drawArt(
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
