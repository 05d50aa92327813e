import type { Drawing } from '#core/drawing/drawing.ts';
import type { GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { joinDrawings, type JobPart, type ReadArtwork } from '#core/job/joinDrawings.ts';
import { findPlace } from '#core/dialIn/testCard.ts';
import { overlap, type BoxMm } from '#core/geometry/box.ts';
import { findPrintArea } from '#core/sheet/marks/printArea.ts';
import type { Job } from '#core/job/job.ts';
import { countSheets, placedBoxes } from '#core/sheet/layout.ts';
import { listMarks, type Mark } from '#core/sheet/marks/marks.ts';
import { placePieces, type PlacedSheet } from '#core/sheet/nest/placePieces.ts';
import type { Piece } from '#core/sheet/nest/splitPieces.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { Machine } from '#core/station/machine.ts';

/** What lays out a job: everything but its name and its counting. */
export type JobDesign = Pick<
  Job,
  'format' | 'source' | 'roles' | 'lineRoles' | 'edits' | 'moreDrawings' | 'sheet' | 'layout' | 'print'
>;

/** A job on its sheets: what print, crease and cut are all made from, so that they cannot disagree. */
export interface LaidJob {
  /** All drawings with all mends, beside each other. */
  readonly drawing: Drawing;
  /** The roles of its lines. */
  readonly given: GivenRoles;
  readonly pieces: readonly Piece[];
  /** What it is joined of. */
  readonly parts: readonly JobPart[];
  readonly sheets: readonly PlacedSheet[];
  readonly marks: readonly Mark[];
  /** What the machine prints and cuts on a sheet with marks, or `null` where it does not say. */
  readonly printArea: BoxMm | null;
  /** Where a test cut goes, or `null` when none is kept free. */
  readonly testCorner: BoxMm | null;
}

/** Edge of the corner kept for a test cut, mm: a card of three small pieces. */
const TEST_CORNER = { widthMm: 46, heightMm: 22 };

/**
 * Lays a job out.
 *
 * @param read gives the drawing of a source; pass one that remembers
 * @throws AppError as readDrawing and placePieces do
 * @example layOutJob(job, machine).drawing.contours.length // 1
 */
export function layOutJob(
  job: JobDesign,
  machine: Pick<Machine, 'marks'> & Partial<Pick<Machine, 'printAndCut'>>,
  read?: ReadArtwork,
): LaidJob {
  const joined = joinDrawings(job, read);
  const { drawing, given, pieces } = joined;
  const count = Math.max(1, countSheets(job.layout));
  const sheets = Array.from({ length: count }, (_, index) =>
    placePieces(drawing, given, pieces, job.layout, job.sheet, index),
  );
  const marks = job.print.hasMarks ? listMarks(machine.marks, job.sheet) : [];
  const printArea = job.print.hasMarks ? findPrintArea(job.sheet, machine.printAndCut ?? []) : null;
  const testCorner = findTestCorner(job, pieces, { marks, printArea });
  return { ...joined, sheets, marks, printArea, testCorner };
}

/**
 * What pieces must keep off: marks with their keep-outs, what the machine cannot print and cut, the test corner.
 *
 * @example listTaken({ marks: [], printArea: null, testCorner: null }, sheet) // []
 */
export function listTaken(
  { marks, printArea, testCorner }: Pick<LaidJob, 'marks' | 'printArea' | 'testCorner'>,
  { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>,
): readonly BoxMm[] {
  const rim = printArea
    ? [
        { minX: 0, minY: 0, maxX: printArea.minX, maxY: heightMm },
        { minX: printArea.maxX, minY: 0, maxX: widthMm, maxY: heightMm },
        { minX: 0, minY: 0, maxX: widthMm, maxY: printArea.minY },
        { minX: 0, minY: printArea.maxY, maxX: widthMm, maxY: heightMm },
      ]
    : [];
  return [...marks.map(({ keepOut }) => keepOut), ...rim, ...(testCorner ? [testCorner] : [])];
}

/**
 * Upper right, under the mark where there is one: far from where a short layout begins. Where a piece lies there, the
 * nearest free place to the lower right; `null` where none is left.
 */
function findTestCorner(
  { print, sheet, layout }: JobDesign,
  pieces: readonly Piece[],
  reserved: Pick<LaidJob, 'marks' | 'printArea'>,
): BoxMm | null {
  if (!print.keepsTestCorner) return null;
  const { marks, printArea } = reserved;
  const maxX = Math.min(sheet.widthMm - sheet.marginMm, printArea?.maxX ?? Infinity);
  const mark = marks.find(({ keepOut }) => keepOut.maxX === sheet.widthMm && keepOut.minY === 0);
  const minY = Math.max(sheet.marginMm, mark?.keepOut.maxY ?? 0);
  const { widthMm, heightMm } = TEST_CORNER;
  const usual = { minX: maxX - widthMm, maxX, minY, maxY: minY + heightMm };
  const laid = Array.from({ length: countSheets(layout) }, (_, at) => placedBoxes(layout, pieces, at)).flat();
  if (!laid.some((box) => overlap(box, usual))) return usual;
  const taken = [...laid, ...listTaken({ ...reserved, testCorner: null }, sheet)];
  const free = findPlace(TEST_CORNER, { ...sheet, taken });
  return free && { minX: free.x, minY: free.y, maxX: free.x + widthMm, maxY: free.y + heightMm };
}
