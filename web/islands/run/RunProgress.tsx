import { Octagon, Pause, Play } from 'lucide-react';
import { isRunOver, type RunState } from '#core/run/run.ts';
import { RUN_WORDS } from '#core/run/runWords.ts';
import type { LiveRun } from '#web/islands/run/useRun.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

const STATE_WORDS: Readonly<Record<RunState, string>> = {
  sending: 'Sending',
  cutting: 'Cutting',
  paused: 'Paused',
  stopping: 'Stopping',
  waiting: 'Waiting for hands',
  held: 'Held: look at the sheet',
  looking: 'Look before unloading',
  done: 'Done',
  stopped: 'Stopped',
  failed: 'Failed',
  unknown: 'Not known how far',
};

const TONES: Readonly<Partial<Record<RunState, string>>> = {
  waiting: 'careful',
  cutting: 'careful',
  held: 'problem',
  stopping: 'problem',
  failed: 'problem',
  stopped: 'problem',
  unknown: 'problem',
};

interface Props {
  readonly live: LiveRun;
  /** Whether the machine can be told from here to pause. */
  readonly canPause: boolean;
}

/** How far a run is, what it is at, how long it still takes, and what hands can tell it. */
export function RunProgress({ live, canPause }: Props) {
  const { run, error, isLinked } = live;
  const done = run.outcomes.length;
  const total = run.strokes.length;
  // A machine that says nothing is followed by what it was sent.
  const sent = run.state === 'cutting' ? Math.max(0, (run.outTo ?? 0) - done) : 0;
  const share = total === 0 ? 0 : (done + sent) / total;
  const isMoving = run.state === 'cutting' || run.state === 'paused' || run.state === 'waiting';
  const next = isMoving ? run.strokes[done] : undefined;
  return (
    <section aria-label="Progress" className="sheet p-4 sm:p-5">
      <p role="status" className="text-xl font-bold">
        <span>{STATE_WORDS[run.state]}</span>
        {next ? <span className="font-normal text-muted"> · {next.operation}</span> : null}
      </p>
      <Message run={run} />
      <progress className="w-full h-3 mt-3 accent-verdigris" value={share} max={1} aria-label="Strokes cut" />
      <p className="text-muted">
        <span className="figure">
          {done + sent} of {total}
        </span>{' '}
        strokes{sent > 0 ? ' sent' : ''} ·{' '}
        {isRunOver(run.state) || run.state === 'looking' || sent > 0
          ? `planned ${formatDuration(run.seconds)}`
          : `about ${formatDuration(run.seconds * (1 - share))} left`}
      </p>
      {isLinked ? null : (
        <p className="note mt-2" data-tone="careful" role="status">
          Connection lost, trying again. The machine keeps cutting.
        </p>
      )}
      <Orders live={live} canPause={canPause} />
      <Refusal error={error} />
    </section>
  );
}

/** What the run says of itself. Where only a person at the machine can stop it, that stands first, in big letters. */
function Message({ run: { state, message } }: Pick<LiveRun, 'run'>) {
  if (!message) return null;
  const isUrgent = state === 'held' && message.startsWith(RUN_WORDS.stopThere);
  return (
    <div className="note mt-2" data-tone={TONES[state]} role={isUrgent ? 'alert' : undefined}>
      {isUrgent ? <p className="text-3xl font-bold leading-tight mb-2">{RUN_WORDS.stopThere}</p> : null}
      <p>{isUrgent ? message.slice(RUN_WORDS.stopThere.length).trim() : message}</p>
    </div>
  );
}

function Orders({ live: { run, order }, canPause }: Props) {
  if (isRunOver(run.state) || run.state === 'looking') return null;
  return (
    <div className="flex flex-wrap gap-3 mt-3">
      {run.state === 'waiting' ? (
        <button type="button" className="button grow" data-kind="main" onClick={() => order('continue', {})}>
          <Play size={18} aria-hidden /> Done by hand, go on
        </button>
      ) : null}
      {run.state === 'held' ? <HeldOrders run={run} order={order} /> : null}
      {run.state === 'cutting' && canPause ? (
        <button type="button" className="button grow" onClick={() => order('pause', { isPaused: true })}>
          <Pause size={18} aria-hidden /> Pause
        </button>
      ) : null}
      {run.state === 'paused' ? (
        <button
          type="button"
          className="button grow"
          data-kind="main"
          onClick={() => order('pause', { isPaused: false })}
        >
          <Play size={18} aria-hidden /> Go on
        </button>
      ) : null}
      <button
        type="button"
        className="button grow border-ember text-ember"
        disabled={run.state === 'stopping'}
        onClick={() => order('stop', {})}
      >
        <Octagon size={18} aria-hidden /> {run.state === 'held' ? 'End here' : 'Stop'}
      </button>
    </div>
  );
}

/** Nobody but a person who looks knows what became of the next stroke. */
function HeldOrders({ run, order }: Pick<LiveRun, 'run' | 'order'>) {
  const next = run.outcomes.length + 1;
  const unknown = Math.max(next, run.outTo ?? 0);
  if (next > run.strokes.length) {
    return (
      <button
        type="button"
        className="button w-full"
        data-kind="main"
        onClick={() => order('continue', { openStroke: 'leave' })}
      >
        <Play size={18} aria-hidden /> Every stroke is cut: go on
      </button>
    );
  }
  return (
    <>
      <button
        type="button"
        className="button w-full"
        data-kind={unknown > next ? undefined : 'main'}
        onClick={() => order('continue', { openStroke: 'again' })}
      >
        <Play size={18} aria-hidden />{' '}
        {unknown > next ? `Nothing is cut: again from stroke ${next}` : `Go on with stroke ${next}`}
      </button>
      <button
        type="button"
        className="button w-full"
        onClick={() => order('continue', { openStroke: 'leave' })}
      >
        {unknown > next
          ? `Strokes ${next} to ${unknown} are cut: go on after them`
          : `Stroke ${next} is cut: go on after it`}
      </button>
    </>
  );
}
