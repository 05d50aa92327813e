import { forceUnit, sayForce } from '#core/units/forceScale.ts';
import { nameCondition } from '#core/stack/material.ts';
import { findJobHead } from '#store/repositories/jobs/jobs.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { listRunPhotos } from '#store/repositories/runs/runPhotos.ts';
import { findDrivenRun } from '#store/repositories/runs/runEvents.ts';
import { listRunGrades } from '#store/repositories/runs/runGrades.ts';
import { findRun, listRunsOfJob } from '#store/repositories/runs/runs.ts';
import { serverContext } from '#server/serverContext.ts';
import { readId } from '#web/http/readId.ts';
import { nullIfMissing } from '#web/http/nullIfMissing.ts';

const VERDICT_WORDS = { clean: 'clean', someSpoiled: 'some spoiled', failed: 'failed' } as const;

/** Everything that was done with a job, the newest first, or `null` when there is no such job. */
export function readDiary(id: string | undefined) {
  return nullIfMissing(async () => {
    const { store } = serverContext();
    const job = await findJobHead(store, readId(id));
    const { material, condition } = await findMaterialByCondition(store, job.conditionId);
    const machine = await findMachine(store, job.machineId);
    const unit = forceUnit(machine.forceScale);
    const runs = await Promise.all(
      (await listRunsOfJob(store, job.id)).map(async (runId) => {
        const run = await findRun(store, runId);
        const progress = await findDrivenRun(store, runId).catch(() => null);
        const passes = progress?.program.parts.flatMap((part) => part.passes) ?? [];
        const numbers = passes
          .map(({ operation, values }) => `${operation} ${sayForce(values.force, unit)}, ${values.passes}×`)
          .join(' · ');
        return {
          ...run,
          numbers,
          verdictWords: run.verdict ? VERDICT_WORDS[run.verdict] : `${run.state}, not noted`,
          grades: await listRunGrades(store, runId),
          photos: await listRunPhotos(store, runId),
        };
      }),
    );
    const sum = (of: (run: (typeof runs)[number]) => number) => runs.reduce((all, run) => all + of(run), 0);
    return {
      id: job.id,
      name: job.name,
      updatedAt: job.updatedAt,
      material: nameCondition(material.name, condition.kind),
      machine: machine.name,
      sheet: `${job.sheet.name}, ${Math.round(job.sheet.widthMm)} × ${Math.round(job.sheet.heightMm)} mm`,
      runs,
      good: sum(({ piecesGood }) => piecesGood),
      spoiled: sum(({ piecesSpoiled }) => piecesSpoiled),
      sheets: sum(({ sheetsUsed }) => sheetsUsed),
    };
  });
}
