import { writePathData } from '#core/drawing/writePathData.ts';
import type { Contour } from '#core/geometry/contour.ts';

/** A picture as it lies on paper, with the outlines that were traced of it. */
export interface PictureOnPaper {
  /** `data:image/png;base64,…`, the same with jpeg, or where it is kept. */
  readonly image: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** In mm from its upper left corner. */
  readonly contours: readonly Contour[];
}

/** The line that is cut around a picture. It has no name: what it is for follows from the sheet. */
const OUTLINE = 'fill="none" stroke="#1f766f" stroke-width="0.2"';

/**
 * A picture with its outlines as a drawing: art, and the lines to cut around it.
 *
 * @returns SVG at real size
 * @example writePictureSvg({ image: 'data:image/png;base64,AA==', widthMm: 50, heightMm: 30, contours: [squareContour] }).includes('width="50mm"') // true
 */
export function writePictureSvg({ image, widthMm, heightMm, contours }: PictureOnPaper): string {
  const size = `width="${widthMm}" height="${heightMm}"`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">`,
    `  <image href="${image}" ${size} preserveAspectRatio="none"/>`,
    `  <g ${OUTLINE}>`,
    ...contours.map((contour) => `    <path d="${writePathData(contour)}"/>`),
    '  </g>',
    '</svg>',
    '',
  ].join('\n');
}
