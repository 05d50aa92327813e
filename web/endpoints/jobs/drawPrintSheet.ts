import { itemAt } from '#core/collections/itemAt.ts';
import type { DrawnImage } from '#core/drawing/drawing.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { AppError } from '#core/errors/appError.ts';
import { boundContour, boundPoints, joinBoxes, overlap } from '#core/geometry/box.ts';
import type { Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isCovered, isInside } from '#core/geometry/polygon.ts';
import type { UnitSystem } from '#core/units/length.ts';
import type { Job } from '#core/job/job.ts';
import { patchOf, type TestPatch } from '#core/job/testPatch.ts';
import { partOf, type JobPart } from '#core/job/joinDrawings.ts';
import type { LaidJob } from '#core/job/layOutJob.ts';
import { nameCheckLength, placeCheckLine, type CheckLine } from '#core/sheet/checkLine.ts';
import { pageOf } from '#core/sheet/sheetSize.ts';
import type { PlacedLine, PlacedSheet } from '#core/sheet/nest/placePieces.ts';
import {
  drawImages,
  drawPictureBleed,
  drawPictures,
  imagesIn,
  openArts,
  openBleeds,
  openImages,
  listBands,
  placeFileArt,
  type FileArt,
  type OwnedBand,
} from '#web/endpoints/jobs/pictures/printPictures.ts';
import { onScreen, type ExactPictures, type Pictures } from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { drawVectors } from '#web/endpoints/jobs/printVectors.ts';
import { PT_PER_MM, startPdf, type PdfPage } from '#web/endpoints/jobs/pdfPage.ts';

/** Looking needs no cutting tolerance, mm. */
const LOOK_MM = 0.2;

/** How a sheet is printed. */
export interface PrintOptions {
  readonly isBare?: boolean | undefined;
  readonly system?: UnitSystem | undefined;
  readonly pictures?: ExactPictures;
}

/**
 * One sheet to print at real size: art with its bleed, then the marks, from the same layout as the machine file.
 *
 * @param words a small line at the lower edge: which side, size of page, media
 * @param options.isBare marks alone, for those who print their art from elsewhere
 * @param options.system the units of the words
 * @param options.pictures what is kept apart from the drawings
 * @throws AppError `notFound` for a sheet the job does not have
 */
export async function drawPrintSheet(
  job: Job,
  laid: LaidJob,
  sheetIndex: number,
  words: string,
  { isBare = false, system = 'metric', pictures = new Map() }: PrintOptions = {},
): Promise<Buffer> {
  const placed = laid.sheets[sheetIndex];
  if (!placed) throw new AppError('notFound', `this job has no sheet ${sheetIndex + 1}`);
  const { widthMm } = job.sheet;
  const { heightMm, downMm } = pageOf(job.sheet);
  const { page, finish } = startPdf(`${job.name}, to print`, [widthMm * PT_PER_MM, heightMm * PT_PER_MM]);
  page.save().scale(PT_PER_MM).translate(0, downMm);
  if (!isBare) await drawArt(page, job, laid, sheetIndex, pictures);
  const patch = isBare ? null : patchOf(laid, laid.given);
  if (patch) drawPatch(page, patch);
  for (const { outline } of laid.marks)
    page.polygon(...outline.map(({ x, y }): [number, number] => [x, y])).fill('#000000');
  const line = placeCheckLine(job.sheet, laid.marks);
  if (line) drawCheckLine(page, line);
  page.restore();
  const measured = line ? `The line above is ${nameCheckLength(line.lengthMm, system)}: measure it. ` : '';
  drawWords(page, measured + words, widthMm, heightMm);
  return finish();
}

/** What of one drawing lies on a sheet. */
interface PlacedPart {
  readonly art: readonly PlacedLine[];
  readonly images: readonly DrawnImage[];
  /** Its art from its file, where lines and colours do not tell how it looks, or its pictures bleed. */
  readonly fileArt: readonly FileArt[];
  readonly isFile: boolean;
}

/**
 * Art of plain colours is drawn as lines, sharp at any resolution; where lines and colours do not tell how it looks, the
 * file itself is drawn. Colours that lie behind come first.
 */
async function drawArt(
  page: PdfPage,
  job: Job,
  laid: LaidJob,
  sheetIndex: number,
  pictures: ExactPictures,
): Promise<void> {
  const { lines } = laid.sheets[sheetIndex] as PlacedSheet;
  const { bleedMm } = job.print;
  const screen = await onScreen(pictures);
  const placed = laid.parts.map((part) => placePart(job, laid, part, sheetIndex, screen));
  const behind = lines.filter(({ isBehind }) => isBehind);
  const bands = bleedMm > 0 ? listBands(lines, laid.given, bleedMm) : [];
  // All at once: a library's own threads unpack and pack them.
  const ready = await Promise.all(placed.map((part) => openPart(page, part, bleedMm, pictures)));
  drawBleed(page, bands, behind, bleedMm);
  for (const { fileArt, art, bleeds } of ready) {
    if (fileArt.length > 0) drawPictureBleed(page, bands, fileArt, bleeds);
    else drawBleed(page, bands, art, bleedMm);
  }
  drawVectors(page, behind, 0);
  for (const { fileArt, art, images, isFile, drawn, exact } of ready) {
    if (isFile) {
      drawPictures(page, fileArt, drawn, exact);
    } else {
      drawImages(page, images, exact);
      drawVectors(page, art, 0);
    }
  }
}

/** A part with its pictures, ready to be drawn. */
async function openPart(page: PdfPage, part: PlacedPart, bleedMm: number, pictures: ExactPictures) {
  const { fileArt, images, isFile } = part;
  const [bleeds, drawn, exact] = await Promise.all([
    openBleeds(page, bleedMm > 0 ? fileArt : [], bleedMm),
    openArts(page, isFile ? fileArt : []),
    openImages(page, isFile ? imagesIn(fileArt) : images, pictures),
  ]);
  return { ...part, bleeds, drawn, exact };
}

function placePart(
  job: Job,
  laid: LaidJob,
  part: JobPart,
  sheetIndex: number,
  pictures: Pictures,
): PlacedPart {
  const { lines, images } = laid.sheets[sheetIndex] as PlacedSheet;
  const isOwn = (copy: number) => partOf(laid.parts, itemAt(job.layout.placements, copy).piece) === part;
  const art = lines.filter(
    (line) => !line.isBehind && roleOf(line, laid.given) === 'art' && isOwn(line.copy),
  );
  const own = images.filter(({ copy }) => isOwn(copy));
  const isFile = part.drawing.isMoreThanLines === true;
  const isDrawn = isFile || (own.length > 0 && job.print.bleedMm > 0);
  return {
    art,
    images: own,
    fileArt: isDrawn ? placeFileArt(job, part, sheetIndex, pictures) : [],
    isFile,
  };
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
function drawBleed(
  page: PdfPage,
  bands: readonly OwnedBand[],
  art: readonly PlacedLine[],
  bleedMm: number,
): void {
  if (bands.length === 0 || art.length === 0) return;
  const inked = art.map((line) => {
    const points = flattenContour(line.contour, LOOK_MM);
    return { line, points, box: boundContour(line.contour) };
  });
  for (const { piece, band, copy } of bands) {
    const around = joinBoxes(piece.map(boundPoints));
    // Only what lies in the piece goes on beyond it: a neighbour's art stays at home.
    const own = inked.filter(
      ({ line, points, box }) =>
        (copy === undefined || line.copy === copy) &&
        overlap(box, around) &&
        isInked(line.contour.isClosed, points, piece),
    );
    if (band.length === 0 || own.length === 0) continue;
    page.save();
    page.path(writeRingsData(band)).clip('even-odd');
    drawVectors(
      page,
      own.map(({ line }) => line),
      bleedMm,
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
