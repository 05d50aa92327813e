import type { BoxMm } from '#core/geometry/box.ts';
import type { JobDesign } from '#core/job/layOutJob.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import type { Machine } from '#core/station/machine.ts';
import { affineOf, turnBox } from '#core/sheet/layout.ts';
import { listMarks } from '#core/sheet/marks.ts';
import type { Piece } from '#core/sheet/splitPieces.ts';

/**
 * The sheet of a job with what test cuts must keep off: the job's own pieces and the registration marks with room
 * around them. What is left is where a test card goes.
 *
 * @throws AppError as layOutJob does
 */
export function reserveJob(
  job: JobDesign,
  machine: Pick<Machine, 'marks'>,
): { readonly widthMm: number; readonly heightMm: number; readonly taken: readonly BoxMm[] } {
  const { pieces } = layOutJob(job, machine);
  const { widthMm, heightMm } = job.sheet;
  const laid = job.layout.placements
    .filter(({ sheet, piece }) => sheet === 0 && pieces[piece])
    .map((placement) => {
      const { box } = pieces[placement.piece] as Piece;
      return turnBox(box, affineOf(box, placement));
    });
  const marks = listMarks(machine.marks, job.sheet).map(({ keepOut }) => keepOut);
  return { widthMm, heightMm, taken: [...laid, ...marks] };
}
