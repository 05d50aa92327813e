import { AppError } from '#core/errors/appError.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readTestCutRow } from '#store/rows/settingRows.ts';

export type NewTestCut = Omit<TestCut, 'id' | 'at' | 'lot' | 'colour'> &
  Partial<Pick<TestCut, 'lot' | 'colour'>>;

/**
 * Test cuts, oldest first, without those taken back.
 *
 * @param conditionIds of one condition, of several, or `null` for the whole book
 * @param machineId on one machine, or `null` for all
 */
export async function listTestCuts(
  db: Store,
  conditionIds: number | readonly number[] | null,
  machineId: number | null = null,
): Promise<readonly TestCut[]> {
  const query = db('test_cuts')
    .leftJoin('blades', 'blades.id', 'test_cuts.blade_id')
    .where({ undone_at: null })
    .orderBy(['test_cuts.at', 'test_cuts.id'])
    .select('test_cuts.*', 'blades.kind');
  if (conditionIds !== null) query.whereIn('condition_id', [conditionIds].flat());
  if (machineId !== null) query.where({ machine_id: machineId });
  return (await query).map(readTestCutRow);
}

/** How many test cuts stand in the book, by the id of their machine. */
export async function countTestCuts(db: Store): Promise<ReadonlyMap<number, number>> {
  const rows: { machine_id: number; cuts: number }[] = await db('test_cuts')
    .where({ undone_at: null })
    .groupBy('machine_id')
    .select('machine_id', db.raw('count(*) as cuts'));
  return new Map(rows.map(({ machine_id, cuts }) => [machine_id, Number(cuts)]));
}

/** Records a test cut and returns its id. */
export async function addTestCut(db: Store, cut: NewTestCut, now: Date): Promise<number> {
  const [id] = await db('test_cuts').insert(cutColumns(cut, now));
  return id as number;
}

/** Records test cuts in one statement, all or none. */
export async function addTestCuts(db: Store, cuts: readonly NewTestCut[], now: Date): Promise<void> {
  if (cuts.length > 0) await db('test_cuts').insert(cuts.map((cut) => cutColumns(cut, now)));
}

function cutColumns(cut: NewTestCut, now: Date) {
  return {
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
  };
}

/** Takes a test cut back; it stays in the store, marked. @throws AppError `notFound` when it is not there (any more) */
export async function undoTestCut(db: Store, id: number, now: Date): Promise<void> {
  const changed = await db('test_cuts').where({ id, undone_at: null }).update({ undone_at: now });
  if (changed === 0) throw new AppError('notFound', `test cut ${id} is not there, or was taken back already`);
}
