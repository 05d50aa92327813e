import { Check, Clock, Trash2, Undo2 } from 'lucide-react';
import type { DayJob, DayStep, PlacedStep } from '#core/prep/dayPlan.ts';
import { clockOf } from '#web/islands/day/clock.ts';
import type { DayDesk, StepAt } from '#web/islands/day/useDay.ts';

interface Props {
  readonly desk: DayDesk;
  readonly at: StepAt;
  readonly nowMinutes: number;
}

const LATE_MINUTES = 15;

/** The chosen step: done, late, or free to move again; what is open is ordered anew. */
export function StepPanel({ desk, at, nowMinutes }: Props) {
  const job = desk.shown.jobs[at.jobIndex];
  const step = job?.steps[at.stepIndex];
  const placed = desk.plan.steps.find(
    (one) => one.jobIndex === at.jobIndex && one.stepIndex === at.stepIndex,
  );
  if (!job || !step || !placed) return null;
  const { beginsAt } = desk.shown;
  return (
    <section aria-label="Chosen step" className="sheet p-4 sm:p-5">
      <h2>
        {job.words}: {step.words}
      </h2>
      <p className="text-muted">
        {clockOf(beginsAt + placed.from)} to {clockOf(beginsAt + placed.to)} ·{' '}
        {step.place ?? 'a wait: nobody is needed'}
        {step.setUp ? ` · set up for ${step.setUp}` : ''}
        {placed.change > 0 ? ` · ${placed.change} min of change before it` : ''}
        {step.notBefore > 0 ? ` · not before ${clockOf(beginsAt + step.notBefore)}` : ''}
      </p>
      <StepOrders desk={desk} at={at} nowMinutes={nowMinutes} job={job} step={step} placed={placed} />
    </section>
  );
}

interface OrdersProps extends Props {
  readonly job: DayJob;
  readonly step: DayStep;
  readonly placed: PlacedStep;
}

function StepOrders({ desk, at, nowMinutes, job, step, placed }: OrdersProps) {
  const done = {
    from: Math.min(placed.from, Math.max(0, nowMinutes - 1)),
    to: Math.max(1, nowMinutes || placed.to),
  };
  return (
    <div className="flex flex-wrap gap-2 mt-3">
      {step.done ? (
        <button type="button" className="button" onClick={() => desk.replan(at, { done: null })}>
          <Undo2 size={17} aria-hidden /> Not done after all
        </button>
      ) : (
        <>
          <button type="button" className="button" data-kind="main" onClick={() => desk.replan(at, { done })}>
            <Check size={17} aria-hidden /> Done
          </button>
          <button
            type="button"
            className="button"
            onClick={() => desk.replan(at, { minutes: step.minutes + LATE_MINUTES })}
          >
            <Clock size={17} aria-hidden /> Takes {LATE_MINUTES} min longer
          </button>
        </>
      )}
      {step.notBefore > 0 ? (
        <button type="button" className="button" onClick={() => desk.replan(at, { notBefore: 0 })}>
          Start as early as possible
        </button>
      ) : null}
      <button type="button" className="button" data-kind="quiet" onClick={() => desk.removeJob(at.jobIndex)}>
        <Trash2 size={17} aria-hidden /> Take {job.words} off the day
      </button>
    </div>
  );
}
