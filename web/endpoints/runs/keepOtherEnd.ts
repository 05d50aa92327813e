import { shelfAfterRun } from '#core/sheet/shelfAfterRun.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeMaterial, findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findJobHead } from '#store/repositories/jobs/jobs.ts';
import { findRun } from '#store/repositories/runs/runs.ts';

/**
 * When a sheet is taken out of its machine: its other end goes to the shelf, or is used up. Nothing of it stands between
 * an operator and the end of a run: who wants it kept nevertheless can do so by hand.
 */
export async function keepOtherEnd(store: Store, runId: number, author: string, now: Date): Promise<void> {
  const run = await findRun(store, runId);
  if (run.dialInId !== null || run.judged !== null) return;
  const job = await findJobHead(store, run.jobId);
  // Changed since: what was cut was another end.
  if (job.sheet.heightMm !== run.sheetHeightMm || job.sheet.widthMm !== run.sheetWidthMm) return;
  const { material } = await findMaterialByCondition(store, run.conditionId);
  const remnants = shelfAfterRun(material.details.remnants, job.sheet, job.name, runId);
  if (remnants === material.details.remnants) return;
  const { id, version, isArchived: _archived, ...facts } = material;
  await changeMaterial(
    store,
    id,
    { ...facts, details: { ...material.details, remnants } },
    version,
    author,
    now,
  );
}
