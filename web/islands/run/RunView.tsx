import { useMemo } from 'react';
import { boundPoints } from '#core/geometry/box.ts';
import { findRemnant } from '#core/sheet/findRemnant.ts';
import { RemnantNote } from '#web/islands/shared/RemnantNote.tsx';
import { isRunOver, isTestRun, type Run } from '#core/run/run.ts';
import { SheetView } from '#web/components/sheetView/SheetView.tsx';
import { NoteForm } from '#web/islands/run/NoteForm.tsx';
import { OutcomeLegend } from '#web/islands/run/OutcomeLegend.tsx';
import { OutcomeLines } from '#web/islands/run/OutcomeLines.tsx';
import { useRun } from '#web/islands/run/useRun.ts';
import { LookPanel } from '#web/islands/run/LookPanel.tsx';
import { HereToo } from '#web/islands/together/HereToo.tsx';
import { RunHistory } from '#web/islands/run/RunHistory.tsx';
import { RunProgress } from '#web/islands/run/RunProgress.tsx';
import { useLook } from '#web/islands/run/useLook.ts';
import type { RunGradeReply } from '#web/schemas/run.ts';

interface Props {
  readonly run: Run;
  readonly machineName: string;
  readonly materialName: string;
  readonly isLayered: boolean;
  readonly materialId: number;
  readonly grades: readonly RunGradeReply[];
  readonly standInPage: string | null;
  readonly canPause: boolean;
}

/** A run as it happens: the head on the sheet, what was reached along every line, and noting it afterwards. */
export function RunView({
  run: initial,
  machineName,
  materialName,
  isLayered,
  materialId,
  grades,
  standInPage,
  canPause,
}: Props) {
  const live = useRun(initial);
  const { run, head, settle } = live;
  const look = useLook(live, grades);
  const isOver = isRunOver(run.state);
  const isLooking = run.state === 'looking';
  return (
    <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_21rem] lg:grid-cols-[minmax(0,1fr)_25rem]">
      <section aria-label="Sheet" className="p-1">
        <h1>{run.jobName}</h1>
        <p className="text-muted mb-3">
          {materialName} on {machineName}
          {standInPage ? (
            <>
              {' '}
              · <a href={standInPage}>its stand-in: panel, sheet, faults</a>
            </>
          ) : null}
        </p>
        <HereToo {...live.together} />
        <SheetView
          widthMm={run.sheetWidthMm}
          heightMm={run.sheetHeightMm}
          marginMm={0}
          label={`Sheet: ${run.outcomes.length} of ${run.strokes.length} strokes cut`}
          pointer={isLooking ? look.pointer : undefined}
        >
          <OutcomeLines strokes={run.strokes} outcomes={run.outcomes} />
          {look.spot && isLooking ? <Spot {...look.spot} size={run.sheetWidthMm / 60} /> : null}
          {head && !isOver && !isLooking ? (
            <g transform={`translate(${head.x} ${head.y})`} aria-hidden>
              <circle r={run.sheetWidthMm / 45} fill="var(--color-feather)" opacity="0.4" />
              <circle r={run.sheetWidthMm / 160} fill="var(--color-ink)" />
            </g>
          ) : null}
        </SheetView>
        <OutcomeLegend hasUnseen={run.outcomes.some(({ spans }) => spans.length === 0)} />
      </section>
      <div className="grid gap-5 content-start">
        <RunProgress live={live} canPause={canPause} />
        {isTestRun(run) ? <GradeThere run={run} /> : null}
        {isLooking && !isTestRun(run) ? <LookPanel live={live} look={look} isLayered={isLayered} /> : null}
        {isOver && !isTestRun(run) ? <NoteForm run={run} onNoted={settle} /> : null}
        <RunHistory run={run} />
        {run.state === 'done' ? <SheetRest run={run} materialId={materialId} /> : null}
      </div>
    </div>
  );
}

/** A test piece is graded where its search is. */
function GradeThere({ run: { strokes } }: Pick<Props, 'run'>) {
  return (
    <a className="button" href={`/test-cuts?operation=${strokes[0]?.operation ?? 'kiss'}`}>
      Grade it under Test cuts
    </a>
  );
}

/** What is left of the sheet that was cut, where it is worth keeping. */
function SheetRest({ run, materialId }: { readonly run: Run; readonly materialId: number }) {
  const taken = useMemo(() => run.strokes.map(({ points }) => boundPoints(points)), [run.strokes]);
  const remnant = findRemnant({ widthMm: run.sheetWidthMm, heightMm: run.sheetHeightMm }, taken);
  if (!remnant) return null;
  return (
    <section aria-label="Rest of the sheet" className="sheet p-4 sm:p-5">
      <h2>What is left of the sheet</h2>
      <RemnantNote materialId={materialId} jobName={run.jobName} remnant={remnant} />
    </section>
  );
}

function Spot({ x, y, size }: { readonly x: number; readonly y: number; readonly size: number }) {
  return (
    <circle
      cx={x}
      cy={y}
      r={size}
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth="2.5"
      vectorEffect="non-scaling-stroke"
    />
  );
}
