import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { gradesOfStack, type DepthGrade, type Flaw, type Operation } from '#core/stack/depthGrade.ts';
import type { Station } from '#core/station/station.ts';
import { useAnswer } from '#web/islands/testCuts/useAnswer.ts';
import { useDialInRequests } from '#web/islands/testCuts/useDialInRequests.ts';
import { useForceDial } from '#web/islands/testCuts/useForceDial.ts';
import { useGradeKeys } from '#web/islands/testCuts/useGradeKeys.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

export type Dial = ReturnType<typeof useDialIn>;

/** The state of one dial-in: force and passes to cut next, recording a grade, taking it back, keeping the result. */
export function useDialIn(station: Station, operation: Operation, initial: BenchAnswer) {
  const { machine, loaded } = station;
  const asked = useAnswer(station, operation, initial);
  const { bench, key, path, passes, arePassesChosen } = asked;
  const queries = useQueryClient();
  const { force, setForce, nudge, takeAdvice } = useForceDial(
    machine.forceScale,
    bench.answer?.advisedForce ?? machine.forceScale.min,
  );
  const [flaws, setFlaws] = useState<readonly Flaw[]>([]);
  const settle = (fresh: BenchAnswer) => {
    queries.setQueryData(key, fresh);
    takeAdvice();
    setFlaws([]);
  };
  const { record, undo, keep } = useDialInRequests({
    path,
    operation,
    bench,
    passes,
    arePassesChosen,
    queryKey: key,
    onFresh: settle,
  });
  const cuts = bench.cuts.filter((cut) => cut.passes === passes);
  const isBusy = record.isPending || undo.isPending || keep.isPending || asked.isStale;
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
    error: record.error ?? undo.error ?? asked.readError,
    keepError: keep.error,
    setForce,
    nudge,
    choosePasses: (count: number) => {
      asked.setPasses(count);
      takeAdvice();
    },
    toggleFlaw: (flaw: Flaw) =>
      setFlaws(flaws.includes(flaw) ? flaws.filter((one) => one !== flaw) : [...flaws, flaw]),
    grade: (grade: DepthGrade) => record.mutate({ grade, force, passes, flaws }),
    undo: undo.mutate,
    keep: keep.mutate,
    keptRevision: keep.data?.revision ?? null,
  };
}
