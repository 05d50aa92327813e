import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';
import { mapContour } from '#core/geometry/affine.ts';
import { boundContour, joinBoxes } from '#core/geometry/box.ts';

/**
 * A drawing as large as its lines, for files that know no page.
 *
 * @throws AppError `badDrawing` when there is no line
 * @example frameContours(drawing.contours, []).contours.length // 2
 */
export function frameContours(contours: readonly DrawnContour[], words: readonly string[]): Drawing {
  if (contours.length === 0) {
    const seen = words.join(', ');
    throw new AppError(
      'badDrawing',
      `the drawing has no lines to cut${seen ? `; not taken over: ${seen}` : ''}`,
    );
  }
  const box = joinBoxes(contours.map(({ contour }) => boundContour(contour)));
  const shift = [1, 0, 0, 1, -box.minX, -box.minY] as const;
  return {
    widthMm: Math.max(0.1, box.maxX - box.minX),
    heightMm: Math.max(0.1, box.maxY - box.minY),
    contours: contours.map((line) => ({ ...line, contour: mapContour(shift, line.contour) })),
    images: [],
    leftOut: words,
  };
}
