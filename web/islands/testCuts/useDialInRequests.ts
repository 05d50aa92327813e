import { useMutation, useQueryClient, type QueryKey } from '@tanstack/react-query';
import type { DepthGrade, Flaw, Operation } from '#core/stack/depthGrade.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

interface GivenCut {
  readonly grade: DepthGrade;
  readonly force: number;
  readonly passes: number;
  readonly flaws: readonly Flaw[];
}

interface Requests {
  readonly path: string;
  readonly operation: Operation;
  readonly bench: BenchAnswer;
  /** The number of passes that is looked at, and whether somebody chose it. */
  readonly passes: number;
  readonly arePassesChosen: boolean;
  readonly queryKey: QueryKey;
  readonly onFresh: (fresh: BenchAnswer) => void;
}

/** Recording a grade, taking one back, keeping a revision. A refusal to keep shows what stands now. */
export function useDialInRequests(given: Requests) {
  const { path, operation, bench, queryKey, onFresh, passes, arePassesChosen } = given;
  const queries = useQueryClient();
  const record = useMutation({
    mutationFn: (cut: GivenCut) => {
      const { speed, exposureMm } = bench.answer?.values ?? { speed: 0, exposureMm: 0 };
      return callApi<BenchAnswer>(`${path}/test-cuts`, 'POST', { operation, speed, exposureMm, ...cut });
    },
    onSuccess: onFresh,
  });
  const undo = useMutation({
    mutationFn: (id: number) => callApi(`/api/test-cuts/${id}`, 'DELETE'),
    onSettled: () => queries.invalidateQueries({ queryKey }),
  });
  const keep = useMutation({
    mutationFn: (wanted: { readonly force: number; readonly reason: string }) => {
      const { values, sources } = bench.answer?.suggestion ?? {};
      const base = bench.revision?.values ?? values;
      const body = {
        operation,
        values: { ...base, force: wanted.force, passes },
        sources: {
          ...(bench.revision?.sources ?? sources),
          force: 'testCuts',
          ...(arePassesChosen ? { passes: 'person' } : {}),
        },
        reason: wanted.reason,
        basedOn: bench.revision?.revision ?? 0,
      };
      return callApi<BenchAnswer>(`${path}/settings`, 'POST', body);
    },
    onSuccess: onFresh,
    onError: () => queries.invalidateQueries({ queryKey }),
  });
  return { record, undo, keep };
}
