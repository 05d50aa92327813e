import type { ReactNode } from 'react';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { joinBoxes, middleOf, type BoxMm } from '#core/geometry/box.ts';
import { SheetView } from '#web/components/sheetView/SheetView.tsx';
import { RoledLines } from '#web/components/sheetView/RoledLines.tsx';
import { ChosenLines } from '#web/islands/job/roles/ChosenLines.tsx';
import { RouteLines } from '#web/islands/job/RouteLines.tsx';
import { SheetMarks } from '#web/islands/job/sheet/SheetMarks.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { useJob } from '#web/islands/job/useJob.ts';
import { useLasso } from '#web/islands/job/roles/useLasso.ts';
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
    <section aria-label="Sheet" className="p-1 min-w-0 self-start lg:sticky lg:top-3">
      {isDrawing ? <DrawingCanvas {...props} layout={layout} /> : <SheetCanvas {...props} layout={layout} />}
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

function DrawingCanvas({ layout, design, state, chosen, preview, onChoose, looked }: Laid) {
  const { drawing } = layout;
  const lasso = useLasso(drawing.lines, chosen, onChoose);
  const isChoosing = state.step === 'roles';
  const box = boxAround(drawing);
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const ring = size / 45;
  return (
    <>
      <SheetView
        widthMm={drawing.widthMm}
        heightMm={drawing.heightMm}
        marginMm={0}
        around={box}
        label={`${looked.name} as drawn, ${drawing.lines.length} lines`}
        pointer={isChoosing ? lasso.pointer : undefined}
      >
        <RoledLines lines={drawing.lines} images={drawing.images} art={drawing.art} dotMm={size / 260} />
        <ChosenLines lines={drawing.lines} chosen={chosen} />
        {state.step === 'drawing' && chosen.length > 0 ? (
          <path
            d={preview}
            fill="var(--color-verdigris-pale)"
            fillOpacity="0.6"
            stroke="var(--color-ink)"
            strokeWidth="1.5"
            vectorEffect="non-scaling-stroke"
          />
        ) : null}
        {state.step === 'drawing' && design.border ? (
          <path
            d={design.border.data}
            fill="none"
            stroke="var(--color-verdigris)"
            strokeWidth="1.5"
            strokeDasharray="5 4"
            vectorEffect="non-scaling-stroke"
          />
        ) : null}
        {lasso.box ? <LassoBox box={lasso.box} /> : null}
        {state.step === 'drawing'
          ? (design.troubles ?? [])
              .slice(0, 200)
              .map(({ at, weight, kind }, index) => (
                <circle
                  key={`${kind}/${index}`}
                  cx={at.x}
                  cy={at.y}
                  r={ring}
                  fill="none"
                  stroke={weight === 'stop' ? 'var(--color-ember)' : 'var(--color-straw)'}
                  strokeWidth="2.5"
                  strokeDasharray={weight === 'stop' ? undefined : '5 3'}
                  vectorEffect="non-scaling-stroke"
                />
              ))
          : null}
      </SheetView>
      <p className="text-sm text-muted mt-2">
        {isChoosing
          ? 'Click a line to choose it, drag around several; Shift adds to what is chosen.'
          : `${drawing.lines.length} ${drawing.lines.length === 1 ? 'line' : 'lines'}, ${drawing.widthMm.toFixed(1)} × ${drawing.heightMm.toFixed(1)} mm as drawn.`}
      </p>
    </>
  );
}

/** A border reaches over the edge of its file. */
function boxAround({ widthMm, heightMm, lines }: ShownLayout['drawing']): BoxMm {
  return joinBoxes([{ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }, ...lines.map(({ box }) => box)]);
}

function LassoBox({ box }: { readonly box: BoxMm }) {
  return (
    <rect
      x={box.minX}
      y={box.minY}
      width={box.maxX - box.minX}
      height={box.maxY - box.minY}
      fill="var(--color-verdigris-pale)"
      fillOpacity="0.5"
      stroke="var(--color-verdigris)"
      vectorEffect="non-scaling-stroke"
    />
  );
}

function SheetCanvas({ layout, state, nest }: Laid) {
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
        {nest.better ? <NestPreview nest={nest} layout={layout} sheetIndex={number - 1} /> : null}
      </SheetView>
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
        .map(({ piece, xMm, yMm, turnDeg }, index) => {
          const shape = layout.pieces[piece];
          if (!shape) return null;
          const { x, y } = middleOf(shape.box);
          return (
            <path
              key={index}
              d={writeRingsData(shape.silhouette)}
              transform={`translate(${xMm} ${yMm}) rotate(${turnDeg}) translate(${-x} ${-y})`}
              vectorEffect="non-scaling-stroke"
            />
          );
        })}
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
