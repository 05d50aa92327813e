import { z } from 'zod';
import { groupBy } from '#core/collections/groupBy.ts';
import { gatherEvidence, type CutSource } from '#core/dialIn/gatherEvidence.ts';
import type { RunEvidence } from '#core/dialIn/listTrials.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { correctValues, sheetFactor } from '#core/setting/correctForce.ts';
import { RUN_VERDICTS } from '#core/setting/setting.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Material } from '#core/stack/material.ts';
import { DEPTH_OPERATIONS, depthTaughtBy } from '#core/stack/operation.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { gradedPassesOf, readGradeRows, type GradedPass } from '#store/repositories/dialIn/gradedPasses.ts';
import { findMachines } from '#store/repositories/book/machines.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { listTestCuts } from '#store/repositories/dialIn/testCuts.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';
import { settingValuesSchema } from '#core/setting/settingFields.ts';

/** Operations whose runs teach a threshold. */
const TEACHING = [...DEPTH_OPERATIONS, 'perforated'] as const;

const runRow = z.object({
  run_id: z.number(),
  condition_id: z.number(),
  machine_id: z.number(),
  operation: z.enum(TEACHING),
  /** As it was cut; `null` for runs from before that was kept. */
  cut_values: jsonColumn(settingValuesSchema.nullable()),
  setting_values: jsonColumn(settingValuesSchema),
  blade_metres: z.number(),
  verdict: z.enum(RUN_VERDICTS),
  blade_kind: z.string().nullable(),
  lot: z.string(),
  colour: z.string(),
});
type RunRow = z.infer<typeof runRow>;

/** A source with the grades that were given at the sheets of its runs. */
export interface BookSource extends CutSource {
  readonly grades: readonly GradedPass[];
}

/**
 * Test cuts and noted runs by condition and machine.
 *
 * @param material of this one, or `null` for the whole book
 * @param machineId on this one, or `null` for all
 * @param known machines that were read already
 */
export async function readCutSources(
  db: Store,
  material: Material | null,
  machineId: number | null = null,
  known: readonly Machine[] = [],
): Promise<readonly BookSource[]> {
  const materials = material ? [material] : await listMaterials(db, true);
  const conditions = materials.flatMap((material) =>
    material.conditions.map((condition) => ({ material, condition })),
  );
  const ofMaterial = material && conditions.map(({ condition }) => condition.id);
  const [cuts, runs, gradeRows] = await Promise.all([
    listTestCuts(db, ofMaterial, machineId),
    readRuns(db, ofMaterial, machineId),
    readGradeRows(db, machineId, ofMaterial),
  ]);
  const seenOn = [
    ...cuts.map((cut) => cut.machineId),
    ...[...runs, ...gradeRows].map((row) => row.machine_id),
  ];
  const machines = await findAllMachines(db, seenOn, known);
  const grades = gradedPassesOf(gradeRows, machines);
  const keyOf = (conditionId: number, machineId: number) => `${conditionId}/${machineId}`;
  const cutsOf = groupBy(cuts, (cut) => keyOf(cut.conditionId, cut.machineId));
  const gradesOf = groupBy(grades, (grade) => keyOf(grade.conditionId, grade.machineId));
  const graded = new Set(grades.map(({ runId, setting }) => `${runId}/${setting}`));
  const runsOf = groupBy(runs, (run) => keyOf(run.condition_id, run.machine_id));
  return conditions.flatMap(({ material, condition }) =>
    machines.flatMap((machine): readonly BookSource[] => {
      const key = keyOf(condition.id, machine.id);
      const own = cutsOf.get(key) ?? [];
      const seen = gradesOf.get(key) ?? [];
      // What a person saw says more than the verdict of the same run.
      const noted = (runsOf.get(key) ?? [])
        .filter(({ run_id, operation }) => !graded.has(`${run_id}/${operation}`))
        .flatMap((row) => readRun(row, machine, sheetFactor(material, row.colour, row.lot)));
      const runs = [...noted, ...seen.map((grade) => ({ ...grade, verdict: 'clean' as const }))];
      if (own.length + runs.length === 0) return [];
      return [{ material, condition, machine, cuts: own, runs, grades: seen }];
    }),
  );
}

/** The machines with these ids by their ids; those known already are not read again. */
async function findAllMachines(
  db: Store,
  ids: readonly number[],
  known: readonly Machine[],
): Promise<readonly Machine[]> {
  const missing = [...new Set(ids)].filter((id) => !known.some((machine) => machine.id === id));
  return [...known, ...(await findMachines(db, missing))].toSorted((one, other) => one.id - other.id);
}

/** The evidence of a whole book, with the newest test cut in it: what a fit of the knowledge starts from. */
export async function readBookEvidence(
  db: Store,
): Promise<{ readonly sheets: readonly EvidenceSheet[]; readonly lastCutId: number }> {
  const sources = await readCutSources(db, null);
  const ids = sources.flatMap(({ cuts }) => cuts.map(({ id }) => id));
  return {
    sheets: gatherEvidence(sources),
    lastCutId: ids.reduce((most, id) => Math.max(most, id), 0),
  };
}

/** What was cut with which setting, where a person noted the run and the blade was known. */
async function readRuns(
  db: Store,
  conditionIds: readonly number[] | null,
  machineId: number | null,
): Promise<readonly RunRow[]> {
  const query = db('runs')
    .join('run_settings', 'run_settings.run_id', 'runs.id')
    .join('settings', 'settings.id', 'run_settings.setting_id')
    .join('setting_revisions', function join() {
      this.on('setting_revisions.setting_id', 'settings.id').andOn(
        'setting_revisions.revision',
        'run_settings.revision',
      );
    })
    .leftJoin('blades', 'blades.id', 'runs.blade_id')
    .whereIn('runs.verdict', [...RUN_VERDICTS])
    .whereIn('settings.operation', [...TEACHING])
    .whereNotNull('runs.blade_metres')
    .select(
      { run_id: 'runs.id' },
      'runs.condition_id',
      'runs.machine_id',
      'runs.verdict',
      'runs.lot',
      'runs.colour',
      { blade_kind: 'blades.kind' },
      'run_settings.cut_values',
      'runs.blade_metres',
      'settings.operation',
      'setting_revisions.setting_values',
    );
  if (conditionIds) query.whereIn('runs.condition_id', [...conditionIds]);
  if (machineId !== null) query.where('runs.machine_id', machineId);
  return ((await query) as unknown[]).map((row) => runRow.parse(row));
}

/** What a run says of the force it was cut with, after what lot and colour add to that of its setting. */
function readRun(
  row: RunRow,
  { speedScale, forceScale }: Pick<Machine, 'speedScale' | 'forceScale'>,
  factor: number,
): readonly RunEvidence[] {
  const operation = depthTaughtBy(row.operation);
  if (!operation) return [];
  const values = row.cut_values ?? correctValues(row.setting_values, forceScale, factor);
  return [
    {
      operation,
      force: values.force,
      passes: values.passes,
      speedMmPerS: speedToMmPerS(values.speed, speedScale),
      bladeMetres: row.blade_metres,
      verdict: row.verdict,
      lot: row.lot,
      colour: row.colour,
      bladeKind: row.blade_kind ?? '',
    },
  ];
}
