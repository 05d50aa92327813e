import type { ReactNode } from 'react';
import { SheetView } from '#web/components/sheetView/SheetView.tsx';
import { RoledLines } from '#web/components/sheetView/RoledLines.tsx';
import { DrawingCanvas } from '#web/islands/job/DrawingCanvas.tsx';
import { HandHelp, HandMarks } from '#web/islands/job/hands/HandMarks.tsx';
import { PlacedShape } from '#web/islands/job/hands/PlacedShape.tsx';
import { useHands } from '#web/islands/job/hands/useHands.ts';
import { RouteLines } from '#web/islands/job/RouteLines.tsx';
import { SheetMarks } from '#web/islands/job/sheet/SheetMarks.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { useJob } from '#web/islands/job/useJob.ts';
import type { Nest } from '#web/islands/job/sheet/useNest.ts';

interface Props {
  readonly state: ReturnType<typeof useJob>;
  readonly design: Design;
  readonly nest: Nest;
  readonly chosen: readonly number[];
  /** What a line would be after a mend, as path data; empty for none. */
  readonly preview: string;
  readonly onChoose: (lineIds: readonly number[]) => void;
  /** The drawing that is looked at, as a job of its own. */
  readonly looked: JobReply;
}

/** The drawing in the first two steps, the sheet in all others. */
export function JobCanvas(props: Props) {
  const { design, state } = props;
  const { layout, progress, problem } = design;
  if (!layout)
    return <Reading progress={progress} problem={problem} onStop={design.stop} onRetry={design.retry} />;
  const isDrawing = state.step === 'drawing' || state.step === 'roles';
  return (
    <section aria-label="Sheet" className="p-1 min-w-0 self-start md:sticky md:top-3">
      {isDrawing ? (
        <DrawingCanvas {...props} layout={layout} isChoosing={state.step === 'roles'} />
      ) : (
        <SheetCanvas {...props} layout={layout} />
      )}
      {problem ? (
        <p className="note mt-3" data-tone="problem" role="alert">
          {problem}{' '}
          <button type="button" className="underline font-semibold cursor-pointer" onClick={design.retry}>
            Go on
          </button>
        </p>
      ) : null}
      {progress ? (
        <p role="status" className="text-sm text-muted mt-2">
          {progress.words} … {Math.round(progress.share * 100)} %{' '}
          <button type="button" className="underline cursor-pointer" onClick={design.stop}>
            Stop
          </button>
        </p>
      ) : null}
    </section>
  );
}

type Laid = Props & { readonly layout: NonNullable<Design['layout']> };

function SheetCanvas({ layout, state, nest }: Laid) {
  const hands = useHands(state, layout, nest.isRunning);
  const { job, plan, step } = state;
  const { sheet } = job;
  const count = layout.sheets.length;
  const number = Math.min(state.sheetNumber, count);
  const shown = layout.sheets[number - 1];
  const isRouteShown = (step === 'passes' || step === 'cut') && plan !== null && plan.passes.length > 0;
  const lines = shown?.lines ?? [];
  return (
    <>
      {count > 1 ? <SheetPages number={number} count={count} onGo={state.setSheetNumber} /> : null}
      <SheetView
        widthMm={sheet.widthMm}
        heightMm={sheet.heightMm}
        marginMm={sheet.marginMm}
        label={`${job.name} on its sheet, ${lines.length} lines`}
        pointer={hands.isOn ? hands.pointer : undefined}
        onKeyDown={hands.isOn ? hands.onKeyDown : undefined}
      >
        <SheetMarks layout={layout} sheet={sheet} isRemnantShown={step === 'sheet' && number === count} />
        <RoledLines
          lines={lines}
          images={shown?.images ?? []}
          art={shown?.art ?? null}
          dotMm={Math.max(sheet.widthMm, sheet.heightMm) / 260}
          isFaint={isRouteShown}
          isPrinted={step === 'sheet' || step === 'runSheet'}
        />
        {isRouteShown ? <RouteLines plan={plan} sheetHeightMm={sheet.heightMm} /> : null}
        {hands.isOn ? (
          <HandMarks
            layout={layout}
            placements={job.layout.placements}
            hands={hands}
            sheetIndex={number - 1}
          />
        ) : null}
        {nest.better ? <NestPreview nest={nest} layout={layout} sheetIndex={number - 1} /> : null}
      </SheetView>
      {hands.isOn ? <HandHelp hands={hands} /> : null}
    </>
  );
}

/** While pieces are being laid out: where the best so far has them. */
function NestPreview({
  nest,
  layout,
  sheetIndex,
}: {
  readonly nest: Nest;
  readonly layout: NonNullable<Design['layout']>;
  readonly sheetIndex: number;
}): ReactNode {
  return (
    <g fill="var(--color-verdigris-pale)" stroke="var(--color-verdigris)">
      {nest.better?.placements
        .filter(({ sheet }) => sheet === sheetIndex)
        .map((placement, index) => (
          <PlacedShape key={index} piece={layout.pieces[placement.piece]} placement={placement} />
        ))}
    </g>
  );
}

interface SheetPagesProps {
  readonly number: number;
  readonly count: number;
  readonly onGo: (number: number) => void;
}

function SheetPages({ number, count, onGo }: SheetPagesProps) {
  return (
    <nav aria-label="Sheets" className="flex items-center gap-2 mb-2">
      <button type="button" className="button" disabled={number <= 1} onClick={() => onGo(number - 1)}>
        Back
      </button>
      <span>
        Sheet <span className="figure">{number}</span> of <span className="figure">{count}</span>
      </span>
      <button type="button" className="button" disabled={number >= count} onClick={() => onGo(number + 1)}>
        Next
      </button>
    </nav>
  );
}

interface ReadingProps {
  readonly progress: Design['progress'];
  readonly problem: string | null;
  readonly onStop: () => void;
  readonly onRetry: () => void;
}

function Reading({ progress, problem, onStop, onRetry }: ReadingProps) {
  return (
    <section aria-label="Sheet" className="sheet p-6 min-h-80 grid place-content-center text-center gap-3">
      {problem ? (
        <>
          <p role="alert" className="max-w-md">
            {problem}
          </p>
          <button type="button" className="button" onClick={onRetry}>
            Read it again
          </button>
        </>
      ) : (
        <>
          <p role="status">{progress?.words ?? 'Reading the drawing'} …</p>
          <progress
            max={1}
            value={progress?.share ?? 0}
            className="w-64 h-3"
            aria-label="Reading the drawing"
          />
          <button type="button" className="button" onClick={onStop}>
            Stop
          </button>
        </>
      )}
    </section>
  );
}
