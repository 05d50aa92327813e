import { MAX_DRAWING_LENGTH, type Drawing, type ReadProgress } from '#core/drawing/drawing.ts';
import { readSvgViewport } from '#core/drawing/svgViewport.ts';
import { SvgWalker } from '#core/drawing/svgWalker.ts';
import { readXmlTree } from '#core/drawing/xmlTree.ts';
import { AppError } from '#core/errors/appError.ts';

const MAX_DEPTH = 200;
const KEEPS_TEXT: ReadonlySet<string> = new Set(['style']);

/**
 * Reads an SVG drawing into contours in mm: paths, basic shapes, groups, transforms, units, viewBox, nested drawings,
 * reused symbols, style sheets by name, id and class, dashes, and pictures held in the file. Layers are named groups.
 * Nothing outside the file is ever fetched and entities are refused.
 *
 * @param text the whole file
 * @param onProgress told now and then; the reading itself does not wait
 * @throws AppError `badDrawing` with line and reason: not XML, not SVG, entities, no size, no lines, a number that is
 *   not finite, symbols within themselves; `tooLarge` above 50 million characters or 100,000 lines
 * @example readSvg('<svg width="10mm" height="10mm" viewBox="0 0 10 10"><path d="M1 1H9"/></svg>').contours.length // 1
 */
export function readSvg(text: string, onProgress?: ReadProgress): Drawing {
  if (text.length > MAX_DRAWING_LENGTH) {
    throw new AppError(
      'tooLarge',
      `the drawing has ${text.length} characters; at most ${MAX_DRAWING_LENGTH} are read`,
    );
  }
  const root = readXmlTree(text, MAX_DEPTH, KEEPS_TEXT, (share) => onProgress?.(share * 0.5));
  if (root.name !== 'svg') {
    throw new AppError('badDrawing', `the file starts with <${root.name}>; an SVG starts with <svg>`);
  }
  const { widthMm, heightMm, toMm } = readSvgViewport(root.attributes);
  const walker = new SvgWalker(root, (share) => onProgress?.(0.5 + share * 0.5));
  walker.walk(toMm);
  const { contours, images } = walker;
  const leftOut = [...walker.leftOut];
  if (contours.length === 0 && images.length === 0) {
    const seen = leftOut.join(', ');
    throw new AppError(
      'badDrawing',
      `the drawing has no lines to cut${seen ? `; it holds only ${seen}` : ''}`,
    );
  }
  return { widthMm, heightMm, contours, images, leftOut };
}
