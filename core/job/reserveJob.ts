import { AppError } from '#core/errors/appError.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { hasPrint } from '#core/job/hasPrint.ts';
import { layOutJob, type JobDesign } from '#core/job/layOutJob.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Stack } from '#core/stack/layer.ts';
import { placedBoxes } from '#core/sheet/layout.ts';
import { listMarks } from '#core/sheet/marks/marks.ts';

/**
 * The sheet of a job with what test cuts must keep off: the job's own pieces and the registration marks with room
 * around them. What is left is where a test card goes. On a sheet that the job prints, a test of the printed state goes
 * on the patch of ink in the test corner, and a test of the bare state keeps off it.
 *
 * @param stack of the state that is tested
 * @throws AppError `badInput` for a printed state where the job keeps no corner to print a patch in; as layOutJob does
 * @example reserveJob(job, machine, station.loaded.condition.stack).widthMm // 210
 */
export function reserveJob(
  job: JobDesign,
  machine: Pick<Machine, 'marks'>,
  stack: Stack,
): { readonly widthMm: number; readonly heightMm: number; readonly taken: readonly BoxMm[] } {
  const { pieces, drawing, given, testCorner } = layOutJob(job, machine);
  const { widthMm, heightMm } = job.sheet;
  const laid = placedBoxes(job.layout, pieces, 0);
  const marks = listMarks(machine.marks, job.sheet).map(({ keepOut }) => keepOut);
  const patch = hasPrint(drawing, given) ? around(testCorner, stack, job.sheet) : [];
  return { widthMm, heightMm, taken: [...laid, ...marks, ...patch] };
}

function around(
  corner: BoxMm | null,
  stack: Stack,
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
): readonly BoxMm[] {
  const isInked = stack.some(({ role }) => role === 'ink');
  if (!isInked) return corner ? [corner] : [];
  if (!corner) {
    throw new AppError(
      'badInput',
      'What this job leaves free is not printed: grades from there would be of bare stock. Keep a test corner in the job, which prints a patch of ink for tests, or test on a printed scrap.',
    );
  }
  const { minX, minY, maxX, maxY } = corner;
  return [
    { minX: 0, minY: 0, maxX: widthMm, maxY: minY },
    { minX: 0, minY: maxY, maxX: widthMm, maxY: heightMm },
    { minX: 0, minY, maxX: minX, maxY },
    { minX: maxX, minY, maxX: widthMm, maxY },
  ].filter((box) => box.maxX > box.minX && box.maxY > box.minY);
}
