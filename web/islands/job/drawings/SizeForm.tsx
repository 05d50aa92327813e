import { COARSE_DPI } from '#core/drawing/pictureSize.ts';
import { mmToInch } from '#core/units/length.ts';
import { boundPoints, cornersOf, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { mapPoint } from '#core/geometry/affine.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import { fitLargest, sizeFactorOf, usableRoom, withSizeFactor } from '#core/job/sizeJob.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly layout: ShownLayout;
  readonly isBusy: boolean;
  /** No other drawing wants a place on the sheet. */
  readonly isAlone: boolean;
  readonly onChange: (change: JobChange) => void;
}

type Picture = ShownLayout['drawing']['images'][number];

const [SMALLEST, LARGEST] = [0.001, 1000] as const;

/** How large the drawing is, by either side or in percent of its file, or as large as the sheet takes. */
export function SizeForm({ job, layout, isBusy, isAlone, onChange }: Props) {
  const box = boxOf(layout);
  if (!box) return null;
  const [widthMm, heightMm] = [box.maxX - box.minX, box.maxY - box.minY];
  const factor = sizeFactorOf(job.edits);
  const resize = (next: number, more: JobChange = {}) => {
    const kept = Math.min(LARGEST, Math.max(SMALLEST, next));
    onChange({ ...more, edits: withSizeFactor(job.edits, kept) });
  };
  const fill = () => {
    const room = usableRoom({ sheet: job.sheet, printArea: layout.printArea, marks: layout.marks });
    const size = { widthMm: room.maxX - room.minX, heightMm: room.maxY - room.minY };
    const fit = fitLargest({ widthMm, heightMm }, size);
    const place = { piece: 0, sheet: 0, xMm: (room.minX + room.maxX) / 2, yMm: (room.minY + room.maxY) / 2 };
    const placements = [{ ...place, turnDeg: fit.isTurned ? 90 : 0 }];
    // A hair less, so that rounding reaches over nothing.
    resize(factor * fit.factor * 0.9999, { layout: { ...job.layout, isWhole: true, placements } });
  };
  return (
    <section aria-label="Size" className="border-t border-hairline mt-3 pt-3">
      <h2>Size</h2>
      <div className="grid grid-cols-3 gap-3 mt-1">
        <Length
          label="Width"
          mm={widthMm}
          disabled={isBusy}
          onChange={(mm) => mm > 0 && resize((factor * mm) / widthMm)}
        />
        <Length
          label="Height"
          mm={heightMm}
          disabled={isBusy}
          onChange={(mm) => mm > 0 && resize((factor * mm) / heightMm)}
        />
        <NumberBox
          label="Of its file"
          unit="%"
          value={100 * factor}
          disabled={isBusy}
          onChange={(percent) => percent > 0 && resize(percent / 100)}
        />
      </div>
      {isAlone ? (
        <button type="button" className="button mt-2" disabled={isBusy} onClick={fill}>
          As large as the sheet takes
        </button>
      ) : null}
      <Resolution layout={layout} />
    </section>
  );
}

/** What pictures have left of their resolution, where that is too little. */
function Resolution({ layout }: Pick<Props, 'layout'>) {
  const { images, widthsPx = [] } = layout.drawing;
  const coarsest = Math.min(...images.map((image, index) => dpiOf(image, widthsPx[index] ?? null)));
  if (!(coarsest < COARSE_DPI)) return null;
  return (
    <p className="note mt-2" data-tone="careful">
      Its picture has {Math.round(coarsest)} dpi at this size: pixels will be seen on paper.
    </p>
  );
}

/** Pixels an inch along the width of a picture; infinite where its data does not tell. */
function dpiOf({ toMm }: Picture, widthPx: number | null): number {
  return widthPx === null ? Infinity : widthPx / mmToInch(Math.hypot(toMm[0], toMm[1]));
}

/** What of the drawing is printed or cut. */
function boxOf({ drawing: { lines, images } }: ShownLayout): BoxMm | null {
  const unit = cornersOf({ minX: 0, minY: 0, maxX: 1, maxY: 1 });
  const boxes = [
    ...lines.filter(({ role }) => role !== 'ignore').map(({ box }) => box),
    ...images.map(({ toMm }) => boundPoints(unit.map((corner) => mapPoint(toMm, corner)))),
  ];
  return boxes.length === 0 ? null : joinBoxes(boxes);
}
