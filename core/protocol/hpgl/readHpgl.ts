import { MAX_DRAWING_LENGTH, type Drawing, type ReadProgress } from '#core/drawing/drawing.ts';
import { frameContours } from '#core/drawing/frameContours.ts';
import { AppError } from '#core/errors/appError.ts';
import { knowsInstruction, Plotter } from '#core/protocol/hpgl/plotter.ts';
import { scanHpgl } from '#core/protocol/hpgl/scanHpgl.ts';

/** How often progress is told, in instructions. */
const TELL_EVERY = 20_000;

/**
 * Reads an HPGL plot: pen up and down, absolute and relative, encoded polylines, arcs, curves, circles, rectangles,
 * wedges and polygons, scales and windows, pens as layers, line types. A unit is 0.025 mm unless the plot is scaled; the
 * plot is as large as its lines; y is turned downwards.
 *
 * @throws AppError `badDrawing` with the place and reason: no HPGL, figures that are none, scales to an unnamed page, no
 *   lines; `tooLarge` above 50 million characters or 100,000 lines
 * @example readHpgl('IN;SP1;PU0,0;PD400,0;').contours.length // 1
 */
export function readHpgl(text: string, onProgress?: ReadProgress): Drawing {
  if (text.length > MAX_DRAWING_LENGTH) {
    throw new AppError(
      'tooLarge',
      `the drawing has ${text.length} characters; at most ${MAX_DRAWING_LENGTH} are read`,
    );
  }
  const plotter = new Plotter();
  let count = 0;
  for (const instruction of scanHpgl(text)) {
    const { name, at } = instruction;
    if (count === 0 && !knowsInstruction(name)) {
      throw new AppError('badDrawing', `a plot does not begin with "${text.slice(at, at + 20)}"`);
    }
    plotter.take(instruction);
    if (count++ % TELL_EVERY === 0) onProgress?.(at / text.length);
  }
  plotter.endLine();
  onProgress?.(1);
  return frameContours(plotter.contours, plotter.leftOut.list());
}
