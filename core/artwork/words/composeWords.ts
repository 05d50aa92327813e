import { leastBorder } from '#core/drawing/border/measureBorder.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { mapContour } from '#core/geometry/affine.ts';
import { boundContour, joinBoxes } from '#core/geometry/box.ts';
import { areaOfRings, fillHoles, fillRings, offsetRings, type Rings } from '#core/geometry/clip.ts';
import type { Contour } from '#core/geometry/contour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { ringToContour } from '#core/geometry/ringToContour.ts';
import { AppError } from '#core/errors/appError.ts';

/** Words as a drawing. */
export interface WordsDrawing {
  /** SVG at real size. */
  readonly source: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** How many come off the sheet by themselves. */
  readonly pieces: number;
  /**
   * The least border that makes one piece of all, held together by necks that last, mm; 0 where they are one already,
   * `null` where none up to 20 mm does.
   */
  readonly leastBorderMm: number | null;
}

/** What unites letters may change their area by rounding, as a share. */
const SAME_SHARE = 1e-4;
const INK = '#1e2a32';
const CUT = 'fill="none" stroke="#1f766f" stroke-width="0.2"';

/**
 * Letters as a drawing: without a border to be cut each by itself, counters too; with one printed, and cut around once.
 * Letters that overlap, as those of a script do, become one.
 *
 * @param letters outlines as a font draws them (by the nonzero rule), mm, y downwards
 * @param borderMm around them; 0 for none
 * @throws AppError `badDrawing` where nothing is drawn
 * @example composeWords([squareContour], 0).pieces // 1
 */
export function composeWords(letters: readonly Contour[], borderMm: number): WordsDrawing {
  const rings = letters.map((contour) => flattenContour(contour));
  const filled = fillRings(rings, false);
  if (filled.length === 0) throw new AppError('badDrawing', 'nothing is drawn: type a word');
  const united = isPlain(rings, filled) ? letters : filled.map(ringToContour);
  const outline = borderMm > 0 ? borderOf(filled, borderMm).map(ringToContour) : [];
  const box = joinBoxes([...united, ...outline].map(boundContour));
  const [widthMm, heightMm] = [box.maxX - box.minX, box.maxY - box.minY];
  const dataOf = (contours: readonly Contour[]) =>
    contours.map((one) => writePathData(mapContour([1, 0, 0, 1, -box.minX, -box.minY], one))).join('');
  const size = `width="${widthMm.toFixed(3)}mm" height="${heightMm.toFixed(3)}mm"`;
  const parts =
    borderMm > 0
      ? [
          `<g id="art" fill="${INK}"><path d="${dataOf(united)}"/></g>`,
          ...outline.map((one) => cut(dataOf([one]))),
        ]
      : [cut(dataOf(united))];
  return {
    source: `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${widthMm.toFixed(3)} ${heightMm.toFixed(3)}">\n  ${parts.join('\n  ')}\n</svg>\n`,
    widthMm,
    heightMm,
    pieces: borderMm > 0 ? outline.length : fillHoles(filled).length,
    leastBorderMm: leastBorder(filled),
  };
}

function cut(data: string): string {
  return `<g ${CUT}><path d="${data}"/></g>`;
}

/** Whether the letters are as they were drawn: none overlaps another. */
function isPlain(rings: Rings, filled: Rings): boolean {
  if (rings.length !== filled.length) return false;
  const area = areaOfRings(rings);
  return Math.abs(area - areaOfRings(filled)) <= SAME_SHARE * area;
}

function borderOf(filled: Rings, byMm: number): Rings {
  return fillHoles(offsetRings(filled, byMm));
}
