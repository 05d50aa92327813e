import { usedSizes, type OfferedSheet } from '#core/sheet/offerSheets.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readSheetColumn } from '#store/rows/jobRows.ts';

/** So many of the last runs tell from which sheets a material is cut. */
const RUNS = 20;

/** The sizes of sheets that a material was cut from, in its last runs that came to their end. */
export async function listUsedSheets(db: Store, materialId: number): Promise<readonly OfferedSheet[]> {
  const rows: readonly { readonly sheet: unknown }[] = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .join('material_conditions', 'material_conditions.id', 'runs.condition_id')
    .where({ 'material_conditions.material_id': materialId, 'runs.state': 'done' })
    .whereNull('jobs.dial_in_id')
    .whereNull('jobs.judged')
    .orderBy('runs.started_at', 'desc')
    .limit(RUNS)
    .select('jobs.sheet');
  return usedSizes(rows.map(({ sheet }) => readSheetColumn(sheet)));
}
