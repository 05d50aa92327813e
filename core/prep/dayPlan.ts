import { itemAt } from '#core/collections/itemAt.ts';
/** One step of a job: at a machine, by hand, or a wait that needs nobody. */
export interface DayStep {
  readonly id: string;
  readonly words: string;
  /** Where it is done: one step at a time. `null` for a wait. */
  readonly place: string | null;
  readonly minutes: number;
  /** What must be on the machine: material, blade, exposure. Between unlike ones lies a change. Empty for none. */
  readonly setUp: string;
  /** Not before this minute of the day, as somebody dragged it; 0 for any. */
  readonly notBefore: number;
  /** Done already, from when to when; then it does not move any more. */
  readonly done: { readonly from: number; readonly to: number } | null;
}

/** A job of the day: its steps in their order. */
export interface DayJob {
  readonly id: string;
  readonly words: string;
  readonly steps: readonly DayStep[];
}

/** A step with its time, in minutes from the start of the day. */
export interface PlacedStep {
  readonly jobIndex: number;
  readonly stepIndex: number;
  readonly from: number;
  readonly to: number;
  /** Minutes of change before it. */
  readonly change: number;
}

/** A whole day in its order. */
export interface DayPlan {
  readonly steps: readonly PlacedStep[];
  readonly endsAt: number;
  readonly changes: number;
}

/** What a day is planned from. */
export interface DayOrder {
  readonly jobs: readonly DayJob[];
  /** Minutes that changing material or blade takes. */
  readonly changeMinutes: number;
  /** Nothing that is not done begins before. */
  readonly now: number;
  /** What is on each place when the day begins. */
  readonly setUps: Readonly<Record<string, string>>;
}

/**
 * Times of all steps when they are taken in this order: each as early as its job, its place and the change before it
 * allow. Steps that are done stand where they were.
 *
 * @param sequence job indexes, each as often as the job has open steps: the n-th time means its n-th open step
 * @example layOutDay({ jobs: [], changeMinutes: 5, now: 480, setUps: {} }, []).endsAt // 0
 */
export function layOutDay(order: DayOrder, sequence: readonly number[]): DayPlan {
  const { jobs, changeMinutes, now, setUps } = order;
  const placed: PlacedStep[] = [];
  const ready = jobs.map(() => 0);
  const next = jobs.map(() => 0);
  const free = new Map<string, number>();
  const last = new Map(Object.entries(setUps));
  let endsAt = 0;
  let changes = 0;
  const put = (
    jobIndex: number,
    step: DayStep,
    stepIndex: number,
    from: number,
    to: number,
    change: number,
  ) => {
    placed.push({ jobIndex, stepIndex, from, to, change });
    ready[jobIndex] = to;
    if (step.place !== null) {
      free.set(step.place, Math.max(free.get(step.place) ?? 0, to));
      if (step.setUp) last.set(step.place, step.setUp);
    }
    if (change > 0) changes += 1;
    endsAt = Math.max(endsAt, to);
  };
  const passDone = (jobIndex: number) => {
    const { steps } = itemAt(jobs, jobIndex);
    for (;;) {
      const stepIndex = itemAt(next, jobIndex);
      const step = steps[stepIndex];
      if (!step?.done) return;
      put(jobIndex, step, stepIndex, step.done.from, step.done.to, 0);
      next[jobIndex] = stepIndex + 1;
    }
  };
  jobs.forEach((_, jobIndex) => passDone(jobIndex));
  for (const jobIndex of sequence) {
    const stepIndex = itemAt(next, jobIndex);
    const step = itemAt(jobs, jobIndex).steps[stepIndex];
    if (!step) continue;
    const isChange = step.place !== null && step.setUp !== '' && (last.get(step.place) ?? '') !== step.setUp;
    const change = isChange ? changeMinutes : 0;
    const placeFree = step.place === null ? 0 : (free.get(step.place) ?? 0) + change;
    const from = Math.max(itemAt(ready, jobIndex), placeFree, step.notBefore, now + change);
    put(jobIndex, step, stepIndex, from, from + step.minutes, change);
    next[jobIndex] = stepIndex + 1;
    passDone(jobIndex);
  }
  return { steps: placed, endsAt, changes };
}

/**
 * A sequence in which every open step of every job has its turn: what is missing comes last, job by job.
 *
 * @param sequence job indexes, as for `layOutDay`
 * @example fillSequence([], []).length // 0
 */
export function fillSequence(jobs: readonly DayJob[], sequence: readonly number[]): readonly number[] {
  const missing = jobs.flatMap(({ steps }, jobIndex) => {
    const open = steps.filter(({ done }) => !done).length;
    const turns = sequence.filter((index) => index === jobIndex).length;
    return Array<number>(Math.max(0, open - turns)).fill(jobIndex);
  });
  return [...sequence, ...missing];
}
