import { wrap, type Remote } from 'comlink';
import type { PlannedDay } from '#core/prep/planDay.ts';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { fillSequence, layOutDay, type DayJob, type DayOrder, type DayStep } from '#core/prep/dayPlan.ts';
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
  const { shown, newest, error, setError, keep } = useKeptDay(initial);
  const ordering = useOrdering();
  const [bestEnd, setBestEnd] = useState<number | null>(null);
  const order = useCallback(
    (jobs: readonly DayJob[]): DayOrder => ({ jobs, changeMinutes, now: nowMinutes, setUps: {} }),
    [changeMinutes, nowMinutes],
  );
  /** A change shows at once, what it adds comes last; a better order follows. */
  const arrange = (jobs: readonly DayJob[], sequence = newest.current.sequence) => {
    keep({ jobs, sequence: fillSequence(jobs, sequence) });
    void ordering.ask(order(jobs), (best) => {
      setBestEnd(best.endsAt);
      keep({ jobs, sequence: best.sequence });
    });
  };
  const plan = useMemo(() => layOutDay(order(shown.jobs), shown.sequence), [order, shown]);
  const without = (jobIndex: number) => {
    const { jobs, sequence } = newest.current;
    return {
      jobs: jobs.filter((_, index) => index !== jobIndex),
      sequence: sequence
        .filter((index) => index !== jobIndex)
        .map((index) => (index > jobIndex ? index - 1 : index)),
    };
  };
  const addJob = async (id: number) => {
    setError(null);
    try {
      const job = await callApi<DayJob>(`/api/jobs/${id}/day-steps`);
      const old = newest.current.jobs.findIndex((one) => one.id === job.id);
      const rest = old < 0 ? newest.current : without(old);
      arrange([...rest.jobs, job], rest.sequence);
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
    arrange: () => arrange(newest.current.jobs),
    begin: (beginsAt: number) => keep({ beginsAt }),
    addJob,
    removeJob: (jobIndex: number) => {
      const { jobs, sequence } = without(jobIndex);
      arrange(jobs, sequence);
    },
    /** Dragged: the order stays, the step begins no earlier. An order still being sought would undo it. */
    drag: (at: StepAt, notBefore: number) => {
      ordering.forget();
      keep({ jobs: changeStep(newest.current.jobs, at, { notBefore: Math.max(0, notBefore) }) });
    },
    /** Something took longer, or is done: the rest is ordered anew. */
    replan: (at: StepAt, changed: Partial<DayStep>) => arrange(changeStep(newest.current.jobs, at, changed)),
  };
}

export type DayDesk = ReturnType<typeof useDay>;

/**
 * The day as it is kept: shown at once, and sent with the version it rests on. One sending at a time: what changes
 * meanwhile goes with the next, so that nobody is refused because of themselves.
 */
function useKeptDay(initial: DayReply) {
  const [shown, setShown] = useState<Shown>(initial);
  const [error, setError] = useState<unknown>(null);
  const newest = useRef<Shown>(initial);
  const version = useRef(initial.version);
  const sending = useRef(false);
  const send = async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      for (let sent: Shown | null = null; sent !== newest.current;) {
        sent = newest.current;
        const { jobs, sequence, beginsAt } = sent;
        const body = { jobs, sequence, beginsAt, version: version.current };
        version.current = (await callApi<DayReply>(`/api/days/${initial.day}`, 'PUT', body)).version;
      }
    } catch (refusal) {
      setError(refusal);
    }
    sending.current = false;
  };
  const keep = (changed: Partial<Shown>) => {
    newest.current = { ...newest.current, ...changed };
    setShown(newest.current);
    setError(null);
    void send();
  };
  return { shown, newest, error, setError, keep };
}

/** A thread that puts days in order; the newest question wins. */
function useOrdering() {
  const [isBusy, setBusy] = useState(false);
  // The way to the thread is held as long as the thread: when it is collected, the thread hears nothing any more.
  const thread = useRef<{ readonly worker: Worker; readonly orderDay: Remote<OrderDay> } | null>(null);
  const newest = useRef(0);
  useEffect(() => () => thread.current?.worker.terminate(), []);
  const ask = async (order: DayOrder, onPlan: (plan: PlannedDay) => void) => {
    setBusy(true);
    newest.current += 1;
    const mine = newest.current;
    thread.current ??= openThread();
    const plan = await thread.current.orderDay(order);
    if (mine !== newest.current) return;
    setBusy(false);
    onPlan(plan);
  };
  /** What is being sought is not wanted any more. */
  const forget = () => {
    newest.current += 1;
    setBusy(false);
  };
  return { isBusy, ask, forget };
}

function openThread() {
  const worker = new Worker(new URL('../../workers/planDay.ts', import.meta.url), { type: 'module' });
  return { worker, orderDay: wrap<OrderDay>(worker) };
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
