import { AppError } from '#core/errors/appError.ts';
import type { Job, JobDrawing } from '#core/job/job.ts';

type Head = Omit<JobDrawing, 'number' | 'source'>;

/**
 * A drawing of a job by its number.
 *
 * @throws AppError `notFound`
 * @example drawingIn({ ...job, name: 'Fox', areRolesGuessed: false }, 0).name // 'Fox'
 */
export function drawingIn<First extends Head, More extends Head & Pick<JobDrawing, 'number'>>(
  job: First & { readonly moreDrawings?: readonly More[] | undefined },
  number: number,
): First | More {
  const found = number === 0 ? job : job.moreDrawings?.find((one) => one.number === number);
  if (!found) throw new AppError('notFound', `this job has no drawing ${number}`);
  return found;
}

/**
 * A job without one of its drawings. When it is the first, the next takes its place and its number.
 *
 * @returns the job, and which number became which
 * @throws AppError `notFound`; `badInput` for the only one
 * @example withoutDrawing({ ...job, moreDrawings: [{ ...job, number: 3 }] }, 0).renumbered // { from: 3, to: 0 }
 */
export function withoutDrawing<Given extends Pick<Job, 'moreDrawings' | 'layout'>>(
  job: Given,
  number: number,
): { readonly next: Given; readonly renumbered: { readonly from: number; readonly to: number } | null } {
  const { moreDrawings = [] } = job;
  if (number > 0) {
    const left = moreDrawings.filter((one) => one.number !== number);
    if (left.length === moreDrawings.length)
      throw new AppError('notFound', `this job has no drawing ${number}`);
    return { next: { ...job, moreDrawings: left }, renumbered: null };
  }
  const [first, ...left] = moreDrawings;
  if (!first) throw new AppError('badInput', 'a job has at least one drawing');
  const { format, source, roles, lineRoles, areRolesGuessed, edits } = first;
  const { [first.number]: own, 0: _gone, ...byDrawing } = job.layout.byDrawing ?? {};
  const layout = {
    ...job.layout,
    isWhole: own?.isWhole ?? true,
    byDrawing: own ? { ...byDrawing, 0: own } : byDrawing,
  };
  return {
    next: { ...job, format, source, roles, lineRoles, areRolesGuessed, edits, moreDrawings: left, layout },
    renumbered: { from: first.number, to: 0 },
  };
}
