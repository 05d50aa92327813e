import { COARSE_DPI } from '#core/drawing/pictureSize.ts';
import { fitLargest } from '#core/job/sizeJob.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import type { PictureState } from '#web/islands/jobs/picture/usePicture.ts';
import { mmToInch } from '#core/units/length.ts';

interface Props {
  readonly picture: PictureState;
  readonly room: { readonly widthMm: number; readonly heightMm: number };
}

const SMALLEST_MM = 1;
const LARGEST_MM = 2000;

/** How large the picture lies on paper, by either side, and what that leaves of its resolution. */
export function PictureSize({ picture: { opened, widthMm, setWidthMm }, room }: Props) {
  if (!opened) return null;
  const ratio = opened.heightPx / opened.widthPx;
  const fit = fitLargest({ widthMm, heightMm: widthMm * ratio }, room);
  const take = (side: number) => (mm: number) =>
    setWidthMm(Number(Math.min(LARGEST_MM, Math.max(SMALLEST_MM, mm / side)).toFixed(3)));
  const dpi = opened.widthPx / mmToInch(widthMm);
  return (
    <div className="grid gap-2">
      <h2 className="text-base font-semibold">Size on paper</h2>
      <div className="grid grid-cols-2 gap-3">
        <Length label="Width" mm={widthMm} onChange={take(1)} />
        <Length label="Height" mm={widthMm * ratio} onChange={take(ratio)} />
      </div>
      <button
        type="button"
        className="button justify-self-start"
        onClick={() => setWidthMm(Number((widthMm * fit.factor).toFixed(1)))}
      >
        As large as the machine takes
      </button>
      {dpi < COARSE_DPI ? (
        <p className="note" data-tone="careful">
          {Math.round(dpi)} dpi at this size: pixels will be seen. Print it smaller, or bring a larger
          picture.
        </p>
      ) : (
        <p className="text-sm text-muted">{Math.round(dpi)} dpi at this size.</p>
      )}
      {opened.reducedFrom === null ? null : (
        <p className="text-sm text-muted">
          Its file has {(opened.reducedFrom / 1e6).toFixed(0)} megapixels; 20 are kept.
        </p>
      )}
    </div>
  );
}
