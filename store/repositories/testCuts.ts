import { AppError } from '#core/errors/appError.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readTestCutRow } from '#store/rows/settingRows.ts';

export type NewTestCut = Omit<TestCut, 'id' | 'at' | 'lot' | 'colour'> &
  Partial<Pick<TestCut, 'lot' | 'colour'>>;

/** Test cuts of a condition on a machine, oldest first, without those taken back. */
export async function listTestCuts(
  db: Store,
  conditionId: number,
  machineId: number,
): Promise<readonly TestCut[]> {
  const rows = await db('test_cuts')
    .where({ condition_id: conditionId, machine_id: machineId, undone_at: null })
    .orderBy(['at', 'id']);
  return rows.map(readTestCutRow);
}

/** Records a test cut and returns its id. */
export async function addTestCut(db: Store, cut: NewTestCut, now: Date): Promise<number> {
  const [id] = await db('test_cuts').insert({
    condition_id: cut.conditionId,
    machine_id: cut.machineId,
    operation: cut.operation,
    force_value: cut.force,
    force_gf: cut.forceGf,
    speed_mm_per_s: cut.speedMmPerS,
    passes: cut.passes,
    exposure_mm: cut.exposureMm,
    blade_metres: cut.bladeMetres,
    grade: cut.grade,
    grade_to: cut.upTo ?? null,
    flaws: JSON.stringify(cut.flaws),
    author: cut.author,
    lot: cut.lot ?? '',
    colour: cut.colour ?? '',
    blade_id: cut.bladeId ?? null,
    dial_in_id: cut.dialInId ?? null,
    load_number: cut.load ?? null,
    cell: cut.cell ?? null,
    at: now,
  });
  return id as number;
}

/** Takes a test cut back; it stays in the store, marked. @throws AppError `notFound` when it is not there (any more) */
export async function undoTestCut(db: Store, id: number, now: Date): Promise<void> {
  const changed = await db('test_cuts').where({ id, undone_at: null }).update({ undone_at: now });
  if (changed === 0) throw new AppError('notFound', `test cut ${id} is not there, or was taken back already`);
}
