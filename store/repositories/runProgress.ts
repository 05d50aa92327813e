import { z } from 'zod';
import { isRunOver, RUN_STATES, type RunState, type RunStroke } from '#core/run/run.ts';
import { cutMetresOf } from '#core/run/measureRun.ts';
import type { RunProgram } from '#core/program/runProgram.ts';
import { AppError } from '#core/errors/appError.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { CUT_ROLES, type CutRole } from '#core/drawing/lineRoles.ts';
import { ABRASION } from '#core/wear/bladeLife.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMaterialByCondition } from '#store/repositories/materials.ts';
import { findRun } from '#store/repositories/runs.ts';
import { wearTools } from '#store/repositories/stations.ts';
import { programColumn } from '#store/rows/jobRows.ts';
import { timeColumn } from '#store/rows/jsonColumn.ts';

/** What was sent of a run, and where. */
export interface RunProgress {
  readonly state: RunState;
  readonly program: RunProgram;
  readonly partIndex: number;
  /** The cutter as it was when the last bytes went out; another one after it lost power. */
  readonly bootId: string | null;
  /** Names the last transmission, or `null` when none went out for this part. */
  readonly sentKey: string | null;
}

const progressRow = z.object({
  state: z.enum(RUN_STATES),
  program: programColumn.nullable(),
  part_index: z.number(),
  boot_id: z.string().nullable(),
  sent_key: z.string().nullable(),
});

/** @throws AppError `notFound`; `conflict` for a run that was noted without being sent */
export async function findProgress(db: Store, runId: number): Promise<RunProgress> {
  const row: unknown = await db('runs')
    .where({ id: runId })
    .first('state', 'program', 'part_index', 'boot_id', 'sent_key');
  if (!row) throw new AppError('notFound', `there is no run ${runId}`);
  const { program, state, part_index, boot_id, sent_key } = progressRow.parse(row);
  if (!program) throw new AppError('conflict', 'This run was never sent from here.');
  return { state, program, partIndex: part_index, bootId: boot_id, sentKey: sent_key };
}

/** Remembers a transmission before its first byte goes out. */
export async function rememberSending(
  db: Store,
  runId: number,
  sent: { readonly bootId: string | null; readonly sentKey: string },
): Promise<void> {
  await db('runs').where({ id: runId }).update({ boot_id: sent.bootId, sent_key: sent.sentKey });
}

/** Goes on to another part: nothing of it is sent yet. */
export async function enterPart(db: Store, runId: number, partIndex: number): Promise<void> {
  await db('runs').where({ id: runId }).update({ part_index: partIndex, sent_key: null });
}

/** Adds strokes that repeat a pass, with the program that sends them. */
export async function addRunStrokes(
  db: Store,
  runId: number,
  strokes: readonly RunStroke[],
  program: RunProgram,
  partIndex: number,
): Promise<void> {
  const run = await findRun(db, runId);
  await db('runs')
    .where({ id: runId })
    .update({
      strokes: JSON.stringify([...run.strokes, ...strokes]),
      program: JSON.stringify(program),
      part_index: partIndex,
      sent_key: null,
    })
    .increment('repeated_strokes', strokes.length);
}

/**
 * Ends a run once, however often it is told to: blade and mat wear by what was acknowledged, in the same step, the
 * blade by how much the material wears it.
 *
 * @returns false when it was over already
 */
export async function endRun(
  db: Store,
  runId: number,
  state: RunState,
  message: string,
  now: Date,
): Promise<boolean> {
  return db.transaction(async (transaction) => {
    const row: { state: RunState; blade_id: number | null; mat_id: number | null } | undefined =
      await transaction('runs').where({ id: runId }).forUpdate().first('state', 'blade_id', 'mat_id');
    if (!row || isRunOver(row.state)) return false;
    const run = await findRun(transaction, runId);
    const { material } = await findMaterialByCondition(transaction, run.conditionId);
    const worn = cutMetresOf(run) * ABRASION[material.family];
    await transaction('runs')
      .where({ id: runId })
      .update({ state, message: message.slice(0, 300), ended_at: now, worn_metres: worn });
    if (run.outcomes.length > 0) {
      await wearTools(transaction, { bladeId: row.blade_id, matId: row.mat_id, metres: worn });
    }
    return true;
  });
}

/** A depth grade given at the sheet: of a whole operation, or of a spot on it. */
export interface RunGrade {
  readonly id: number;
  readonly operation: CutRole;
  readonly grade: DepthGrade;
  /** Passes that the path had when it was looked at. */
  readonly passesDone: number;
  readonly spot: PointMm | null;
  readonly author: string;
  readonly at: string;
}

const gradeRow = z.object({
  id: z.number(),
  operation: z.enum(CUT_ROLES),
  grade: z.number(),
  passes_done: z.number(),
  x_mm: z.number().nullable(),
  y_mm: z.number().nullable(),
  author: z.string(),
  at: timeColumn,
});

export async function addRunGrade(
  db: Store,
  runId: number,
  grade: Omit<RunGrade, 'id' | 'author' | 'at'>,
  author: string,
  now: Date,
): Promise<void> {
  await db('run_grades').insert({
    run_id: runId,
    operation: grade.operation,
    grade: grade.grade,
    passes_done: grade.passesDone,
    x_mm: grade.spot?.x ?? null,
    y_mm: grade.spot?.y ?? null,
    author,
    at: now,
  });
}

/** Grades of a run, the oldest first. */
export async function listRunGrades(db: Store, runId: number): Promise<readonly RunGrade[]> {
  const rows: unknown[] = await db('run_grades').where({ run_id: runId }).orderBy('id');
  return rows.map((row) => {
    const { passes_done, x_mm, y_mm, grade, ...same } = gradeRow.parse(row);
    const spot = x_mm === null || y_mm === null ? null : { x: x_mm, y: y_mm };
    return { ...same, grade: grade as DepthGrade, passesDone: passes_done, spot };
  });
}

/** Runs that the server was driving when it stopped. */
export async function listDrivenRuns(db: Store): Promise<readonly number[]> {
  const rows: { id: number }[] = await db('runs')
    .whereIn('state', ['sending', 'cutting', 'paused'])
    .select('id');
  return rows.map(({ id }) => id);
}
