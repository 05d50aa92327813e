import { z } from 'zod';
import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import { DRAWING_FORMATS } from '#core/drawing/drawing.ts';
import { CUT_ROLES, ROLES } from '#core/drawing/roles/lineRoles.ts';
import type { Job, JobDrawing, JobHead, KeptDrawing } from '#core/job/job.ts';
import { RUN_STATES, type Run, type StrokeOutcome } from '#core/run/run.ts';
import { RUN_VERDICTS } from '#core/setting/setting.ts';
import { STRATEGIES } from '#core/setting/settingFields.ts';
import { ROUTE_STEPS } from '#core/passes/routeSteps.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import { ARRANGEMENTS, TURNS } from '#core/sheet/layout.ts';
import { FLAWS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { flagColumn, jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

const role = z.enum(ROLES);
// Written by ourselves from parsed values: the shape is checked where it comes in.
const edits = jsonColumn(z.array(z.custom<DrawingEdit>((value) => typeof value === 'object')));
const rolesColumn = jsonColumn(z.record(z.string(), role));

/** What jobs and further drawings keep of a file, but for its text. */
const keptHeadRow = z.object({
  format: z.enum(DRAWING_FORMATS),
  roles: rolesColumn,
  line_roles: rolesColumn,
  are_roles_guessed: flagColumn,
  edits,
});
const keptRow = keptHeadRow.extend({ source: z.string() });

/** What to read for `readKeptDrawing`. */
export const KEPT_DRAWING_COLUMNS = Object.keys(keptRow.shape);

const sheetColumn = jsonColumn(
  z.object({
    name: z.string(),
    widthMm: z.number(),
    heightMm: z.number(),
    marginMm: z.number(),
    matLeftMm: z.number().optional(),
    matBottomMm: z.number().optional(),
    wholeHeightMm: z.number().optional(),
    isStarted: z.boolean().optional(),
  }),
);

/** The sheet of a job as its column holds it. */
export function readSheetColumn(value: unknown): Sheet {
  return sheetColumn.parse(value);
}

/** A row of jobs without the text of its drawing. */
const jobHeadRow = keptHeadRow.extend({
  id: z.number(),
  name: z.string(),
  drawing_name: z.string().nullable().default(null),
  sheet: sheetColumn,
  layout: jsonColumn(
    z.object({
      isWhole: z.boolean(),
      copies: z.number(),
      quantities: z.record(z.string(), z.number()).default({}),
      turns: z.enum(TURNS),
      spacingMm: z.number(),
      placements: z.array(
        z.object({
          piece: z.number(),
          sheet: z.number(),
          xMm: z.number(),
          yMm: z.number(),
          turnDeg: z.number(),
        }),
      ),
      arrangement: z.enum(ARRANGEMENTS).optional(),
      byDrawing: z
        .record(
          z.string(),
          z.object({
            copies: z.number().optional(),
            turns: z.enum(TURNS).optional(),
            isWhole: z.boolean().optional(),
            page: z.number().optional(),
          }),
        )
        .optional(),
      carrier: z
        .object({
          widthMm: z.number(),
          heightMm: z.number(),
          radiusMm: z.number(),
          marginMm: z.number(),
          hole: z.object({ diameterMm: z.number(), fromTopMm: z.number() }).nullable(),
          role: z.enum(CUT_ROLES),
          count: z.number(),
        })
        .optional(),
    }),
  ),
  print: jsonColumn(z.object({ hasMarks: z.boolean(), bleedMm: z.number(), keepsTestCorner: z.boolean() })),
  passes: jsonColumn(
    z.object({
      order: z.array(z.enum(ROUTE_STEPS)).nullable(),
      cutLengthMm: z.number().nullable(),
      tabLengthMm: z.number().nullable(),
      compensatesOffset: z.boolean(),
      perforatesNatively: z.boolean().optional(),
      freeing: z.enum(STRATEGIES).optional(),
      pausesBefore: z.array(z.enum(CUT_ROLES)).max(CUT_ROLES.length).readonly().optional(),
    }),
  ),
  condition_id: z.number(),
  machine_id: z.number(),
  version: z.number(),
  updated_at: timeColumn,
});
const jobRow = jobHeadRow.extend({ source: z.string() });

/** What to read for `readJobHeadRow`. */
export const JOB_HEAD_COLUMNS = Object.keys(jobHeadRow.shape);

const stroke = z.object({
  operation: z.enum(CUT_ROLES),
  ownTabs: z.object({ cutLengthMm: z.number(), tabLengthMm: z.number() }).optional(),
  isTab: z.boolean().default(false),
  contourId: z.number(),
  repeat: z.number(),
  points: z.array(z.object({ x: z.number(), y: z.number() })),
});

const span = z.object({
  from: z.number(),
  to: z.number(),
  grade: z.number().transform((grade) => grade as DepthGrade),
});

const runRow = z.object({
  id: z.number(),
  job_id: z.number(),
  job_name: z.string(),
  dial_in_id: z.number().nullable().default(null),
  judged: z.enum(['tabs', 'crease']).nullable().default(null),
  machine_id: z.number(),
  condition_id: z.number(),
  state: z.enum(RUN_STATES),
  message: z.string(),
  sheet_width_mm: z.number(),
  sheet_height_mm: z.number(),
  strokes: jsonColumn(z.array(stroke)),
  out_to: z.number().nullable(),
  seconds: z.number(),
  verdict: z.enum(RUN_VERDICTS).nullable(),
  pieces_good: z.number(),
  pieces_spoiled: z.number(),
  note: z.string(),
  flaws: jsonColumn(z.array(z.enum(FLAWS))).nullable(),
  sheets_used: z.number(),
  humidity: z.number().nullable(),
  author: z.string(),
  started_at: timeColumn,
  ended_at: timeColumn.nullable(),
});

const outcomeRow = z.object({ stroke_index: z.number(), spans: jsonColumn(z.array(span)) });

/** A row of job_drawings without the text of its file. */
const drawingHeadRow = keptHeadRow.extend({ number: z.number(), name: z.string() });
const drawingRow = drawingHeadRow.extend({ source: z.string() });

/** What to read for the drawings of `readJobHeadRow`. */
export const DRAWING_HEAD_COLUMNS = Object.keys(drawingHeadRow.shape);

/** @param drawings rows of job_drawings, in the order of their numbers */
export function readJobRow(row: unknown, drawings: readonly unknown[]): Job {
  const job = jobRow.parse(row);
  const more = drawings.map((one): JobDrawing => {
    const drawing = drawingRow.parse(one);
    return { ...toDrawingHead(drawing), source: drawing.source };
  });
  return { ...toJobHead(job), source: job.source, ...(more.length > 0 ? { moreDrawings: more } : {}) };
}

/** @param drawings rows of job_drawings, in the order of their numbers */
export function readJobHeadRow(row: unknown, drawings: readonly unknown[]): JobHead {
  const more = drawings.map((one) => toDrawingHead(drawingHeadRow.parse(one)));
  return { ...toJobHead(jobHeadRow.parse(row)), ...(more.length > 0 ? { moreDrawings: more } : {}) };
}

/** A row of jobs or of job_drawings, for its file alone. */
export function readKeptDrawing(row: unknown): KeptDrawing {
  const kept = keptRow.parse(row);
  return { ...toKeptHead(kept), source: kept.source };
}

function toKeptHead(kept: z.infer<typeof keptHeadRow>): Omit<KeptDrawing, 'source'> {
  const { format, roles, line_roles: lineRoles, are_roles_guessed: areRolesGuessed } = kept;
  return { format, roles, lineRoles, areRolesGuessed, edits: kept.edits };
}

function toDrawingHead(drawing: z.infer<typeof drawingHeadRow>): Omit<JobDrawing, 'source'> {
  const { number, name } = drawing;
  return { ...toKeptHead(drawing), number, name };
}

function toJobHead(job: z.infer<typeof jobHeadRow>): Omit<JobHead, 'moreDrawings'> {
  return {
    id: job.id,
    name: job.name,
    ...(job.drawing_name === null ? {} : { drawingName: job.drawing_name }),
    ...toKeptHead(job),
    sheet: job.sheet,
    layout: job.layout,
    print: job.print,
    passes: job.passes,
    conditionId: job.condition_id,
    machineId: job.machine_id,
    version: job.version,
    updatedAt: job.updated_at,
  };
}

export function readOutcomeRow(row: unknown): StrokeOutcome {
  const { stroke_index, spans } = outcomeRow.parse(row);
  return { index: stroke_index, spans };
}

export function readRunRow(row: unknown, outcomes: readonly StrokeOutcome[]): Run {
  const run = runRow.parse(row);
  return {
    id: run.id,
    jobId: run.job_id,
    jobName: run.job_name,
    dialInId: run.dial_in_id,
    judged: run.judged,
    machineId: run.machine_id,
    conditionId: run.condition_id,
    state: run.state,
    message: run.message,
    sheetWidthMm: run.sheet_width_mm,
    sheetHeightMm: run.sheet_height_mm,
    strokes: run.strokes,
    outTo: run.out_to,
    outcomes,
    seconds: run.seconds,
    verdict: run.verdict,
    piecesGood: run.pieces_good,
    piecesSpoiled: run.pieces_spoiled,
    note: run.note,
    flaws: run.flaws ?? [],
    sheetsUsed: run.sheets_used,
    humidity: run.humidity,
    author: run.author,
    startedAt: run.started_at,
    endedAt: run.ended_at,
  };
}
