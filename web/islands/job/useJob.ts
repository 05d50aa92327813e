import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { withChange } from '#core/job/withChange.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { useTopic } from '#web/islands/together/useTopic.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';

export type JobChange = Partial<
  Pick<
    JobReply,
    | 'roles'
    | 'lineRoles'
    | 'edits'
    | 'sheet'
    | 'layout'
    | 'print'
    | 'passes'
    | 'name'
    | 'drawingName'
    | 'conditionId'
    | 'machineId'
  >
> & {
  /** Changes of further drawings. */
  readonly moreDrawings?: readonly DrawingChange[];
};

type FurtherDrawing = NonNullable<JobReply['moreDrawings']>[number];
export type DrawingChange = Pick<FurtherDrawing, 'number'> &
  Partial<Pick<FurtherDrawing, 'name' | 'roles' | 'lineRoles' | 'edits'>>;

/**
 * Whether pieces are laid out anew with a change: they lie in rows, and the sheet, its marks, copies or distances are
 * others. What somebody laid by hand stays.
 */
function isArranged(job: JobReply, { sheet, print, layout }: JobChange): boolean {
  const { arrangement, placements } = layout ?? job.layout;
  if (arrangement === undefined || (layout && placements !== job.layout.placements)) return false;
  return sheet !== undefined || print !== undefined || layout !== undefined;
}

/** The steps of a job, in the order of the work. */
export const STEPS = [
  { value: 'drawing', name: 'Drawing' },
  { value: 'roles', name: 'Roles' },
  { value: 'sheet', name: 'Sheet' },
  { value: 'passes', name: 'Passes' },
  { value: 'runSheet', name: 'Run sheet' },
  { value: 'cut', name: 'Cut' },
] as const;
export type Step = (typeof STEPS)[number]['value'];

/** A job with its plan. A change is sent with the version it was made on; when somebody was quicker, theirs is shown. */
export function useJob(initial: JobReply) {
  const [step, setStep] = useState<Step>(initial.areRolesGuessed ? 'roles' : 'passes');
  const [sheetNumber, setSheetNumber] = useState(1);
  const queries = useQueryClient();
  const key = ['job', initial.id];
  const { data: job } = useQuery({
    queryKey: key,
    queryFn: () => callApi<JobReply>(`/api/jobs/${initial.id}`),
    initialData: initial,
  });
  const isPlanned = step === 'passes' || step === 'runSheet' || step === 'cut';
  const plan = useQuery({
    queryKey: ['plan', job.id, job.version, sheetNumber],
    queryFn: () => callApi<PlanReply>(`/api/jobs/${job.id}/plan?sheet=${sheetNumber}`),
    placeholderData: (previous) => previous,
    enabled: isPlanned,
  });
  /** Wishes that have no answer yet, in their order. */
  const pending = useRef<readonly JobChange[]>([]);
  const together = useTopic(`jobs/${initial.id}`, () => {
    // While a hand of this page is at work, its own answer brings what others did, or is refused over it.
    if (pending.current.length === 0) void queries.invalidateQueries({ queryKey: key });
  });
  const arranged = useRef(new WeakSet<JobChange>());
  const change = useMutation({
    // One after the other, each on the version that the last one left: nobody overtakes himself.
    scope: { id: `job ${initial.id}` },
    mutationFn: (wanted: JobChange) => {
      const { version } = queries.getQueryData<JobReply>(key) ?? job;
      const arrange = arranged.current.has(wanted);
      return callApi<JobReply>(`/api/jobs/${initial.id}`, 'PATCH', { ...wanted, version, arrange });
    },
    // Shown at once: a hand does not wait for the book.
    onMutate: (wanted) =>
      queries.setQueryData(key, (now: JobReply) => {
        if (isArranged(now, wanted)) arranged.current.add(wanted);
        pending.current = [...pending.current, wanted];
        return withChange(now, wanted);
      }),
    // What is wished since is not lost when the answer to an earlier wish comes.
    onSuccess: (fresh, answered) => {
      pending.current = pending.current.filter((wish) => wish !== answered);
      queries.setQueryData(key, pending.current.reduce<JobReply>(withChange, fresh));
    },
    onError: (_, refused) => {
      pending.current = pending.current.filter((wish) => wish !== refused);
      return queries.invalidateQueries({ queryKey: key });
    },
  });
  return {
    job,
    plan: plan.data ?? null,
    isPlanning: plan.isFetching,
    step,
    setStep,
    sheetNumber,
    setSheetNumber,
    change: change.mutate,
    /** What somebody else, or another way in, made of it. */
    refresh: () => queries.invalidateQueries({ queryKey: key }),
    together,
    isBusy: change.isPending,
    error: change.error ?? plan.error,
  };
}
