import { guessRoles, type RoleFacts, type RoleGuess } from '#core/drawing/roles/guessRoles.ts';
import { groupLines, roleOf, type LineGroup, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import type { ArtSource } from '#core/artwork/printed/artSource.ts';
import { drawPieceArt, placeArt, unitTo, type PieceArt } from '#core/artwork/printed/pieceArt.ts';
import type { DrawnContour, DrawnImage, ShapePaint } from '#core/drawing/drawing.ts';
import type { Affine } from '#core/geometry/affine.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import { boundContour, type BoxMm } from '#core/geometry/box.ts';
import { areaOfRings } from '#core/geometry/clip.ts';
import { dotsAlong } from '#core/geometry/dotsAlong.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { listTaken, type JobDesign, type LaidJob } from '#core/job/layOutJob.ts';
import { checkMarks } from '#core/sheet/marks/checkMarks.ts';
import { coverPieces, type CoveredPiece } from '#core/sheet/nest/coverPieces.ts';
import { overPrintArea } from '#core/sheet/marks/printArea.ts';
import { findRemnant } from '#core/sheet/findRemnant.ts';
import { measureEdge, type DrawnEdge } from '#core/sheet/measureEdge.ts';
import { placedBoxes } from '#core/sheet/layout.ts';
import type { Mark } from '#core/sheet/marks/marks.ts';
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
  readonly widthMm: number;
  readonly heightMm: number;
  readonly lines: readonly ShownLine[];
  readonly images: readonly DrawnImage[];
  /** All art drawn from the file; `null` where its lines and pictures tell how it looks. */
  readonly art: readonly DrawnImage[] | null;
  readonly groups: readonly ShownGroup[];
  readonly leftOut: readonly string[];
}

/** One sheet of a job. */
export interface ShownSheet {
  readonly lines: readonly ShownLine[];
  readonly images: readonly DrawnImage[];
  /** As for the drawing. */
  readonly art: readonly DrawnImage[] | null;
  readonly over: PlacedSheet['over'];
  readonly isInside: boolean;
  /** By how much cut lines reach over what can be printed and then cut, mm. */
  readonly overPrintAreaMm: number;
}

/** A job on its sheets. */
export interface ShownLayout {
  readonly drawing: ShownDrawing;
  readonly sheets: readonly ShownSheet[];
  readonly marks: readonly Mark[];
  readonly printArea: BoxMm | null;
  readonly testCorner: BoxMm | null;
  readonly pieces: readonly (CoveredPiece & { readonly areaMm2: number })[];
  /** The largest free rectangle of the last sheet, or `null` when nothing useful is left. */
  readonly remnant: BoxMm | null;
  /** What stands against the sensor finding the marks, in words. */
  readonly markTroubles: readonly string[];
  /** Turned end for end, less stands against it. */
  readonly readsBetterTurned: boolean;
  /** How art meets the outlines, or `null` without art in any. */
  readonly edge: DrawnEdge | null;
}

const DOT_EVERY_MM = 11;
/** Coarse enough to be quick: marks need no cutting tolerance. */
const MARK_TOLERANCE_MM = 0.2;
/** So many lines are shown without marks along them. */
const MOST_MARKED = 2500;

/**
 * Everything a screen shows of a laid job, with the lines of every sheet as path data.
 *
 * @param art the file, where more than its lines is shown
 * @example describeLayout(job, laid, { canKiss: false, isRollFed: false, canCrease: false }, []).sheets.length // 1
 */
export function describeLayout(
  job: JobDesign,
  laid: LaidJob,
  facts: RoleFacts,
  rules: readonly RoleRule[],
  art: ArtSource | null = null,
): ShownLayout {
  const { drawing, pieces, sheets, marks, printArea, testCorner } = laid;
  const guesses = guessRoles(drawing, facts, rules);
  const last = sheets.length - 1;
  const markTroubles = listMarkTroubles(job, laid);
  const taken = placedBoxes(job.layout, pieces, last);
  const fileArt = art && showFileArt(art, job, laid);
  return {
    drawing: {
      widthMm: drawing.widthMm,
      heightMm: drawing.heightMm,
      lines: showLines(drawing.contours, job),
      images: drawing.images,
      art: fileArt && fileArt.drawing,
      groups: groupLines(drawing).map(({ contourIds, ...group }) => ({
        ...group,
        count: contourIds.length,
        guess: guesses[group.key] as RoleGuess,
      })),
      leftOut: drawing.leftOut,
    },
    sheets: sheets.map(({ lines, images, over, isInside, box }, index) => {
      const overPrintAreaMm = overPrintArea(box, printArea);
      return {
        lines: showLines(lines, job),
        images,
        art: fileArt && fileArt.onSheet(index),
        over,
        isInside: isInside && overPrintAreaMm === 0,
        overPrintAreaMm,
      };
    }),
    marks,
    printArea,
    testCorner,
    pieces: coverPieces(drawing, job, pieces).map((piece) => ({
      ...piece,
      areaMm2: areaOfRings(piece.silhouette),
    })),
    markTroubles,
    readsBetterTurned: markTroubles.length > 0 && troublesTurned(job, laid).length < markTroubles.length,
    edge: measureEdge(drawing, job),
    remnant: findRemnant(job.sheet, [...taken, ...listTaken(laid, job.sheet)]),
  };
}

/** The art of a job from its file, for the drawing and for each sheet. */
function showFileArt(art: ArtSource, job: JobDesign, { drawing, pieces }: LaidJob) {
  // A piece is written once, however often it lies on the sheets.
  const addresses = new Map<PieceArt, string>();
  const addressOf = (one: PieceArt): string => {
    const known = addresses.get(one) ?? `data:image/svg+xml,${encodeURIComponent(one.svg)}`;
    addresses.set(one, known);
    return known;
  };
  const show = (one: PieceArt, toMm: Affine): DrawnImage => ({ data: addressOf(one), toMm });
  const arts = drawPieceArt(art, drawing, job, pieces);
  const whole = job.layout.isWhole ? arts : drawPieceArt(art, drawing, job, splitPieces(drawing, job, true));
  return {
    drawing: whole.flatMap((one) => (one ? [show(one, unitTo(one.box))] : [])),
    onSheet: (index: number) =>
      placeArt(arts, pieces, job.layout, index).map((one) => show(one.art, one.toMm)),
  };
}

function listMarkTroubles(
  job: JobDesign,
  { sheets, marks, printArea }: Pick<LaidJob, 'sheets' | 'marks' | 'printArea'>,
): readonly string[] {
  return [...new Set(sheets.flatMap((placed) => checkMarks(placed, job, job.sheet, marks, printArea)))];
}

function troublesTurned(job: JobDesign, { drawing, pieces, sheets, marks, printArea }: LaidJob) {
  const layout = turnLayout(job.layout, job.sheet);
  const turned = sheets.map((_, index) => placePieces(drawing, job, pieces, layout, job.sheet, index));
  return listMarkTroubles(job, { sheets: turned, marks, printArea });
}

type AnyLine = DrawnContour & Partial<Pick<PlacedLine, 'sourceId' | 'copy'>>;

function showLines(lines: readonly AnyLine[], job: JobDesign): readonly ShownLine[] {
  const isMarked = lines.length <= MOST_MARKED;
  return lines.map((line) => {
    const role = roleOf(line, job);
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
      dots: hasDots ? dotsAlong(flattenContour(line.contour, MARK_TOLERANCE_MM), DOT_EVERY_MM) : [],
    };
  });
}
