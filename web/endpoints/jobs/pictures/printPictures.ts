import type { ExactPicture } from '#store/repositories/jobs/pictures.ts';
import { openArt } from '#core/artwork/printed/artSource.ts';
import {
  drawPieceArt,
  drawPieceLayers,
  placeArt,
  unitTo,
  type PieceArt,
  type PlacedArt,
} from '#core/artwork/printed/pieceArt.ts';
import type { DrawnImage } from '#core/drawing/drawing.ts';
import type { GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import { composeAffine, invertAffine, type Affine } from '#core/geometry/affine.ts';
import { boundContour, boundPoints, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import { drawingIn } from '#core/job/drawingsOf.ts';
import type { Job } from '#core/job/job.ts';
import type { JobPart } from '#core/job/joinDrawings.ts';
import { bleedBands, type BleedBand } from '#core/sheet/bleedBands.ts';
import { edgesOf } from '#core/sheet/measureEdge.ts';
import type { PlacedLine } from '#core/sheet/nest/placePieces.ts';
import { openExactPicture } from '#web/endpoints/jobs/pictures/exactPdfPicture.ts';
import {
  inlinePictures,
  type ExactPictures,
  type Pictures,
} from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { openPdfPicture, type PdfPage, type PdfPicture } from '#web/endpoints/jobs/pdfPage.ts';
import { PRINT_DPI, renderArt, renderBleed } from '#web/endpoints/jobs/pictures/renderArt.ts';

/** Boxes nearer to each other than this are of one outline, mm: clipping counts in thousandths. */
const SAME_MM = 0.01;

/** Beyond an outline, and into its counters: the piece whose it is, and where its ink goes on. */
export interface OwnedBand extends BleedBand {
  /** Which placement of the layout it belongs to; `undefined` where outlines were joined. */
  readonly copy: number | undefined;
}

/** Where the ink of the pieces on a sheet goes on beyond their outlines. */
export function listBands(
  lines: readonly PlacedLine[],
  given: GivenRoles,
  bleedMm: number,
): readonly OwnedBand[] {
  const edges = edgesOf(lines, given);
  const outlines = edges.map(({ copy, contour }) => ({ copy, box: boundContour(contour) }));
  const rings = edges.map(({ contour }) => ringOf(contour));
  return bleedBands(rings, bleedMm).map((band) => {
    const outer = joinBoxes(band.piece.map(boundPoints));
    return { ...band, copy: outlines.find(({ box }) => isSame(box, outer))?.copy };
  });
}

/** The art of a drawing's pieces on one sheet of a job, to be drawn from its file. */
export function placeFileArt(
  job: Job,
  part: JobPart,
  sheetIndex: number,
  pictures: Pictures,
): readonly FileArt[] {
  const { drawing, given, pieces, first } = part;
  const art = openArt(inlinePictures(drawingIn(job, part.number ?? 0).source, pictures));
  // Art that only bleeds is drawn by its lines and pictures within its outlines.
  const layers = drawing.isMoreThanLines ? drawPieceLayers(art, drawing, given, pieces) : [];
  const placed = placeArt(
    drawPieceArt(art, drawing, given, pieces),
    pieces,
    job.layout,
    sheetIndex,
    first.piece,
  );
  return placed.map((one): FileArt => {
    const own = itemAt(job.layout.placements, one.copy).piece - first.piece;
    const toSheet = composeAffine(one.toMm, invertAffine(unitTo(one.art.box)));
    return {
      ...one,
      layers: (layers[own] ?? []).map((layer) => {
        if (layer.kind === 'painted') return { art: layer.art, toMm: one.toMm };
        const image = itemAt(drawing.images, layer.picture);
        return { image: { ...image, toMm: composeAffine(toSheet, image.toMm) } };
      }),
    };
  });
}

/** Art at its place, whole and in layers from below. */
export interface FileArt extends PlacedArt {
  readonly layers: readonly PlacedLayer[];
}
type PlacedLayer = { readonly art: PieceArt; readonly toMm: Affine } | { readonly image: DrawnImage };

/** Art drawn from files; each piece is rendered and held in the PDF once. */
export function openArts(page: PdfPage, placed: readonly FileArt[]): Promise<OpenedArts> {
  const painted = placed.flatMap(({ layers }) => layers.flatMap((one) => ('art' in one ? [one.art] : [])));
  return renderOnce(page, painted, (art) => renderArt(art, PRINT_DPI));
}

/** The pictures that stand in art as they are. */
export function imagesIn(placed: readonly FileArt[]): readonly DrawnImage[] {
  return placed.flatMap(({ layers }) => layers.flatMap((one) => ('image' in one ? [one.image] : [])));
}

/** The same, going on beyond its outlines in the colours it has at its edge. */
export function openBleeds(
  page: PdfPage,
  placed: readonly PlacedArt[],
  bleedMm: number,
): Promise<OpenedArts> {
  const arts = placed.map(({ art }) => art);
  return renderOnce(page, arts, (art) => renderBleed(art, bleedMm));
}

/** Pictures as they stand in their file, pixel for pixel; each is held in the PDF once. */
export async function openImages(
  page: PdfPage,
  images: readonly DrawnImage[],
  kept: ExactPictures,
): Promise<OpenedImages> {
  const names = [...new Set(images.map(({ data }) => data))];
  const opened = names.map(
    async (name) => [name, await openExactPicture(page, exactOf(name, kept))] as const,
  );
  return new Map(await Promise.all(opened));
}

function exactOf(name: string, kept: ExactPictures): ExactPicture {
  const within = () => Buffer.from(name.slice(name.indexOf(',') + 1), 'base64');
  return kept.get(name) ?? { data: within(), profile: null };
}

type OpenedArts = ReadonlyMap<PieceArt, PdfPicture>;
type OpenedImages = ReadonlyMap<string, PdfPicture>;

/** Draws art at its places, layer over layer. */
export function drawPictures(
  page: PdfPage,
  placed: readonly FileArt[],
  painted: OpenedArts,
  images: OpenedImages,
): void {
  for (const layer of placed.flatMap(({ layers }) => layers)) {
    if ('art' in layer) drawPicture(page, layer.toMm, painted.get(layer.art));
    else drawPicture(page, layer.image.toMm, images.get(layer.image.data));
  }
}

export function drawImages(page: PdfPage, images: readonly DrawnImage[], opened: OpenedImages): void {
  for (const { data, toMm } of images) drawPicture(page, toMm, opened.get(data));
}

/** Draws art beyond the outlines, and into their counters. */
export function drawPictureBleed(
  page: PdfPage,
  bands: readonly OwnedBand[],
  placed: readonly PlacedArt[],
  opened: OpenedArts,
): void {
  for (const { band, copy } of bands) {
    const own = placed.filter((one) => one.copy === copy);
    if (band.length === 0 || own.length === 0) continue;
    page.save();
    page.path(writeRingsData(band)).clip('even-odd');
    for (const one of own) drawPicture(page, one.toMm, opened.get(one.art));
    page.restore();
  }
}

async function renderOnce(
  page: PdfPage,
  arts: readonly PieceArt[],
  render: (art: PieceArt) => Promise<Buffer>,
): Promise<OpenedArts> {
  const rendered = await Promise.all(
    [...new Set(arts)].map(async (art) => [art, await render(art)] as const),
  );
  return new Map(rendered.map(([art, picture]) => [art, openPdfPicture(page, picture)]));
}

function drawPicture(page: PdfPage, toMm: Affine, picture: PdfPicture | undefined): void {
  if (!picture) return;
  page.save().transform(...toMm);
  page.image(picture, 0, 0, { width: 1, height: 1 });
  page.restore();
}

function isSame(a: BoxMm, b: BoxMm): boolean {
  return (['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(a[side] - b[side]) <= SAME_MM);
}
