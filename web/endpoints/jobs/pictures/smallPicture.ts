import { LRUCache } from 'lru-cache';
import sharp from 'sharp';
import { itemAt } from '#core/collections/itemAt.ts';
import { openArt } from '#core/artwork/printed/artSource.ts';
import { drawPieceArt, unitTo } from '#core/artwork/printed/pieceArt.ts';
import type { DrawnContour, DrawnImage } from '#core/drawing/drawing.ts';
import { isCutRole, roleOf } from '#core/drawing/roles/lineRoles.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { growBox, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import type { Job } from '#core/job/job.ts';
import { drawingIn } from '#core/job/drawingsOf.ts';
import { inlinePictures, type Pictures } from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import type { JobPart } from '#core/job/joinDrawings.ts';
import type { LaidJob } from '#core/job/layOutJob.ts';
import { affineOf } from '#core/sheet/layout.ts';
import type { Piece } from '#core/sheet/nest/splitPieces.ts';

/** Longest side, pixels: twice as many as are shown. */
const SIDE_PX = 192;
/** A picture within, longest side. */
const INNER_PX = 128;
const CUT = 'fill="none" stroke="#1f766f"';

/** Pictures made small, by their data, as long as that is not too much to hold, in characters. */
const small = new LRUCache<string, string>({
  maxSize: 100_000_000,
  sizeCalculation: (_, key) => key.length,
});

/** A small picture of the first sheet of a job. @returns PNG */
export async function drawSheetPicture(job: Job, laid: LaidJob, pictures: Pictures): Promise<Buffer> {
  const sourceOf = (number: number) => drawingIn(job, number).source;
  const groups = await Promise.all(laid.parts.map((part) => drawPart(part, sourceOf, pictures)));
  return drawScene(onSheet(job, laid, groups.flat()), groups.flat());
}

/** A small picture of one drawing by itself. @returns PNG */
export async function drawDrawingPicture(part: JobPart, source: string, pictures: Pictures): Promise<Buffer> {
  const groups = await drawPart(part, () => source, pictures);
  return drawScene(alone(groups), groups);
}

function drawScene({ box, body }: Scene, groups: readonly DrawnPiece[]): Promise<Buffer> {
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const scale = SIDE_PX / Math.max(width, height);
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${Math.max(1, Math.round(width * scale))}" ` +
    `height="${Math.max(1, Math.round(height * scale))}" viewBox="${box.minX} ${box.minY} ${width} ${height}">` +
    `<defs>${groups.map(({ id, content }) => `<g id="${id}">${content(1.2 / scale)}</g>`).join('')}</defs>${body}</svg>`;
  return sharp(Buffer.from(svg), { unlimited: true }).png().toBuffer();
}

/** A piece, drawn where it lies in its drawing. */
interface DrawnPiece {
  readonly id: string;
  /** What it is called in the layout. */
  readonly index: number;
  readonly piece: Piece;
  readonly content: (lineMm: number) => string;
}

async function drawPart(
  part: JobPart,
  sourceOf: (number: number) => string,
  kept: Pictures,
): Promise<readonly DrawnPiece[]> {
  const { drawing, given, pieces, first, number } = part;
  const isFile = drawing.isMoreThanLines === true && number !== null;
  const arts = isFile
    ? drawPieceArt(openArt(inlinePictures(sourceOf(number), kept)), drawing, given, pieces)
    : [];
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  return Promise.all(
    pieces.map(async (piece, own): Promise<DrawnPiece> => {
      const lines = piece.lineIds.map((id) => byId.get(id) as DrawnContour);
      const art = lines.filter((line) => roleOf(line, given) === 'art' && (!isFile || line.isBehind));
      const cut = lines.filter((line) => isCutRole(roleOf(line, given)));
      const drawn = arts[own];
      const images = drawn
        ? [{ data: writeAddress(drawn.svg), toMm: unitTo(drawn.box) }]
        : piece.pictures.map((picture) => itemAt(drawing.images, picture));
      const pictures = await Promise.all(images.map((image) => writeImage(image, kept)));
      const outlines = cut.map(({ contour }) => writePathData(contour)).join('');
      const painted = art.map(paint).join('');
      return {
        id: `p${first.piece + own}`,
        index: first.piece + own,
        piece,
        content: (lineMm) =>
          `${isFile ? painted : ''}${pictures.join('')}${isFile ? '' : painted}<path d="${outlines}" ${CUT} stroke-width="${lineMm}"/>`,
      };
    }),
  );
}

function paint({ contour, fillColour, strokeColour, strokeWidthMm }: DrawnContour): string {
  return `<path d="${writePathData(contour)}" fill="${fillColour ?? 'none'}" fill-rule="evenodd" stroke="${strokeColour ?? 'none'}" stroke-width="${strokeWidthMm ?? 0.25}"/>`;
}

function writeAddress(svg: string): string {
  return `data:image/svg+xml;base64,${Buffer.from(svg).toString('base64')}`;
}

async function writeImage({ data, toMm }: DrawnImage, kept: Pictures): Promise<string> {
  return `<image href="${await reduce(data, kept.get(data))}" width="1" height="1" preserveAspectRatio="none" transform="matrix(${toMm.join(' ')})"/>`;
}

async function reduce(data: string, kept?: Uint8Array): Promise<string> {
  const known = small.get(data);
  if (known) return known;
  const bytes = kept ?? Buffer.from(data.slice(data.indexOf(',') + 1), 'base64');
  const reduced = await sharp(bytes, { unlimited: true })
    .resize({ width: INNER_PX, height: INNER_PX, fit: 'inside', withoutEnlargement: true })
    .png({ compressionLevel: 3 })
    .toBuffer();
  const address = `data:image/png;base64,${reduced.toString('base64')}`;
  small.set(data, address);
  return address;
}

interface Scene {
  readonly box: BoxMm;
  readonly body: string;
}

function alone(groups: readonly DrawnPiece[]): Scene {
  const boxes = groups.map(({ piece }) => piece.box);
  const box = boxes.length > 0 ? joinBoxes(boxes) : { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  const rim = Math.max(box.maxX - box.minX, box.maxY - box.minY) / 24;
  return { box: growBox(box, rim), body: groups.map(({ id }) => `<use href="#${id}"/>`).join('') };
}

function onSheet({ sheet, layout }: Job, laid: LaidJob, groups: readonly DrawnPiece[]): Scene {
  const { widthMm, heightMm } = sheet;
  const byIndex = new Map(groups.map((group) => [group.index, group]));
  const uses = layout.placements.flatMap((placement) => {
    const group = byIndex.get(placement.piece);
    if (placement.sheet !== 0 || !group) return [];
    return [
      `<use href="#${group.id}" transform="matrix(${affineOf(group.piece.box, placement).join(' ')})"/>`,
    ];
  });
  const marks = laid.marks.map(
    ({ outline }) => `<polygon points="${outline.map(({ x, y }) => `${x},${y}`).join(' ')}" fill="#1e2a32"/>`,
  );
  const paper = `<rect width="${widthMm}" height="${heightMm}" fill="#ffffff" stroke="#8a949a" stroke-width="${widthMm / 150}"/>`;
  const box = { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm };
  return { box, body: paper + marks.join('') + uses.join('') };
}
