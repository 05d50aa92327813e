import { itemAt } from '#core/collections/itemAt.ts';
import { guessRoles, type RoleFacts, type RoleGuess } from '#core/drawing/roles/guessRoles.ts';
import {
  groupLines,
  roleOf,
  type GivenRoles,
  type LineGroup,
  type Role,
} from '#core/drawing/roles/lineRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import type { ArtSource } from '#core/artwork/printed/artSource.ts';
import { drawPieceArt, unitTo, type PieceArt } from '#core/artwork/printed/pieceArt.ts';
import type { DrawnContour, DrawnImage, ShapePaint } from '#core/drawing/drawing.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import { boundContour, type BoxMm } from '#core/geometry/box.ts';
import { areaOfRings } from '#core/geometry/clip.ts';
import { dotsAlong } from '#core/geometry/dotsAlong.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { coverParts, partOf, type JobPart } from '#core/job/joinDrawings.ts';
import { listTaken, type JobDesign, type LaidJob } from '#core/job/layOutJob.ts';
import { checkMarks } from '#core/sheet/marks/checkMarks.ts';
import type { ArrangedPiece } from '#core/sheet/arrangePieces.ts';
import { overPrintArea } from '#core/sheet/marks/printArea.ts';
import { findRemnant } from '#core/sheet/findRemnant.ts';
import { measureEdge, type DrawnEdge } from '#core/sheet/measureEdge.ts';
import { affineOf, placedBoxes } from '#core/sheet/layout.ts';
import type { Mark } from '#core/sheet/marks/marks.ts';
import { findTouching } from '#core/sheet/hands/findTouching.ts';
import { placePieces, type PlacedLine, type PlacedSheet } from '#core/sheet/nest/placePieces.ts';
import { turnLayout } from '#core/sheet/turnLayout.ts';

/** A line ready to be shown. */
export interface ShownLine {
  readonly id: number;
  /** The line of the drawing it is a copy of. */
  readonly sourceId: number;
  readonly role: Role | null;
  readonly fill: string | null;
  readonly stroke: string | null;
  readonly strokeWidthMm: number | null;
  readonly paint?: ShapePaint;
  /** Lines of one shape share it: together they are filled, holes and all. */
  readonly shapeKey: string;
  readonly data: string;
  readonly box: BoxMm;
  /** Art that is shown by the picture of its file. */
  readonly isInPicture?: boolean;
  /** A colour laid down before all other art. */
  readonly isBehind?: boolean;
  /** Marks along a kissed line. */
  readonly dots: readonly PointMm[];
}

/** A group of lines with the guess of its role. */
export interface ShownGroup extends Omit<LineGroup, 'contourIds'> {
  readonly count: number;
  readonly guess: RoleGuess;
}

/** A drawing as it was read and mended, before it is laid out. */
export interface ShownDrawing {
  /** Its number in the job. */
  readonly number: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly ShownLine[];
  readonly images: readonly DrawnImage[];
  /** All art drawn from the file; `null` where its lines and pictures tell how it looks. */
  readonly art: readonly DrawnImage[] | null;
  readonly groups: readonly ShownGroup[];
  readonly leftOut: readonly string[];
  /** How many pixels wide each picture is, where somebody looked; `null` where its data does not tell. */
  readonly widthsPx?: readonly (number | null)[];
}

/** One sheet of a job. */
export interface ShownSheet {
  readonly lines: readonly ShownLine[];
  readonly images: readonly DrawnImage[];
  /** Pictures and art drawn from files; `null` where no file is drawn. */
  readonly art: readonly DrawnImage[] | null;
  readonly over: PlacedSheet['over'];
  readonly isInside: boolean;
  /** By how much cut lines reach over what can be printed and then cut, mm. */
  readonly overPrintAreaMm: number;
}

/** A piece with what it covers. */
export interface ShownPiece extends ArrangedPiece {
  readonly areaMm2: number;
}

/** A job on its sheets. */
export interface ShownLayout {
  /** The drawing that is looked at. */
  readonly drawing: ShownDrawing;
  readonly sheets: readonly ShownSheet[];
  readonly marks: readonly Mark[];
  readonly printArea: BoxMm | null;
  readonly testCorner: BoxMm | null;
  readonly pieces: readonly ShownPiece[];
  /** The largest free rectangle of the last sheet, or `null` when nothing useful is left. */
  readonly remnant: BoxMm | null;
  /** What stands against the sensor finding the marks, in words. */
  readonly markTroubles: readonly string[];
  /** Turned end for end, less stands against it. */
  readonly readsBetterTurned: boolean;
  /** Placements whose cuts would meet, by their places in the layout. */
  readonly touching: readonly number[];
  /** How art meets the outlines, or `null` without art in any. */
  readonly edge: DrawnEdge | null;
}

const DOT_EVERY_MM = 11;
/** Coarse enough to be quick: marks need no cutting tolerance. */
const MARK_TOLERANCE_MM = 0.2;
/** So many lines are shown without marks along them. */
const MOST_MARKED = 2500;

/** What of a job a screen looks at. */
export interface Shown {
  /** The number of the drawing that is shown by itself. */
  readonly drawing: number;
  /** The file of a drawing, by its number, where more than its lines is shown. */
  readonly artOf: (drawing: number) => ArtSource | null;
}

const PLAINLY: Shown = { drawing: 0, artOf: () => null };

/**
 * Everything a screen shows of a laid job, with the lines of every sheet as path data.
 *
 * @example describeLayout(job, laid, { canKiss: false, isRollFed: false, canCrease: false }, []).sheets.length // 1
 */
export function describeLayout(
  job: JobDesign,
  laid: LaidJob,
  facts: RoleFacts,
  rules: readonly RoleRule[],
  shown: Shown = PLAINLY,
): ShownLayout {
  const { drawing, given, pieces, parts, sheets, marks, printArea, testCorner } = laid;
  const last = sheets.length - 1;
  const markTroubles = listMarkTroubles(job, laid);
  const taken = placedBoxes(job.layout, pieces, last);
  const files = openFiles(laid, shown);
  const covered = coverParts(laid).map((piece) => ({ ...piece, areaMm2: areaOfRings(piece.silhouette) }));
  const looked = parts.find(({ number }) => number === shown.drawing) ?? itemAt(parts, 0);
  return {
    drawing: showDrawing(looked, facts, rules, files),
    sheets: sheets.map(({ lines, images, over, isInside, box }, index) => {
      const overPrintAreaMm = overPrintArea(box, printArea);
      const inFile = (piece: number) => files.has(partOf(parts, piece));
      const pictures = files.size === 0 ? null : showSheetArt(job, laid, files, index);
      return {
        lines: showLines(lines, given, ({ copy = 0 }) => inFile(itemAt(job.layout.placements, copy).piece)),
        images,
        art: pictures,
        over,
        isInside: isInside && overPrintAreaMm === 0,
        overPrintAreaMm,
      };
    }),
    marks,
    printArea,
    testCorner,
    pieces: covered,
    touching: job.layout.placements.length > MOST_BY_HAND ? [] : findTouching(covered, job.layout),
    markTroubles,
    readsBetterTurned: markTroubles.length > 0 && troublesTurned(job, laid).length < markTroubles.length,
    edge: measureEdge(drawing, given),
    remnant: findRemnant(job.sheet, [...taken, ...listTaken(laid, job.sheet)]),
  };
}

/** More are not looked at on the screen: before they are sent they are. */
const MOST_BY_HAND = 2000;

function showDrawing(
  part: JobPart,
  facts: RoleFacts,
  rules: readonly RoleRule[],
  files: ReadonlyMap<JobPart, FileArt>,
): ShownDrawing {
  const { drawing, given } = part;
  const guesses = guessRoles(drawing, facts, rules);
  const file = files.get(part);
  return {
    number: part.number ?? 0,
    widthMm: drawing.widthMm,
    heightMm: drawing.heightMm,
    lines: showLines(drawing.contours, given, () => file !== undefined),
    images: drawing.images,
    art: file ? file.whole() : null,
    groups: groupLines(drawing).map(({ contourIds, ...group }) => ({
      ...group,
      count: contourIds.length,
      guess: guesses[group.key] as RoleGuess,
    })),
    leftOut: drawing.leftOut,
  };
}

/** The art of a drawing, from its file. */
interface FileArt {
  /** Of each of its pieces, at its place in the drawing. */
  readonly pieces: readonly (PieceArt | null)[];
  readonly show: (one: PieceArt, toMm: Affine) => DrawnImage;
  /** All of it, as it was drawn. */
  readonly whole: () => readonly DrawnImage[];
}

function openFiles({ parts }: LaidJob, { artOf }: Shown): ReadonlyMap<JobPart, FileArt> {
  const opened = parts.flatMap((part): readonly [JobPart, FileArt][] => {
    const art = part.number === null ? null : artOf(part.number);
    return art ? [[part, openFile(art, part)]] : [];
  });
  return new Map(opened);
}

function openFile(art: ArtSource, { drawing, given, isWhole, pieces }: JobPart): FileArt {
  // A piece is written once, however often it lies on the sheets.
  const addresses = new Map<PieceArt, string>();
  const addressOf = (one: PieceArt): string => {
    const known = addresses.get(one) ?? `data:image/svg+xml,${encodeURIComponent(one.svg)}`;
    addresses.set(one, known);
    return known;
  };
  const show = (one: PieceArt, toMm: Affine): DrawnImage => ({ data: addressOf(one), toMm });
  const arts = drawPieceArt(art, drawing, given, pieces);
  const whole = () => {
    const all = isWhole ? arts : drawPieceArt(art, drawing, given, splitPieces(drawing, given, true));
    return all.flatMap((one) => (one ? [show(one, unitTo(one.box))] : []));
  };
  return { pieces: arts, show, whole };
}

/** The pictures of one sheet, placement by placement: from the file where it is drawn, else as they stand in it. */
function showSheetArt(
  { layout }: JobDesign,
  { parts }: LaidJob,
  files: ReadonlyMap<JobPart, FileArt>,
  sheetIndex: number,
): readonly DrawnImage[] {
  return layout.placements.flatMap((placement): readonly DrawnImage[] => {
    if (placement.sheet !== sheetIndex) return [];
    const part = partOf(parts, placement.piece);
    const own = placement.piece - part.first.piece;
    const piece = part.pieces[own];
    if (!piece) return [];
    const toMm = affineOf(piece.box, placement);
    const file = files.get(part);
    const art = file?.pieces[own];
    if (file) return art ? [file.show(art, composeAffine(toMm, unitTo(art.box)))] : [];
    return piece.pictures.map((picture) => {
      const image = itemAt(part.drawing.images, picture);
      return { ...image, toMm: composeAffine(toMm, image.toMm) };
    });
  });
}

function listMarkTroubles(
  job: JobDesign,
  { given, sheets, marks, printArea }: Pick<LaidJob, 'given' | 'sheets' | 'marks' | 'printArea'>,
): readonly string[] {
  return [...new Set(sheets.flatMap((placed) => checkMarks(placed, given, job.sheet, marks, printArea)))];
}

function troublesTurned(job: JobDesign, laid: LaidJob) {
  const { drawing, given, pieces, sheets, marks, printArea } = laid;
  const layout = turnLayout(job.layout, job.sheet);
  const turned = sheets.map((_, index) => placePieces(drawing, given, pieces, layout, job.sheet, index));
  return listMarkTroubles(job, { given, sheets: turned, marks, printArea });
}

type AnyLine = DrawnContour & Partial<Pick<PlacedLine, 'sourceId' | 'copy'>>;

function showLines(
  lines: readonly AnyLine[],
  given: GivenRoles,
  isInFile: (line: AnyLine) => boolean,
): readonly ShownLine[] {
  const isMarked = lines.length <= MOST_MARKED;
  return lines.map((line) => {
    const role = roleOf(line, given);
    const hasDots = role === 'kiss' && isMarked;
    return {
      id: line.id,
      sourceId: line.sourceId ?? line.id,
      role,
      fill: line.fillColour,
      stroke: line.strokeColour,
      strokeWidthMm: line.strokeWidthMm,
      ...(line.paint ? { paint: line.paint } : {}),
      shapeKey: `${line.copy ?? 0}/${line.shape}`,
      data: writePathData(line.contour),
      box: boundContour(line.contour),
      ...(line.isBehind ? { isBehind: true } : role === 'art' && isInFile(line) ? { isInPicture: true } : {}),
      dots: hasDots ? dotsAlong(flattenContour(line.contour, MARK_TOLERANCE_MM), DOT_EVERY_MM) : [],
    };
  });
}
