import { LRUCache } from 'lru-cache';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import { applyEdits } from '#core/checks/applyEdits.ts';
import { findTroubles } from '#core/checks/findTroubles.ts';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import { checkMarks } from '#core/sheet/marks/checkMarks.ts';
import { overPrintArea } from '#core/sheet/marks/printArea.ts';
import { isAnyTooFine } from '#core/checks/checkFineness.ts';
import { listCutLines } from '#core/checks/cutLine.ts';
import { drawFinestSpot } from '#core/dialIn/finestSpot.ts';
import type { SpotShape } from '#core/dialIn/testPiece.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import { writeDxf } from '#core/drawing/dxf/writeDxf.ts';
import { writeSvg, type WrittenLine } from '#core/drawing/svg/writeSvg.ts';
import { AppError } from '#core/errors/appError.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { fitLayout } from '#core/job/fitLayout.ts';
import { hasPrint } from '#core/job/hasPrint.ts';
import type { Job } from '#core/job/job.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { isTraced, rolesToTrace, startJob, type StartedJob } from '#core/job/startJob.ts';
import type { Plan } from '#core/passes/plan.ts';
import { planPasses, type PlanOrder } from '#core/passes/planPasses.ts';
import { measureEdge, type DrawnEdge } from '#core/sheet/measureEdge.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { Machine } from '#core/station/machine.ts';
import { drawPrintSheet } from '#web/endpoints/jobs/drawPrintSheet.ts';
import { traceCover } from '#web/endpoints/jobs/traceCover.ts';

type Artwork = Pick<Job, 'format' | 'source'>;
type Bed = Pick<Machine, 'bedWidthMm' | 'bedLengthMm' | 'marginMm'>;

/** Each thread remembers the last drawings it read. */
const drawings = new LRUCache<string, Drawing>({ max: 6 });

/** The drawing of a job's file. @throws AppError `badDrawing`, `tooLarge` */
function openDrawing({ format, source }: Artwork): Drawing {
  const key = `${format}\0${source}`;
  const known = drawings.get(key);
  if (known) return known;
  const drawing = readDrawing(format, source);
  drawings.set(key, drawing);
  return drawing;
}

/**
 * Opens a file and guesses its roles; art alone is cut around. The source is left out of the result: who asked has it.
 */
export async function startJobTask(given: {
  readonly file: Artwork & Pick<Job, 'name'>;
  readonly bed: Bed;
  readonly facts: RoleFacts;
  readonly rules: readonly RoleRule[];
}): Promise<Omit<StartedJob, 'source'>> {
  const { file, bed, facts, rules } = given;
  const drawing = openDrawing(file);
  const roles = rolesToTrace({ drawing, facts, rules });
  const covered = roles && (await traceCover(file.source, drawing, { roles, lineRoles: {} }));
  const { source: _source, ...started } = startJob(file, drawing, bed, facts, rules, covered ?? undefined);
  return started;
}

/**
 * What the art of a job covers, traced from the picture that is printed; `null` where its lines tell it, or nothing
 * shows.
 */
export async function coverTask(job: Job): Promise<string | null> {
  const drawing = applyEdits(openDrawing(job), job.edits);
  if (job.format !== 'svg' || !hasPrint(drawing, job)) return null;
  return isTraced(drawing) ? traceCover(job.source, drawing, job) : null;
}

/** Opens a file to see whether it can be read. */
export function checkDrawingTask(artwork: Artwork): null {
  openDrawing(artwork);
  return null;
}

/** The finest spot of what a job cuts, as a test piece; `null` where no line of it is cut. */
export function findSpotTask(job: Job): SpotShape | null {
  const lines = listCutLines(applyEdits(openDrawing(job), job.edits), job);
  return drawFinestSpot(
    lines.map(({ points }) => points),
    job.name,
  );
}

/** The layout that other roles or mends leave; `null` when it stays as it is. */
export function fitLayoutTask(given: {
  readonly job: Job;
  readonly next: Parameters<typeof fitLayout>[2];
}): Job['layout'] | null {
  const { job, next } = given;
  const layout = fitLayout(openDrawing(job), job, next);
  return layout === job.layout ? null : layout;
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
}

/**
 * Lays a job out and plans one of its sheets.
 *
 * @throws AppError `cannotPlan` when nothing lies on the sheet, or lines lie outside it
 */
export function planSheetTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly family: Family;
  readonly checks: Omit<CheckFacts, 'family'>;
  readonly sheetIndex: number;
  readonly order: Omit<PlanOrder, 'lines' | 'hasPrint'>;
}): { readonly plan: Plan; readonly facts: SheetFacts } {
  const { job, machine, family, checks, sheetIndex, order } = given;
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
  const isPrinted = hasPrint(laid.drawing, job);
  const plan = planPasses({ ...order, lines: placed.lines, hasPrint: isPrinted });
  const { testCorner } = laid;
  const all = listCutLines(laid.drawing, job);
  const lines = all.slice(0, MOST_LOOKED_AT);
  const troubles = all.length > MOST_CHECKED ? [] : findTroubles(laid.drawing, job, { ...checks, family });
  const edge = measureEdge(laid.drawing, job);
  const isFinestTooFine = isAnyTooFine(lines, family);
  const facts = {
    sheetCount: laid.sheets.length,
    isPrinted,
    testCorner,
    edge,
    isFinestTooFine,
    troubles,
    overPrintAreaMm: overPrintArea(placed.box, laid.printArea),
    markTroubles: checkMarks(placed, job, job.sheet, laid.marks, laid.printArea),
    hasNoTestCorner: job.print.keepsTestCorner && testCorner === null,
  };
  return { plan, facts };
}

/** One sheet to print, as PDF. @throws AppError `notFound` for a sheet that the job does not have */
export async function printSheetTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly sheetIndex: number;
  readonly words: string;
}): Promise<Uint8Array> {
  const { job, machine, sheetIndex, words } = given;
  return drawPrintSheet(job, layOutJob(job, machine, openDrawing), sheetIndex, words);
}

/** One sheet as SVG or DXF with a layer for each role. @throws AppError `notFound` */
export function layersTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly sheetIndex: number;
  readonly format: 'svg' | 'dxf';
}): string {
  const { job, machine, sheetIndex, format } = given;
  const placed = layOutJob(job, machine, openDrawing).sheets[sheetIndex];
  if (!placed) throw new AppError('notFound', `this job has no sheet ${sheetIndex + 1}`);
  const lines = placed.lines.flatMap((line): readonly WrittenLine[] => {
    const role = roleOf(line, job);
    return role && role !== 'ignore' ? [{ role, points: flattenContour(line.contour) }] : [];
  });
  return format === 'svg' ? writeSvg(lines, job.sheet) : writeDxf(lines, job.sheet.heightMm);
}
