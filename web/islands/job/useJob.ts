import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Job } from '#core/job/job.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { PlanReply } from '#web/schemas/job.ts';

export type JobChange = Partial<Pick<Job, 'roles' | 'sheet' | 'placement' | 'name'>>;
export type Step = 'roles' | 'sheet' | 'passes' | 'cut';

/** A job with its plan. A change is sent with the version it was made on; when somebody was quicker, theirs is shown. */
export function useJob(initial: Job) {
  const [step, setStep] = useState<Step>(initial.areRolesGuessed ? 'roles' : 'passes');
  const queries = useQueryClient();
  const key = ['job', initial.id];
  const { data: job } = useQuery({
    queryKey: key,
    queryFn: () => callApi<Job>(`/api/jobs/${initial.id}`),
    initialData: initial,
  });
  const plan = useQuery({
    queryKey: ['plan', job.id, job.version],
    queryFn: () => callApi<PlanReply>(`/api/jobs/${job.id}/plan`),
    placeholderData: (previous) => previous,
  });
  const change = useMutation({
    mutationFn: (wanted: JobChange) =>
      callApi<Job>(`/api/jobs/${job.id}`, 'PATCH', { ...wanted, version: job.version }),
    onSuccess: (fresh) => queries.setQueryData(key, fresh),
    onError: () => queries.invalidateQueries({ queryKey: key }),
  });
  return {
    job,
    plan: plan.data ?? null,
    isPlanning: plan.isFetching,
    step,
    setStep,
    change: change.mutate,
    isBusy: change.isPending,
    error: change.error ?? plan.error,
  };
}
