import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { gradesOfStack, type DepthGrade, type Flaw, type Operation } from '#core/stack/depthGrade.ts';
import type { Station } from '#core/station/station.ts';
import { snapForce } from '#core/units/forceScale.ts';
import { useDialInRequests } from '#web/islands/testCuts/useDialInRequests.ts';
import { useGradeKeys } from '#web/islands/testCuts/useGradeKeys.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

export type Dial = ReturnType<typeof useDialIn>;

/** The state of one dial-in: force and passes to cut next, recording a grade, taking it back, keeping the result. */
export function useDialIn(station: Station, operation: Operation, initial: BenchAnswer) {
  const { machine, loaded } = station;
  const queries = useQueryClient();
  const key = ['answer', machine.id, loaded?.condition.id, operation];
  const path = `/api/stations/${machine.id}`;
  const { data: bench } = useQuery({
    queryKey: key,
    queryFn: () => callApi<BenchAnswer>(`${path}/answers/${operation}`),
    initialData: initial,
  });
  const answer = bench.answer;
  const [ownForce, setOwnForce] = useState<number | null>(null);
  const [flaws, setFlaws] = useState<readonly Flaw[]>([]);
  const passes = answer?.values.passes ?? 1;
  const force = ownForce ?? answer?.advisedForce ?? machine.forceScale.min;
  const settle = (fresh: BenchAnswer) => {
    queries.setQueryData(key, fresh);
    setOwnForce(null);
    setFlaws([]);
  };
  const { record, undo, keep } = useDialInRequests({
    path,
    operation,
    bench,
    queryKey: key,
    onFresh: settle,
  });
  const cuts = bench.cuts.filter((cut) => cut.passes === passes);
  const isBusy = record.isPending || undo.isPending || keep.isPending;
  const nudge = (steps: number) =>
    setOwnForce(snapForce(force + steps * machine.forceScale.step, machine.forceScale));
  useGradeKeys({
    grades: gradesOfStack(loaded?.condition.stack.some((layer) => layer.role === 'liner') ?? true),
    isBusy,
    onGrade: (grade) => record.mutate({ grade, force, passes, flaws }),
    onNudge: nudge,
    onUndo: () => {
      const last = cuts.at(-1);
      if (last) undo.mutate(last.id);
    },
  });
  return {
    bench,
    cuts,
    force,
    passes,
    flaws,
    isBusy,
    error: record.error ?? undo.error,
    keepError: keep.error,
    setForce: (value: number) => setOwnForce(snapForce(value, machine.forceScale)),
    nudge,
    toggleFlaw: (flaw: Flaw) =>
      setFlaws(flaws.includes(flaw) ? flaws.filter((one) => one !== flaw) : [...flaws, flaw]),
    grade: (grade: DepthGrade) => record.mutate({ grade, force, passes, flaws }),
    undo: undo.mutate,
    keep: keep.mutate,
    keptRevision: keep.data?.revision ?? null,
  };
}
