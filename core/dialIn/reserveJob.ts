import { readSvg } from '#core/drawing/readSvg.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { Job } from '#core/job/job.ts';
import { placeDrawing } from '#core/sheet/placeDrawing.ts';
import type { Machine, MarkScheme } from '#core/station/machine.ts';

/** What a sensor needs clear around a mark, mm. Common practice, no source. */
const MARK_CLEAR_MM = 5;

/**
 * The sheet of a job with what test cuts must keep off: the job's own lines and the registration marks with room
 * around them. What is left is where a test card goes.
 *
 * @throws AppError as readSvg and placeDrawing do
 */
export function reserveJob(
  { svg, sheet, placement }: Pick<Job, 'svg' | 'sheet' | 'placement'>,
  { marks }: Pick<Machine, 'marks'>,
): { readonly widthMm: number; readonly heightMm: number; readonly taken: readonly BoxMm[] } {
  const { box } = placeDrawing(readSvg(svg), sheet, placement);
  const { widthMm, heightMm } = sheet;
  return { widthMm, heightMm, taken: [box, ...markBoxes(marks, widthMm, heightMm)] };
}

/** The squares in the corners that marks and their keep-out fill; the fourth only where the scheme has it. */
function markBoxes(
  { scheme, lengthMm, insetMm }: MarkScheme,
  widthMm: number,
  heightMm: number,
): readonly BoxMm[] {
  if (scheme === 'none') return [];
  const reach = insetMm + lengthMm + MARK_CLEAR_MM;
  const [right, bottom] = [widthMm - reach, heightMm - reach];
  const three: readonly (readonly [number, number])[] = [
    [0, 0],
    [right, 0],
    [0, bottom],
  ];
  const corners = scheme === 'fourCorners' ? [...three, [right, bottom] as const] : three;
  return corners.map(([minX, minY]) => ({ minX, minY, maxX: minX + reach, maxY: minY + reach }));
}
