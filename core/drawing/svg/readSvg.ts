import { MAX_DRAWING_LENGTH, type Drawing, type ReadProgress } from '#core/drawing/drawing.ts';
import { readSvgViewport } from '#core/drawing/svg/svgViewport.ts';
import { SvgWalker, type DrawnListener } from '#core/drawing/svg/svgWalker.ts';
import { readXmlStream, readXmlTree, type XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { AppError } from '#core/errors/appError.ts';

/** Deepest nesting of groups that is read. */
export const MAX_DEPTH = 200;
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
  const walker = hasLateMeaning(text) ? walkTree(text, onProgress) : walkStream(text, onProgress);
  const { contours, images, isMoreThanLines, idsGiven, unpainted, clippedAway } = walker.drawn;
  const leftOut = [
    ...walker.drawn.leftOut,
    ...(unpainted > 0 ? [`${countOf(unpainted, 'shape')} with neither fill nor stroke`] : []),
    ...(clippedAway > 0 ? [`${countOf(clippedAway, 'line')} that no clip shows`] : []),
  ];
  if (contours.length === 0 && images.length === 0) {
    const seen = leftOut.join(', ');
    throw new AppError(
      'badDrawing',
      `the drawing has no lines to cut${seen ? `; it holds only ${seen}` : ''}`,
    );
  }
  return { ...walker.size, contours, images, leftOut, isMoreThanLines, idsGiven };
}

function countOf(count: number, what: string): string {
  return count === 1 ? `a ${what}` : `${count} ${what}s`;
}

/** Symbols may be reused before they are defined, and style sheets stand anywhere: then everything is read first. */
function hasLateMeaning(text: string): boolean {
  // Most drawings hold none of the words: looked for first, since that costs a tenth of the pattern.
  if (text.includes('clip-path')) return true;
  return (text.includes('use') || text.includes('style')) && /<(?:[\w-]+:)?(use|style)[\s/>]/.test(text);
}

/** A drawing being read. */
export interface Walked {
  readonly drawn: SvgWalker;
  readonly size: { readonly widthMm: number; readonly heightMm: number };
}

/**
 * Begins drawing the elements of a file.
 *
 * @throws AppError `badDrawing` for what is no SVG or has no size
 * @example beginWalk({ name: 'svg', attributes: { viewBox: '0 0 96 96' } }).size.widthMm // 25.4
 */
export function beginWalk(
  root: Pick<XmlElement, 'name' | 'attributes'>,
  listener: DrawnListener | null = null,
): Walked {
  if (root.name !== 'svg') {
    throw new AppError('badDrawing', `the file starts with <${root.name}>; an SVG starts with <svg>`);
  }
  const { widthMm, heightMm, toMm } = readSvgViewport(root.attributes);
  return { drawn: new SvgWalker(toMm, listener), size: { widthMm, heightMm } };
}

function walkTree(text: string, onProgress: ReadProgress | undefined): Walked {
  const root = readXmlTree(text, MAX_DEPTH, KEEPS_TEXT, (share) => onProgress?.(share * 0.5));
  const walked = beginWalk(root);
  walked.drawn.walk(root, (share) => onProgress?.(0.5 + share * 0.5));
  return walked;
}

function walkStream(text: string, onProgress: ReadProgress | undefined): Walked {
  let walked: Walked | null = null;
  readXmlStream(
    text,
    MAX_DEPTH,
    {
      open: (element) => {
        walked ??= beginWalk(element);
        walked.drawn.open(element);
      },
      close: () => walked?.drawn.close(),
    },
    onProgress,
  );
  if (!walked) throw new AppError('badDrawing', 'the file is empty');
  return walked;
}
