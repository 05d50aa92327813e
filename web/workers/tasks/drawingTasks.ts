import { listKeptPictures } from '#core/drawing/keptPicture.ts';
import { findTroubles } from '#core/checks/findTroubles.ts';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import { checkMarks } from '#core/sheet/marks/checkMarks.ts';
import { overPrintArea } from '#core/sheet/marks/printArea.ts';
import { isAnyTooFine } from '#core/checks/checkFineness.ts';
import { listCutLines } from '#core/checks/cutLine.ts';
import { drawFinestSpot } from '#core/dialIn/finestSpot.ts';
import type { SpotShape } from '#core/dialIn/testPiece.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { writeDxf } from '#core/drawing/dxf/writeDxf.ts';
import { writeSvg, type WrittenLine } from '#core/drawing/svg/writeSvg.ts';
import { AppError } from '#core/errors/appError.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { arrangeJob, chooseSheetFor } from '#core/job/arrangeJob.ts';
import { fitLayout } from '#core/job/fitLayout.ts';
import { startBorder, type OwnBorder } from '#core/job/jobBorder.ts';
import { hasPrint } from '#core/job/hasPrint.ts';
import type { Job } from '#core/job/job.ts';
import { coverParts, joinDrawings, type Artwork } from '#core/job/joinDrawings.ts';
import { layOutJob, type JobDesign, type LaidJob } from '#core/job/layOutJob.ts';
import { rolesToTrace, startJob, type StartedJob } from '#core/job/startJob.ts';
import type { Plan } from '#core/passes/plan.ts';
import { planPasses, type PlanOrder } from '#core/passes/planPasses.ts';
import { findTouching } from '#core/sheet/hands/findTouching.ts';
import { measureEdge, type DrawnEdge } from '#core/sheet/measureEdge.ts';
import type { Shelf } from '#core/sheet/offerSheets.ts';
import { middleOfPage } from '#core/sheet/sheetSize.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { Machine } from '#core/station/machine.ts';
import { inlinePictures, type Pictures, type ShownArt } from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { traceCover } from '#web/endpoints/jobs/pictures/traceCover.ts';
import { openDrawing } from '#web/workers/tasks/openDrawing.ts';
import { ringsOf } from '#web/workers/tasks/pictureTasks.ts';

type Bed = Pick<Machine, 'bedWidthMm' | 'bedLengthMm' | 'marginMm'>;

/** A bench that a job begins at. */
interface StartingBench {
  readonly bed: Bed;
  readonly facts: RoleFacts;
  readonly rules: readonly RoleRule[];
  readonly shelf: Shelf;
}

/**
 * Opens a file and guesses its roles; art alone is cut around. The source is left out of the result: who asked has it.
 *
 * @returns `null` where its kept pictures must be looked at and were not given
 */
export async function startJobTask(
  given: StartingBench & {
    readonly file: Artwork & Pick<Job, 'name'>;
    readonly border: OwnBorder | null;
    readonly pictures: Pictures | null;
  },
): Promise<Omit<StartedJob, 'source'> | null> {
  const { file, bed, facts, rules, shelf, border, pictures } = given;
  const drawing = openDrawing(file);
  const roles = rolesToTrace({ drawing, facts, rules });
  if (roles && !pictures && listKeptPictures(file.source).length > 0) return null;
  const whole = () => inlinePictures(file.source, pictures ?? new Map());
  const covered = roles && (await traceCover(whole(), drawing, { roles, lineRoles: {} }));
  const { source: _source, ...started } = startJob(
    file,
    drawing,
    bed,
    facts,
    rules,
    covered ?? undefined,
    shelf,
  );
  return border ? { ...started, ...startBorder(started, drawing, border) } : started;
}

/** Where drawings of one job lie when it begins: in rows, on the first sheet of the shelf that takes them all. */
export function startLayoutTask(given: {
  readonly job: JobDesign;
  readonly machine: Machine;
  readonly shelf: Shelf;
}): Pick<Job, 'sheet' | 'layout'> {
  const layout = { ...given.job.layout, arrangement: 'rows' as const, placements: [] };
  const job = { ...given.job, layout };
  const sheet = chooseSheetFor(job, given.machine, openDrawing, given.shelf);
  return { sheet, layout: arrangeJob({ ...job, sheet }, given.machine, openDrawing) };
}

/** Opens the files of a job to see whether they can be read. */
export function checkDrawingTask({ moreDrawings = [], ...first }: Artwork & Pick<Job, 'moreDrawings'>): null {
  for (const one of [first, ...moreDrawings]) openDrawing(one);
  return null;
}

/** The finest spot of what a job cuts, as a test piece; `null` where no line of it is cut. */
export function findSpotTask(job: Job): SpotShape | null {
  const { drawing, given } = joinDrawings(job, openDrawing);
  const lines = listCutLines(drawing, given);
  return drawFinestSpot(
    lines.map(({ points }) => points),
    job.name,
  );
}

/** What becomes of a layout when a job changes. */
interface Relay {
  readonly job: Job;
  readonly next: Job;
  readonly machine: Machine;
  /** A drawing that took the number of another. */
  readonly renumbered?: { readonly from: number; readonly to: number } | null;
  /** A drawing that is a painted page, and on which sheet. */
  readonly page?: { readonly number: number; readonly sheet: number };
}

/**
 * The layout that other roles, mends or drawings leave: laid out anew where it says how, else what still fits stays. A
 * painted page lies edge on edge with its sheet, and moves nothing.
 *
 * @returns `null` when it stays as it is
 */
export function relayTask({ job, next, machine, renumbered, page }: Relay): Job['layout'] | null {
  if (!page && next.layout.arrangement !== undefined) return arrangeJob(next, machine, openDrawing);
  const formerOf = (number: number) => (number === renumbered?.to ? renumbered.from : number);
  const layout = fitLayout(openDrawing, job, next, formerOf);
  if (!page) return layout === next.layout ? null : layout;
  const { parts } = joinDrawings(next, openDrawing);
  const own = parts.find(({ number }) => number === page.number);
  const middle = { ...middleOfPage(next.sheet), turnDeg: 0 };
  const place = { piece: own?.first.piece ?? 0, sheet: page.sheet, ...middle };
  return { ...layout, placements: [place, ...layout.placements] };
}

/** A job laid out anew. */
export function arrangeTask({
  job,
  machine,
}: {
  readonly job: Job;
  readonly machine: Machine;
}): Job['layout'] {
  return arrangeJob(job, machine, openDrawing);
}

/** So many lines are looked at for what is too fine: the drawing step looks at all. */
const MOST_LOOKED_AT = 300;
/** Above so many lines the drawing step alone looks for troubles: it takes seconds. */
const MOST_CHECKED = 1500;

/** What a sheet of a job is, beside its plan. */
export interface SheetFacts {
  readonly sheetCount: number;
  readonly isPrinted: boolean;
  readonly testCorner: BoxMm | null;
  readonly edge: DrawnEdge | null;
  readonly isFinestTooFine: boolean;
  /** What was found in the drawing and not mended; not looked for in very large ones. */
  readonly troubles: readonly Trouble[];
  /** By how much cut lines reach over what can be printed and then cut, mm. */
  readonly overPrintAreaMm: number;
  /** What may be taken for a mark, in words. */
  readonly markTroubles: readonly string[];
  readonly hasNoTestCorner: boolean;
  /** How many pieces lie over each other where somebody laid them by hand. */
  readonly touching: number;
}

/**
 * Lays a job out and plans one of its sheets.
 *
 * @throws AppError `cannotPlan` when nothing lies on the sheet, or lines lie outside it
 */
export function planSheetTask(wanted: {
  readonly job: Job;
  readonly machine: Machine;
  readonly family: Family;
  readonly checks: Omit<CheckFacts, 'family'>;
  readonly sheetIndex: number;
  readonly order: Omit<PlanOrder, 'lines' | 'given' | 'hasPrint'>;
  readonly shown: ShownArt;
}): { readonly plan: Plan; readonly facts: SheetFacts } {
  const { job, machine, family, checks, sheetIndex, order, shown } = wanted;
  const laid = layOutJob(job, machine, openDrawing);
  const placed = laid.sheets[sheetIndex];
  if (!placed || placed.lines.length === 0) {
    throw new AppError('cannotPlan', 'nothing lies on the sheet yet: lay the pieces out first');
  }
  if (!placed.isInside) {
    const most = Math.max(placed.over.left, placed.over.top, placed.over.right, placed.over.bottom);
    throw new AppError(
      'cannotPlan',
      `the drawing reaches ${most.toFixed(1)} mm over the usable area of the sheet`,
    );
  }
  const { drawing, given, testCorner } = laid;
  const isPrinted = hasPrint(drawing, given);
  const plan = planPasses({ ...order, given, lines: placed.lines, hasPrint: isPrinted });
  const all = listCutLines(drawing, given);
  const lines = all.slice(0, MOST_LOOKED_AT);
  const troubles = all.length > MOST_CHECKED ? [] : findPartTroubles(laid, { ...checks, family });
  const edge = measureEdge(drawing, given, ringsOf(laid, shown));
  const isFinestTooFine = isAnyTooFine(lines, family);
  const facts = {
    sheetCount: laid.sheets.length,
    isPrinted,
    testCorner,
    edge,
    isFinestTooFine,
    troubles,
    overPrintAreaMm: overPrintArea(placed.box, laid.printArea),
    markTroubles: checkMarks(placed, given, job.sheet, laid.marks, laid.printArea),
    hasNoTestCorner: job.print.keepsTestCorner && testCorner === null,
    touching: findTouching(coverParts(laid), job.layout).length,
  };
  return { plan, facts };
}

/** Drawing by drawing, by its own lines. */
function findPartTroubles({ parts }: LaidJob, checks: CheckFacts): readonly Trouble[] {
  return parts
    .filter(({ number }) => number !== null)
    .flatMap(({ drawing, given }) => findTroubles(drawing, given, checks));
}

/** One sheet as SVG or DXF with a layer for each role. @throws AppError `notFound` */
export function layersTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly sheetIndex: number;
  readonly format: 'svg' | 'dxf';
}): string {
  const { job, machine, sheetIndex, format } = given;
  const { sheets, given: roles } = layOutJob(job, machine, openDrawing);
  const placed = sheets[sheetIndex];
  if (!placed) throw new AppError('notFound', `this job has no sheet ${sheetIndex + 1}`);
  const lines = placed.lines.flatMap((line): readonly WrittenLine[] => {
    const role = roleOf(line, roles);
    return role && role !== 'ignore' ? [{ role, points: flattenContour(line.contour) }] : [];
  });
  return format === 'svg' ? writeSvg(lines, job.sheet) : writeDxf(lines, job.sheet.heightMm);
}
