import type { BoxMm } from '#core/geometry/box.ts';
import { layOutJob, type JobDesign } from '#core/job/layOutJob.ts';
import type { Machine } from '#core/station/machine.ts';
import { placedBoxes } from '#core/sheet/layout.ts';
import { listMarks } from '#core/sheet/marks/marks.ts';

/**
 * The sheet of a job with what test cuts must keep off: the job's own pieces and the registration marks with room
 * around them. What is left is where a test card goes.
 *
 * @throws AppError as layOutJob does
 * @example reserveJob(job, machine).widthMm // 210
 */
export function reserveJob(
  job: JobDesign,
  machine: Pick<Machine, 'marks'>,
): { readonly widthMm: number; readonly heightMm: number; readonly taken: readonly BoxMm[] } {
  const { pieces } = layOutJob(job, machine);
  const { widthMm, heightMm } = job.sheet;
  const laid = placedBoxes(job.layout, pieces, 0);
  const marks = listMarks(machine.marks, job.sheet).map(({ keepOut }) => keepOut);
  return { widthMm, heightMm, taken: [...laid, ...marks] };
}
