import { useQueryClient } from '@tanstack/react-query';
import { PackageOpen } from 'lucide-react';
import { useEffect } from 'react';
import { FIGURES } from '#core/protocol/cardPasses.ts';
import { gradesOfCells } from '#core/run/gradesOfCells.ts';
import { isRunOver, type Run } from '#core/run/run.ts';
import { RunProgress } from '#web/islands/run/RunProgress.tsx';
import { useRun } from '#web/islands/run/useRun.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { PieceLook } from '#web/islands/testCuts/onMachine/PieceLook.tsx';

interface Props {
  readonly run: Run;
  /** Of the card that waits, cell by cell. */
  readonly forces: readonly number[];
  readonly canPause: boolean;
  readonly isLayered: boolean;
  readonly faceColour: string;
}

/** A test piece while it is cut, and what is seen of it before it is graded. */
export function TestRun({ run: initial, forces, canPause, isLayered, faceColour }: Props) {
  const live = useRun(initial);
  const { run } = live;
  const queries = useQueryClient();
  // Whoever cuts the next piece asks how this one stands.
  useEffect(() => void queries.invalidateQueries({ queryKey: ['testRun'] }), [queries, run.state]);
  if (!isRunOver(run.state) && run.state !== 'looking') {
    return (
      <div className="grow basis-72 grid gap-2">
        {run.state === 'held' ? (
          <Looks run={run} forces={forces} isLayered={isLayered} faceColour={faceColour} />
        ) : null}
        <RunProgress live={live} canPause={canPause} />
      </div>
    );
  }
  const isLooking = run.state === 'looking';
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <Looks run={run} forces={forces} isLayered={isLayered} faceColour={faceColour} />
      <p role="status" className="grow basis-40">
        {run.state === 'done' ? 'The last piece that was cut here. ' : run.message}
        {isLooking ? 'Look at it, then tap what you see.' : ''}
      </p>
      {isLooking ? (
        <button type="button" className="button" data-keys="x" onClick={() => live.order('unload', {})}>
          <PackageOpen size={18} aria-hidden /> Take it out
        </button>
      ) : null}
      <Refusal error={live.error} />
    </div>
  );
}

/** The pieces side by side; a real machine does not see what it cut. */
function Looks({ run, forces, isLayered, faceColour }: Omit<Props, 'canPause'>) {
  const grades = gradesOfCells(run.strokes, run.outcomes);
  const cells = [...new Set(run.strokes.map(({ contourId }) => contourId))].filter(
    (cell) => cell !== FIGURES,
  );
  if (grades.size === 0) {
    return <p className="text-sm text-muted">The machine does not see what it cut: look at the sheet.</p>;
  }
  return (
    <ol className="flex flex-wrap gap-x-4 gap-y-2">
      {cells.map((cell) => {
        const grade = grades.get(cell);
        return grade === undefined ? null : (
          <li key={cell}>
            {cells.length > 1 ? <p className="figure text-sm">{forces[cell] ?? `cell ${cell + 1}`}</p> : null}
            <PieceLook grade={grade} isLayered={isLayered} faceColour={faceColour} />
          </li>
        );
      })}
    </ol>
  );
}
