import { z } from 'zod';
import { OPERATION_OF, CUT_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { type DepthOperation, depthTaughtBy, type Operation } from '#core/stack/operation.ts';
import { type DepthGrade } from '#core/stack/depthGrade.ts';
import type { Machine } from '#core/station/machine.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findMachines } from '#store/repositories/book/machines.ts';
import { programColumn } from '#store/rows/programSchema.ts';
import { timeColumn } from '#store/rows/jsonColumn.ts';

/** A pass of a run that was graded at the sheet, with the numbers it was cut with. */
export interface GradedPass {
  readonly id: number;
  readonly runId: number;
  readonly conditionId: number;
  readonly machineId: number;
  /** Whose setting it was cut with. */
  readonly setting: Operation;
  /** Whose threshold it teaches: a perforation that of a through cut. */
  readonly operation: DepthOperation;
  readonly grade: DepthGrade;
  readonly force: number;
  /** Passes that the path had when it was looked at. */
  readonly passes: number;
  readonly speedMmPerS: number;
  readonly bladeId: number | null;
  readonly bladeKind: string;
  readonly bladeMetres: number;
  readonly matId: number | null;
  readonly lot: string;
  readonly colour: string;
  readonly humidity: number | null;
  readonly at: string;
}

const row = z.object({
  id: z.number(),
  run_id: z.number(),
  condition_id: z.number(),
  machine_id: z.number(),
  operation: z.enum(CUT_ROLES),
  grade: z.number(),
  passes_done: z.number(),
  program: programColumn,
  blade_id: z.number().nullable(),
  blade_kind: z.string().nullable(),
  blade_metres: z.number().nullable(),
  mat_id: z.number().nullable(),
  lot: z.string(),
  colour: z.string(),
  humidity: z.number().nullable(),
  at: timeColumn,
});

type GradeRow = z.infer<typeof row>;

/** What was graded at the sheets of runs, on one machine or all, under some conditions or all; oldest first. */
export async function readGradeRows(
  db: Store,
  machineId: number | null,
  conditionIds: readonly number[] | null,
): Promise<readonly GradeRow[]> {
  const query = db('run_grades')
    .join('runs', 'runs.id', 'run_grades.run_id')
    .leftJoin('blades', 'blades.id', 'runs.blade_id')
    .whereNotNull('runs.program')
    .orderBy('run_grades.id')
    .select(
      'run_grades.*',
      'runs.condition_id',
      'runs.machine_id',
      'runs.program',
      'runs.blade_id',
      { blade_kind: 'blades.kind' },
      'runs.blade_metres',
      'runs.mat_id',
      'runs.lot',
      'runs.colour',
      'runs.humidity',
    );
  if (machineId !== null) query.where('runs.machine_id', machineId);
  if (conditionIds) query.whereIn('runs.condition_id', [...conditionIds]);
  return ((await query) as unknown[]).map((raw) => row.parse(raw));
}

/**
 * Graded passes of runs on one machine, or on all, oldest first. Of several looks at the same path with the same passes
 * the last counts.
 *
 * @param conditionIds of these conditions, or `null` for all
 */
export async function listGradedPasses(
  db: Store,
  machineId: number | null,
  conditionIds: readonly number[] | null = null,
): Promise<readonly GradedPass[]> {
  const rows = await readGradeRows(db, machineId, conditionIds);
  return gradedPassesOf(rows, await findMachines(db, [...new Set(rows.map((one) => one.machine_id))]));
}

/** {@link listGradedPasses} of rows that were read, with the machines they were cut on. */
export function gradedPassesOf(
  rows: readonly GradeRow[],
  machines: readonly Machine[],
): readonly GradedPass[] {
  const scales = new Map(machines.map(({ id, speedScale }) => [id, speedScale]));
  const passes = rows.flatMap((found): readonly GradedPass[] => {
    const setting = OPERATION_OF[found.operation];
    const operation = depthTaughtBy(setting);
    const scale = scales.get(found.machine_id);
    const pass = found.program.parts
      .flatMap((part) => part.passes)
      .find((one) => one.operation === found.operation);
    if (!pass || !scale || !operation) return [];
    return [
      {
        id: found.id,
        runId: found.run_id,
        conditionId: found.condition_id,
        machineId: found.machine_id,
        setting,
        operation,
        grade: found.grade as DepthGrade,
        force: pass.values.force,
        passes: found.passes_done,
        speedMmPerS: speedToMmPerS(pass.values.speed, scale),
        bladeId: found.blade_id,
        bladeKind: found.blade_kind ?? '',
        bladeMetres: found.blade_metres ?? 0,
        matId: found.mat_id,
        lot: found.lot,
        colour: found.colour,
        humidity: found.humidity,
        at: found.at,
      },
    ];
  });
  const last = new Map(passes.map((pass) => [`${pass.runId}/${pass.setting}/${pass.passes}`, pass]));
  return [...last.values()];
}
