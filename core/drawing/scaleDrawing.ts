import type { Drawing, ShapePaint } from '#core/drawing/drawing.ts';
import { composeAffine, mapContour, scaling } from '#core/geometry/affine.ts';

/**
 * A drawing larger or smaller: its lines, their widths, its pictures. Dashes stay what they are called, since roles go by
 * them.
 *
 * @param factor above 0
 * @example scaleDrawing(drawing, 2).widthMm // 80
 */
export function scaleDrawing(drawing: Drawing, factor: number): Drawing {
  const larger = scaling(factor);
  return {
    ...drawing,
    widthMm: drawing.widthMm * factor,
    heightMm: drawing.heightMm * factor,
    scaledBy: (drawing.scaledBy ?? 1) * factor,
    contours: drawing.contours.map((line) => ({
      ...line,
      contour: mapContour(larger, line.contour),
      strokeWidthMm: line.strokeWidthMm === null ? null : line.strokeWidthMm * factor,
      ...(line.paint ? { paint: scalePaint(line.paint, factor) } : {}),
    })),
    images: drawing.images.map((image) => ({ ...image, toMm: composeAffine(larger, image.toMm) })),
  };
}

function scalePaint(paint: ShapePaint, factor: number): ShapePaint {
  if (paint.dashMm.length === 0) return paint;
  return {
    ...paint,
    dashMm: paint.dashMm.map((length) => length * factor),
    dashOffsetMm: paint.dashOffsetMm * factor,
  };
}
