import { Octagon, Play } from 'lucide-react';
import { isRunOver, type Run } from '#core/job/run.ts';
import { SheetView } from '#web/components/sheetView/SheetView.tsx';
import { NoteForm } from '#web/islands/run/NoteForm.tsx';
import { OutcomeLegend } from '#web/islands/run/OutcomeLegend.tsx';
import { OutcomeLines } from '#web/islands/run/OutcomeLines.tsx';
import { useRun } from '#web/islands/run/useRun.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

const STATE_WORDS = {
  sending: 'Sending',
  cutting: 'Cutting',
  waiting: 'Waiting for hands',
  done: 'Done',
  stopped: 'Stopped',
  failed: 'Failed',
  unknown: 'Not known how far',
} as const;

interface Props {
  readonly run: Run;
  readonly machineName: string;
  readonly materialName: string;
}

/** A run as it happens: the head on the sheet, what was reached along every line, and noting it afterwards. */
export function RunView({ run: initial, machineName, materialName }: Props) {
  const live = useRun(initial);
  const { run, head, settle } = live;
  const done = run.outcomes.length;
  const isOver = isRunOver(run.state);
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_25rem]">
      <section aria-label="Sheet" className="p-1">
        <h1>{run.jobName}</h1>
        <p className="text-muted mb-3">
          {materialName} on {machineName}
        </p>
        <SheetView
          widthMm={run.sheetWidthMm}
          heightMm={run.sheetHeightMm}
          marginMm={0}
          label={`Sheet: ${done} of ${run.strokes.length} strokes cut`}
        >
          <OutcomeLines strokes={run.strokes} outcomes={run.outcomes} />
          {head && !isOver ? (
            <g transform={`translate(${head.x} ${head.y})`} aria-hidden>
              <circle r={run.sheetWidthMm / 45} fill="var(--color-feather)" opacity="0.4" />
              <circle r={run.sheetWidthMm / 160} fill="var(--color-ink)" />
            </g>
          ) : null}
        </SheetView>
        <OutcomeLegend />
      </section>
      <div className="grid gap-5 content-start">
        <Progress live={live} />
        {isOver ? <NoteForm run={run} onNoted={settle} /> : null}
      </div>
    </div>
  );
}

function Progress({ live }: { readonly live: ReturnType<typeof useRun> }) {
  const { run, error, stop, goOn, isLinked } = live;
  const done = run.outcomes.length;
  const share = run.strokes.length === 0 ? 0 : done / run.strokes.length;
  const isOver = isRunOver(run.state);
  return (
    <section aria-label="Progress" className="sheet p-4 sm:p-5">
      <p role="status" className="text-xl font-bold">
        {STATE_WORDS[run.state]}
      </p>
      {run.message ? (
        <p
          className="note mt-2"
          data-tone={run.state === 'waiting' ? 'careful' : run.state === 'done' ? undefined : 'problem'}
        >
          {run.message}
        </p>
      ) : null}
      <progress className="w-full h-3 mt-3 accent-verdigris" value={share} max={1} aria-label="Strokes cut" />
      <p className="text-muted">
        <span className="figure">
          {done} of {run.strokes.length}
        </span>{' '}
        strokes · planned {formatDuration(run.seconds)}
      </p>
      {isLinked ? null : (
        <p className="note mt-2" data-tone="careful" role="status">
          The link to the server is lost; trying again. The run goes on at the machine.
        </p>
      )}
      {isOver ? null : (
        <div className="flex gap-3 mt-3">
          {run.state === 'waiting' ? (
            <button type="button" className="button grow" data-kind="main" onClick={goOn}>
              <Play size={18} aria-hidden /> Hands are done, go on
            </button>
          ) : null}
          <button type="button" className="button grow border-ember text-ember" onClick={stop}>
            <Octagon size={18} aria-hidden /> Stop
          </button>
        </div>
      )}
      <Refusal error={error} />
    </section>
  );
}
