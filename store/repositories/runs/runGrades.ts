import { z } from 'zod';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { CUT_ROLES, type CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { timeColumn } from '#store/rows/jsonColumn.ts';

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
