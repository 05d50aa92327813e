import { itemAt } from '#core/collections/itemAt.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import { applyEdits } from '#core/checks/applyEdits.ts';
import { firstFreeId } from '#core/checks/firstFreeId.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { roleOf, type GivenRoles, type Role } from '#core/drawing/roles/lineRoles.ts';
import { composeAffine, mapContour, type Affine } from '#core/geometry/affine.ts';
import { joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import type { Job, JobDrawing } from '#core/job/job.ts';
import { drawCarrier, type Carrier } from '#core/sheet/carrier/carrier.ts';
import type { ArrangedPiece } from '#core/sheet/arrangePieces.ts';
import { coverPieces } from '#core/sheet/nest/coverPieces.ts';
import type { Layout } from '#core/sheet/layout.ts';
import { splitPieces, type Piece } from '#core/sheet/nest/splitPieces.ts';

/** A file, of a job or to be one. */
export type Artwork = Pick<Job, 'format' | 'source'>;

/** Gives the drawing of a file; pass one that remembers. */
export type ReadArtwork = (artwork: Artwork) => Drawing;

/** What a job's drawings are taken from. */
type DrawnJob = Pick<Job, 'format' | 'source' | 'roles' | 'lineRoles' | 'edits' | 'moreDrawings'> & {
  readonly layout: Pick<Layout, 'isWhole' | 'byDrawing' | 'carrier'>;
};

/** One drawing of a job among the others. */
export interface JobPart {
  /** 0 for the first drawing, `null` for the carrier. */
  readonly number: number | null;
  /** With all mends; ids and mm are its own. */
  readonly drawing: Drawing;
  readonly given: GivenRoles;
  readonly isWhole: boolean;
  /** Its own pieces, counted from 0. */
  readonly pieces: readonly Piece[];
  /** What its first piece, line, shape and picture are called among all. */
  readonly first: {
    readonly piece: number;
    readonly line: number;
    readonly shape: number;
    readonly picture: number;
  };
  /** How far to the right it lies of where it was drawn, among all. */
  readonly shiftMm: number;
}

/** All drawings of a job as one, beside each other. */
export interface JoinedDrawings {
  readonly drawing: Drawing;
  readonly given: GivenRoles;
  readonly pieces: readonly Piece[];
  readonly parts: readonly JobPart[];
}

/** Between drawings, so that none is taken for a part of another: wider than any gap that is looked at. */
const APART_MM = 50;

const plainRead: ReadArtwork = ({ format, source }) => readDrawing(format, source);

/**
 * The drawings of a job, mended, with their pieces; its carrier comes last. A job of one drawing is that drawing as it
 * is, with its own ids.
 *
 * @throws AppError as readDrawing does
 * @example joinDrawings(job).parts.length // 1
 */
export function joinDrawings(job: DrawnJob, read: ReadArtwork = plainRead): JoinedDrawings {
  const { isWhole, byDrawing = {}, carrier } = job.layout;
  const opened = [{ ...job, number: 0 }, ...(job.moreDrawings ?? [])].map((one) =>
    openPart(one, byDrawing[one.number]?.isWhole ?? (one.number === 0 ? isWhole : true), read),
  );
  const all = carrier ? [...opened, openCarrier(carrier)] : opened;
  const parts = placeBeside(all);
  const [only] = parts;
  if (only && parts.length === 1) {
    return { drawing: only.drawing, given: only.given, pieces: only.pieces, parts };
  }
  return { ...joinParts(parts), parts };
}

type OpenedPart = Omit<JobPart, 'first' | 'shiftMm'>;
type PartSource = Pick<JobDrawing, 'number' | 'format' | 'source' | 'roles' | 'lineRoles' | 'edits'>;

function openPart(one: PartSource, isWhole: boolean, read: ReadArtwork): OpenedPart {
  const drawing = applyEdits(read(one), one.edits);
  const given = { roles: one.roles, lineRoles: one.lineRoles };
  return { number: one.number, drawing, given, isWhole, pieces: splitPieces(drawing, given, isWhole) };
}

function openCarrier(carrier: Carrier): OpenedPart {
  const contours = drawCarrier(carrier, 0);
  const { widthMm, heightMm } = carrier;
  const drawing: Drawing = { widthMm, heightMm, contours, images: [], leftOut: [] };
  const given: GivenRoles = {
    roles: {},
    lineRoles: Object.fromEntries(contours.map(({ id }) => [id, carrier.role])),
  };
  return { number: null, drawing, given, isWhole: true, pieces: splitPieces(drawing, given, true) };
}

function placeBeside(opened: readonly OpenedPart[]): readonly JobPart[] {
  const first = { piece: 0, line: 0, shape: 0, picture: 0 };
  let right = 0;
  return opened.map((one, index) => {
    const box = boxOf(one);
    const shiftMm = index === 0 || !box ? 0 : right - box.minX;
    if (box) right = box.maxX + shiftMm + APART_MM;
    const part = { ...one, first: { ...first }, shiftMm };
    first.piece += one.pieces.length;
    first.line += firstFreeId(one.drawing);
    first.shape += one.drawing.contours.reduce((most, { shape }) => Math.max(most, shape + 1), 0);
    first.picture += one.drawing.images.length;
    return part;
  });
}

function boxOf({ pieces }: OpenedPart): BoxMm | null {
  return pieces.length === 0 ? null : joinBoxes(pieces.map(({ box }) => box));
}

function joinParts(parts: readonly JobPart[]): Omit<JoinedDrawings, 'parts'> {
  const lineRoles: Record<string, Role> = {};
  const contours: DrawnContour[] = [];
  for (const { drawing, given, first, shiftMm } of parts) {
    const shift: Affine = [1, 0, 0, 1, shiftMm, 0];
    for (const line of drawing.contours) {
      const role = roleOf(line, given);
      const id = line.id + first.line;
      if (role) lineRoles[id] = role;
      const contour = shiftMm === 0 ? line.contour : mapContour(shift, line.contour);
      contours.push({ ...line, id, shape: line.shape + first.shape, contour });
    }
  }
  const images = parts.flatMap(({ drawing, shiftMm }) =>
    drawing.images.map((image) => ({ ...image, toMm: composeAffine([1, 0, 0, 1, shiftMm, 0], image.toMm) })),
  );
  const drawing: Drawing = {
    widthMm: Math.max(...parts.map((part) => part.shiftMm + part.drawing.widthMm)),
    heightMm: Math.max(...parts.map((part) => part.drawing.heightMm)),
    contours,
    images,
    leftOut: [...new Set(parts.flatMap((part) => part.drawing.leftOut))],
    isMoreThanLines: parts.some((part) => part.drawing.isMoreThanLines === true),
  };
  return { drawing, given: { roles: {}, lineRoles }, pieces: parts.flatMap(shiftPieces) };
}

function shiftPieces({ pieces, first, shiftMm }: JobPart): readonly Piece[] {
  return pieces.map(({ index, lineIds, box, pictures }) => ({
    index: index + first.piece,
    lineIds: lineIds.map((id) => id + first.line),
    box: shiftBox(box, shiftMm),
    pictures: pictures.map((picture) => picture + first.picture),
  }));
}

function shiftBox({ minX, minY, maxX, maxY }: BoxMm, byMm: number): BoxMm {
  return { minX: minX + byMm, minY, maxX: maxX + byMm, maxY };
}

/**
 * What each piece of a job covers, and the drawing it is of.
 *
 * @example coverParts(laid).length // 1
 */
export function coverParts({ drawing, given, pieces, parts }: JoinedDrawings): readonly ArrangedPiece[] {
  return coverPieces(drawing, given, pieces).map((piece) => ({
    ...piece,
    drawing: partOf(parts, piece.index).number,
  }));
}

/**
 * The part that a piece belongs to.
 *
 * @param piece its place among all pieces
 * @example partOf(laid.parts, 0).number // 0
 */
export function partOf(parts: readonly JobPart[], piece: number): JobPart {
  const found = parts.findLast(({ first, pieces }) => first.piece <= piece && pieces.length > 0);
  return found ?? itemAt(parts, 0);
}
