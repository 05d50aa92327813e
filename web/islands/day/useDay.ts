import { wrap } from 'comlink';
import type { PlannedDay } from '#core/prep/planDay.ts';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { layOutDay, type DayJob, type DayOrder, type DayStep } from '#core/prep/dayPlan.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { DayReply } from '#web/schemas/day.ts';
import type { OrderDay } from '#web/workers/planDay.ts';

/** Which step: of which job, and where in it. */
export interface StepAt {
  readonly jobIndex: number;
  readonly stepIndex: number;
}

interface Shown {
  readonly jobs: readonly DayJob[];
  readonly sequence: readonly number[];
  readonly beginsAt: number;
}

/** A day on the screen: its jobs, their order, what dragging costs; every change is kept. */
export function useDay(initial: DayReply, changeMinutes: number, nowMinutes: number) {
  const { shown, error, setError, keep } = useKeptDay(initial);
  const ordering = useOrdering();
  const [bestEnd, setBestEnd] = useState<number | null>(null);
  const order = useCallback(
    (jobs: readonly DayJob[]): DayOrder => ({ jobs, changeMinutes, now: nowMinutes, setUps: {} }),
    [changeMinutes, nowMinutes],
  );
  const arrange = (next: Omit<Shown, 'sequence'>) =>
    ordering.ask(order(next.jobs), ({ sequence, endsAt }) => {
      setBestEnd(endsAt);
      void keep({ ...next, sequence });
    });
  const plan = useMemo(() => layOutDay(order(shown.jobs), shown.sequence), [order, shown]);
  const addJob = async (id: number) => {
    setError(null);
    try {
      const job = await callApi<DayJob>(`/api/jobs/${id}/day-steps`);
      arrange({ ...shown, jobs: [...shown.jobs.filter((one) => one.id !== job.id), job] });
    } catch (refusal) {
      setError(refusal);
    }
  };
  return {
    shown,
    plan,
    error,
    isOrdering: ordering.isBusy,
    /** Minutes by which the day ends later than the best order found, since something was dragged. */
    costMinutes: bestEnd === null ? 0 : Math.max(0, plan.endsAt - bestEnd),
    arrange: () => arrange(shown),
    begin: (beginsAt: number) => void keep({ ...shown, beginsAt }),
    addJob,
    removeJob: (jobIndex: number) =>
      arrange({ ...shown, jobs: shown.jobs.filter((_, index) => index !== jobIndex) }),
    /** Dragged: the order stays, the step begins no earlier. */
    drag: (at: StepAt, notBefore: number) =>
      void keep({ ...shown, jobs: changeStep(shown.jobs, at, { notBefore: Math.max(0, notBefore) }) }),
    /** Something took longer, or is done: the rest is ordered anew. */
    replan: (at: StepAt, change: Partial<DayStep>) =>
      arrange({ ...shown, jobs: changeStep(shown.jobs, at, change) }),
  };
}

export type DayDesk = ReturnType<typeof useDay>;

/** The day as it is kept: every change is sent with the version it rests on. */
function useKeptDay(initial: DayReply) {
  const [shown, setShown] = useState<Shown>(initial);
  const [error, setError] = useState<unknown>(null);
  const version = useRef(initial.version);
  const keep = async ({ jobs, sequence, beginsAt }: Shown) => {
    setShown({ jobs, sequence, beginsAt });
    setError(null);
    try {
      const body = { jobs, sequence, beginsAt, version: version.current };
      version.current = (await callApi<DayReply>(`/api/days/${initial.day}`, 'PUT', body)).version;
    } catch (refusal) {
      setError(refusal);
    }
  };
  return { shown, error, setError, keep };
}

/** A thread that puts days in order; the newest question wins. */
function useOrdering() {
  const [isBusy, setBusy] = useState(false);
  const thread = useRef<Worker | null>(null);
  const newest = useRef(0);
  useEffect(() => () => thread.current?.terminate(), []);
  const ask = async (order: DayOrder, onPlan: (plan: PlannedDay) => void) => {
    setBusy(true);
    newest.current += 1;
    const mine = newest.current;
    thread.current ??= new Worker(new URL('../../workers/planDay.ts', import.meta.url), { type: 'module' });
    const plan = await wrap<OrderDay>(thread.current)(order);
    if (mine !== newest.current) return;
    setBusy(false);
    onPlan(plan);
  };
  return { isBusy, ask };
}

function changeStep(jobs: readonly DayJob[], at: StepAt, change: Partial<DayStep>): readonly DayJob[] {
  return jobs.map((job, jobIndex) =>
    jobIndex === at.jobIndex
      ? {
          ...job,
          steps: job.steps.map((step, index) => (index === at.stepIndex ? { ...step, ...change } : step)),
        }
      : job,
  );
}
