import { CalendarPlus, ListOrdered } from 'lucide-react';
import { useState } from 'react';
import { DayChart } from '#web/islands/day/DayChart.tsx';
import { StepPanel } from '#web/islands/day/StepPanel.tsx';
import { clockOf, readClock } from '#web/islands/day/clock.ts';
import { useDay, type DayDesk, type StepAt } from '#web/islands/day/useDay.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { DayReply } from '#web/schemas/day.ts';

interface Props {
  readonly day: DayReply;
  readonly title: string;
  readonly jobs: readonly { readonly id: number; readonly name: string; readonly machine: string }[];
  readonly changeMinutes: number;
  /** Minutes of the day that are over; 0 on another day. */
  readonly nowMinutes: number;
}

/** A day: jobs with their steps on machines, printer and hands, ordered to end early; bars can be dragged. */
export function DayView({ day, title, jobs, changeMinutes, nowMinutes }: Props) {
  const desk = useDay(day, changeMinutes, nowMinutes);
  const [chosen, setChosen] = useState<StepAt | null>(null);
  const { shown, plan } = desk;
  return (
    <div className="grid gap-5">
      <section aria-label="Day" className="sheet p-4 sm:px-6 sm:py-5">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <div>
            <h1>{title}</h1>
            <p className="text-muted" role="status">
              {summary(desk, changeMinutes)}
            </p>
          </div>
          <DayTools desk={desk} day={day.day} jobs={jobs} />
        </div>
        <Refusal error={desk.error} />
        {shown.jobs.length > 0 ? (
          <DayChart desk={desk} chosen={chosen} nowMinutes={nowMinutes} onChoose={setChosen} />
        ) : (
          <p className="mt-4 max-w-xl">
            Nothing is planned yet. Add the jobs of the day: each brings its print, its waits, its cut and its
            weeding, and they are ordered so that machines are busy while ink dries and materials change
            seldom.
          </p>
        )}
        {plan.steps.length > 0 ? (
          <p className="text-sm text-muted mt-2">
            Drag a bar to begin it later, or use the arrow keys. Hatched bars are waits: nobody is needed.
          </p>
        ) : null}
      </section>
      {chosen ? <StepPanel desk={desk} at={chosen} nowMinutes={nowMinutes} /> : null}
    </div>
  );
}

function summary({ plan, shown, costMinutes, isOrdering }: DayDesk, changeMinutes: number): string {
  if (isOrdering) return 'Putting it in order …';
  if (plan.steps.length === 0) return 'Jobs, waits and changes in the order that ends early.';
  const changes = `${plan.changes} ${plan.changes === 1 ? 'change' : 'changes'} of material or blade, ${changeMinutes} min each`;
  const cost = costMinutes > 0 ? ` · what you dragged costs ${costMinutes} min` : '';
  return `Ends at ${clockOf(shown.beginsAt + plan.endsAt)} · ${changes}${cost}`;
}

function DayTools({
  desk,
  day,
  jobs,
}: { readonly desk: DayDesk; readonly day: string } & Pick<Props, 'jobs'>) {
  const planned = new Set(desk.shown.jobs.map(({ id }) => id));
  const open = jobs.filter(({ id }) => !planned.has(`job-${id}`));
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="text-sm text-muted">
        Add a job
        <select
          className="field text-base text-ink w-64"
          value=""
          onChange={(event) => event.target.value && void desk.addJob(Number(event.target.value))}
        >
          <option value="">choose …</option>
          {open.map(({ id, name, machine }) => (
            <option key={id} value={id}>
              {name}, {machine}
            </option>
          ))}
        </select>
      </label>
      <label className="text-sm text-muted">
        Work begins
        <input
          type="time"
          className="field figure text-base text-ink w-32"
          value={clockOf(desk.shown.beginsAt)}
          onChange={(event) => {
            const minutes = readClock(event.target.value);
            if (minutes !== null) desk.begin(minutes);
          }}
        />
      </label>
      <button type="button" className="button" disabled={desk.isOrdering} onClick={desk.arrange}>
        <ListOrdered size={18} aria-hidden /> Order it anew
      </button>
      <a className="button" href={`/api/days/${day}/calendar.ics`} download>
        <CalendarPlus size={18} aria-hidden /> Calendar
      </a>
    </div>
  );
}
