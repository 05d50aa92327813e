import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Operation } from '#core/stack/depthGrade.ts';
import type { Station } from '#core/station/station.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

/** The answer for the passes looked at, read anew when they change. */
export function useAnswer({ machine, loaded }: Station, operation: Operation, initial: BenchAnswer) {
  const usualPasses = initial.answer?.values.passes ?? 1;
  const [passes, setPasses] = useState(usualPasses);
  const key = ['answer', machine.id, loaded?.condition.id, operation, passes];
  const path = `/api/stations/${machine.id}`;
  const { data, isPlaceholderData, error } = useQuery({
    queryKey: key,
    queryFn: () => callApi<BenchAnswer>(`${path}/answers/${operation}?passes=${passes}`),
    placeholderData: keepPreviousData,
    ...(passes === usualPasses ? { initialData: initial } : {}),
  });
  return {
    bench: data ?? initial,
    key,
    path,
    passes,
    arePassesChosen: passes !== usualPasses,
    setPasses,
    isStale: isPlaceholderData,
    readError: error,
  };
}
