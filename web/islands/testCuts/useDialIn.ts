import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { gradesOfStack, type DepthGrade, type Flaw, type Operation } from '#core/stack/depthGrade.ts';
import type { Station } from '#core/station/station.ts';
import { snapForce } from '#core/units/forceScale.ts';
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
  const record = useMutation({
    mutationFn: (grade: DepthGrade) => {
      const { speed, exposureMm } = answer?.values ?? { speed: 0, exposureMm: 0 };
      return callApi<BenchAnswer>(`${path}/test-cuts`, 'POST', {
        operation,
        force,
        passes,
        speed,
        exposureMm,
        grade,
        flaws,
      });
    },
    onSuccess: settle,
  });
  const undo = useMutation({
    mutationFn: (id: number) => callApi(`/api/test-cuts/${id}`, 'DELETE'),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  });
  const keep = useMutation({
    mutationFn: (given: { readonly force: number; readonly reason: string }) => {
      const { values, sources } = answer?.suggestion ?? {};
      const base = bench.revision?.values ?? values;
      const body = {
        operation,
        values: { ...base, force: given.force },
        sources: { ...(bench.revision?.sources ?? sources), force: 'testCuts' },
        reason: given.reason,
        basedOn: bench.revision?.revision ?? 0,
      };
      return callApi<BenchAnswer>(`${path}/settings`, 'POST', body);
    },
    onSuccess: settle,
    onError: () => queries.invalidateQueries({ queryKey: key }),
  });
  const cuts = bench.cuts.filter((cut) => cut.passes === passes);
  const isBusy = record.isPending || undo.isPending || keep.isPending;
  const nudge = (steps: number) =>
    setOwnForce(snapForce(force + steps * machine.forceScale.step, machine.forceScale));
  useGradeKeys({
    grades: gradesOfStack(loaded?.condition.stack.some((layer) => layer.role === 'liner') ?? true),
    isBusy,
    onGrade: record.mutate,
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
    isKept: keep.isSuccess && !record.isSuccess,
    setForce: (value: number) => setOwnForce(snapForce(value, machine.forceScale)),
    nudge,
    toggleFlaw: (flaw: Flaw) =>
      setFlaws(flaws.includes(flaw) ? flaws.filter((one) => one !== flaw) : [...flaws, flaw]),
    grade: record.mutate,
    undo: undo.mutate,
    keep: keep.mutate,
    keptRevision: keep.data?.revision ?? null,
  };
}

interface GradeKeys {
  readonly grades: readonly DepthGrade[];
  readonly isBusy: boolean;
  readonly onGrade: (grade: DepthGrade) => void;
  readonly onNudge: (steps: number) => void;
  readonly onUndo: () => void;
}

/** Digits grade, arrows nudge, u takes back: for one hand on the keyboard. */
function useGradeKeys({ grades, isBusy, onGrade, onNudge, onUndo }: GradeKeys) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isElsewhere =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (isElsewhere || isBusy || event.ctrlKey || event.metaKey || event.altKey) return;
      const grade = grades.find((one) => String(one) === event.key);
      if (grade !== undefined) onGrade(grade);
      if (event.key === 'ArrowLeft') onNudge(-1);
      if (event.key === 'ArrowRight') onNudge(1);
      if (event.key === 'u') onUndo();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}
