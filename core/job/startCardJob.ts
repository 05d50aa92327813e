import { groupKey } from '#core/drawing/roles/lineRoles.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import { writeSvg } from '#core/drawing/svg/writeSvg.ts';
import { AppError } from '#core/errors/appError.ts';
import { middleOf, type BoxMm } from '#core/geometry/box.ts';
import { PLAIN_PRINT } from '#core/job/job.ts';
import type { StartedJob } from '#core/job/startJob.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';
import { listMarks } from '#core/sheet/marks/marks.ts';
import { drawVerniers, placeVerniers, type Vernier } from '#core/sheet/marks/registrationCard.ts';
import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import type { Machine } from '#core/station/machine.ts';

/** The sheet a card is printed on. */
const CARD_SHEET = 'A4';

/**
 * Where the verniers of a machine's card lie on its sheet. @throws AppError `badInput` when its marks leave no room
 *
 * @example placeCard({ marks, marginMm: 5 }).verniers.length // 8
 */
export function placeCard(machine: Pick<Machine, 'marks' | 'marginMm'>): {
  readonly sheet: Sheet;
  readonly verniers: readonly Vernier[];
} {
  const size = SHEET_SIZES.find(({ name }) => name === CARD_SHEET) as (typeof SHEET_SIZES)[number];
  const sheet = { ...size, marginMm: machine.marginMm };
  const reach = listMarks(machine.marks, sheet).reduce(
    (most, { keepOut }) => Math.max(most, Math.min(keepOut.maxX - keepOut.minX, keepOut.maxY - keepOut.minY)),
    machine.marginMm,
  );
  const area: BoxMm = {
    minX: reach,
    minY: reach,
    maxX: sheet.widthMm - reach,
    maxY: sheet.heightMm - reach,
  };
  return { sheet, verniers: placeVerniers(area) };
}

/**
 * A job that prints a card with two scales at each corner and cuts their counterparts: what does not meet is the shift
 * between print and cut.
 *
 * @param canKiss false on a single layer, where the short lines are cut through
 * @throws AppError `badInput` when the machine has no marks, or they leave no room
 * @example startCardJob({ name: 'Skua', marks, marginMm: 5 }, true).name // 'Print-to-cut card, Skua'
 */
export function startCardJob(
  machine: Pick<Machine, 'name' | 'marks' | 'marginMm'>,
  canKiss: boolean,
): StartedJob {
  if (machine.marks.scheme === 'none') {
    throw new AppError(
      'badInput',
      `${machine.name} has no registration marks: nothing finds a printed sheet`,
    );
  }
  const { sheet, verniers } = placeCard(machine);
  const source = writeSvg(drawVerniers(verniers), sheet);
  const drawing = readDrawing('svg', source);
  const roles = Object.fromEntries(
    drawing.contours.map((line) => [
      groupKey(line),
      line.layer === 'art' ? ('art' as const) : canKiss ? ('kiss' as const) : ('through' as const),
    ]),
  );
  const [piece] = splitPieces(drawing, { roles, lineRoles: {} }, true);
  const middle = middleOf(piece?.box ?? { minX: 0, minY: 0, maxX: sheet.widthMm, maxY: sheet.heightMm });
  return {
    name: `Print-to-cut card, ${machine.name}`,
    format: 'svg',
    source,
    roles,
    lineRoles: {},
    areRolesGuessed: false,
    edits: [],
    sheet,
    layout: {
      ...PLAIN_LAYOUT,
      placements: [{ piece: 0, sheet: 0, xMm: middle.x, yMm: middle.y, turnDeg: 0 }],
    },
    print: { ...PLAIN_PRINT, hasMarks: true },
    passes: PLAIN_CHOICES,
  };
}
