import { itemAt } from '#core/collections/itemAt.ts';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { PlacedStep } from '#core/prep/dayPlan.ts';
import { clockOf } from '#web/islands/day/clock.ts';
import type { DayDesk, StepAt } from '#web/islands/day/useDay.ts';

interface Props {
  readonly desk: DayDesk;
  readonly chosen: StepAt | null;
  readonly nowMinutes: number;
  readonly onChoose: (at: StepAt) => void;
}

const ROW_PX = 58;
const NUDGE = 5;
/** Days this short are drawn by quarters of an hour, min. */
const SHORT_DAY = 180;
const WAITS = 'waits';
/** Bars of one job share a tone; they are told by their words as well. */
const TONES = [
  '--color-feather',
  '--color-verdigris',
  '--color-straw',
  '--color-plum',
  '--color-ochre',
  '--color-ember',
];

/** Places as rows, time to the right: what is done where, waits hatched, changes as notches before bars. */
export function DayChart({ desk, chosen, nowMinutes, onChoose }: Props) {
  const { plan, shown } = desk;
  const rows = listRows(desk);
  // The picture begins with the hour of the first step: a morning without work is not drawn.
  const first = Math.floor(plan.steps.reduce((least, { from }) => Math.min(least, from), Infinity) / 60) * 60;
  const start = Number.isFinite(first) ? Math.max(0, first) : 0;
  const tick = plan.endsAt - start <= SHORT_DAY ? 15 : 60;
  const span = Math.max(60, Math.ceil((plan.endsAt - start) / tick) * tick);
  const percent = (minutes: number) => `${(100 * (minutes - start)) / span}%`;
  const ticks = Array.from({ length: span / tick + 1 }, (_, index) => start + index * tick);
  return (
    <div className="mt-4 grid grid-cols-[6.5rem_1fr]" role="group" aria-label="Plan of the day">
      <span />
      <div className="relative h-6 text-sm text-muted figure" aria-hidden>
        {ticks
          .filter((_, index) => ticks.length < 14 || index % 2 === 0)
          // The last would hang over the edge.
          .slice(0, -1)
          .map((minutes) => (
            <span key={minutes} className="absolute -translate-x-1/2" style={{ left: percent(minutes) }}>
              {clockOf(shown.beginsAt + minutes)}
            </span>
          ))}
      </div>
      {rows.map((row) => (
        <Row key={row.name} row={row} tickShare={tick / span}>
          {nowMinutes > start && nowMinutes < start + span ? (
            <span
              className="absolute inset-y-0 w-0.5 bg-ember"
              style={{ left: percent(nowMinutes) }}
              aria-hidden
            />
          ) : null}
          {row.steps.map((step) => (
            <Bar
              key={`${step.jobIndex}/${step.stepIndex}`}
              step={step}
              start={start}
              span={span}
              desk={desk}
              lane={row.lanes.get(step) ?? 0}
              isChosen={chosen?.jobIndex === step.jobIndex && chosen.stepIndex === step.stepIndex}
              onChoose={onChoose}
            />
          ))}
        </Row>
      ))}
    </div>
  );
}

interface RowFacts {
  readonly name: string;
  readonly steps: readonly PlacedStep[];
  readonly lanes: ReadonlyMap<PlacedStep, number>;
  readonly laneCount: number;
}

/** One row a place; waits may overlap, so that they lie in lanes. */
function listRows({ plan, shown }: DayDesk): readonly RowFacts[] {
  const placeOf = ({ jobIndex, stepIndex }: PlacedStep) =>
    shown.jobs[jobIndex]?.steps[stepIndex]?.place ?? WAITS;
  const names = [...new Set(plan.steps.map(placeOf))].sort(
    (a, b) => Number(a === WAITS) - Number(b === WAITS),
  );
  return names.map((name) => {
    const steps = plan.steps.filter((step) => placeOf(step) === name).toSorted((a, b) => a.from - b.from);
    const ends: number[] = [];
    const lanes = new Map<PlacedStep, number>();
    for (const step of steps) {
      const free = ends.findIndex((end) => end <= step.from);
      const lane = free === -1 ? ends.length : free;
      ends[lane] = step.to;
      lanes.set(step, lane);
    }
    return { name, steps, lanes, laneCount: Math.max(1, ends.length) };
  });
}

function Row({
  row,
  tickShare,
  children,
}: {
  readonly row: RowFacts;
  readonly tickShare: number;
  readonly children: React.ReactNode;
}) {
  return (
    <>
      <span className="py-3 pr-2 font-semibold leading-tight border-t border-hairline">{row.name}</span>
      <div
        className="relative border-t border-hairline"
        style={{
          height: row.laneCount * ROW_PX,
          backgroundImage: 'linear-gradient(to right, var(--color-hairline) 1px, transparent 1px)',
          backgroundSize: `${100 * tickShare}% 100%`,
        }}
      >
        {children}
      </div>
    </>
  );
}

interface BarProps {
  readonly step: PlacedStep;
  /** Minutes of the day that the picture shows. */
  readonly start: number;
  readonly span: number;
  readonly desk: DayDesk;
  readonly lane: number;
  readonly isChosen: boolean;
  readonly onChoose: (at: StepAt) => void;
}

function Bar({ step, start, span, desk, lane, isChosen, onChoose }: BarProps) {
  const { jobIndex, stepIndex, from, to, change } = step;
  const job = desk.shown.jobs[jobIndex];
  const facts = job?.steps[stepIndex];
  const at = { jobIndex, stepIndex };
  const pulled = usePull(span, (by) => desk.drag(at, Math.round((from + by) / NUDGE) * NUDGE));
  if (!job || !facts) return null;
  const nudge = (event: KeyboardEvent) => {
    const by = event.key === 'ArrowRight' ? NUDGE : event.key === 'ArrowLeft' ? -NUDGE : 0;
    if (by === 0 || facts.done) return;
    event.preventDefault();
    onChoose(at);
    desk.drag(at, from + by);
  };
  const hold = (event: PointerEvent<HTMLButtonElement>) => {
    onChoose(at);
    if (!facts.done) pulled.hold(event);
  };
  const isWait = facts.place === null;
  const tone = `var(${itemAt(TONES, jobIndex % TONES.length)})`;
  const words = `${job.words}: ${facts.words}, ${clockOf(desk.shown.beginsAt + from)} to ${clockOf(desk.shown.beginsAt + to)}`;
  return (
    <button
      type="button"
      aria-label={`${words}${facts.done ? ', done' : ''}${change > 0 ? `, after ${change} min of change` : ''}`}
      aria-pressed={isChosen}
      title={words}
      onKeyDown={nudge}
      onClick={() => onChoose(at)}
      onPointerDown={hold}
      onPointerMove={pulled.pull}
      onPointerUp={pulled.drop}
      onPointerCancel={pulled.drop}
      className={`absolute text-left overflow-hidden rounded-sm border-l-4 px-1.5 leading-tight text-sm touch-none aria-pressed:outline-3 aria-pressed:outline-ink ${facts.done ? 'opacity-55' : 'cursor-grab'}`}
      style={{
        left: `${(100 * (from + pulled.shift - start)) / span}%`,
        width: `max(8px, ${(100 * (to - from)) / span}%)`,
        top: lane * ROW_PX + 6,
        height: ROW_PX - 12,
        borderColor: tone,
        background: isWait
          ? `repeating-linear-gradient(135deg, color-mix(in srgb, ${tone} 22%, white) 0 5px, white 5px 10px)`
          : `color-mix(in srgb, ${tone} 26%, white)`,
      }}
    >
      <span className="block font-semibold truncate">{job.words}</span>
      <span className="block truncate">{facts.words}</span>
    </button>
  );
}

/** Pulling a bar sideways: how many minutes it is away, and what to do when it is let go. */
function usePull(span: number, onDrop: (byMinutes: number) => void) {
  const [shift, setShift] = useState(0);
  const held = useRef<{ readonly x: number; readonly perPx: number } | null>(null);
  return {
    shift,
    hold: (event: PointerEvent<HTMLButtonElement>) => {
      const width = event.currentTarget.parentElement?.clientWidth ?? 1;
      held.current = { x: event.clientX, perPx: span / width };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    pull: (event: PointerEvent) => {
      if (held.current) setShift((event.clientX - held.current.x) * held.current.perPx);
    },
    drop: () => {
      held.current = null;
      if (Math.abs(shift) >= NUDGE) onDrop(shift);
      setShift(0);
    },
  };
}
