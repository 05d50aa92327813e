import type { Trouble } from '#core/checks/trouble.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import { joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { RoledLines } from '#web/components/sheetView/RoledLines.tsx';
import { SheetView } from '#web/components/sheetView/SheetView.tsx';
import { ChosenLines } from '#web/islands/job/roles/ChosenLines.tsx';
import { useLasso } from '#web/islands/job/roles/useLasso.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobReply } from '#web/schemas/job.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly layout: ShownLayout;
  readonly design: Design;
  readonly isChoosing: boolean;
  readonly chosen: readonly number[];
  readonly preview: string;
  readonly looked: JobReply;
  readonly onChoose: (lineIds: readonly number[]) => void;
}

/** One drawing with its lines, what was found in them, and what would become of them. */
export function DrawingCanvas({ layout, design, isChoosing, chosen, preview, onChoose, looked }: Props) {
  const { drawing } = layout;
  const lasso = useLasso(drawing.lines, chosen, onChoose);
  const box = boxAround(drawing);
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY);
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
        {isChoosing ? null : (
          <Wishes preview={chosen.length > 0 ? preview : ''} border={design.border?.data ?? ''} />
        )}
        {lasso.box ? <LassoBox box={lasso.box} /> : null}
        {isChoosing ? null : <Rings troubles={design.troubles ?? []} radiusMm={size / 45} />}
      </SheetView>
      <p className="text-sm text-muted mt-2">
        {isChoosing
          ? 'Click a line to choose it, drag around several; Shift adds to what is chosen.'
          : `${drawing.lines.length} ${drawing.lines.length === 1 ? 'line' : 'lines'}, ${say(`${drawing.widthMm.toFixed(1)} × ${drawing.heightMm.toFixed(1)} mm`)} as drawn.`}
      </p>
    </>
  );
}

/** What a mend, or a border, would make. */
function Wishes({ preview, border }: { readonly preview: string; readonly border: string }) {
  const shared = { strokeWidth: 1.5, vectorEffect: 'non-scaling-stroke' } as const;
  return (
    <>
      <path
        {...shared}
        d={preview}
        fill="var(--color-verdigris-pale)"
        fillOpacity="0.6"
        stroke="var(--color-ink)"
      />
      <path {...shared} d={border} fill="none" stroke="var(--color-verdigris)" strokeDasharray="5 4" />
    </>
  );
}

const MOST_RINGS = 200;

/** Where something was found. */
function Rings({ troubles, radiusMm }: { readonly troubles: readonly Trouble[]; readonly radiusMm: number }) {
  return troubles
    .slice(0, MOST_RINGS)
    .map(({ at, weight, kind }, index) => (
      <circle
        key={`${kind}/${index}`}
        cx={at.x}
        cy={at.y}
        r={radiusMm}
        fill="none"
        stroke={weight === 'stop' ? 'var(--color-ember)' : 'var(--color-straw)'}
        strokeWidth="2.5"
        strokeDasharray={weight === 'stop' ? undefined : '5 3'}
        vectorEffect="non-scaling-stroke"
      />
    ));
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
