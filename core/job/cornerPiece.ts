import type { Drawing } from '#core/drawing/drawing.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';

/** Edge of the square and reach of the star, mm. */
const EDGE_MM = 10;

/**
 * A small piece that shows whether offset and overcut are right, 26 x 12 mm: a square, whose corners must be sharp and
 * closed, and a narrow star, whose points must neither round off nor grow ears.
 *
 * @example drawCornerPiece().drawing.contours.length // 2
 */
export function drawCornerPiece(): { readonly svg: string; readonly drawing: Drawing } {
  const star = Array.from({ length: 10 }, (_, point) => {
    const reach = point % 2 === 0 ? EDGE_MM / 2 : EDGE_MM / 6;
    const angle = (point * Math.PI) / 5 - Math.PI / 2;
    return `${(19 + reach * Math.cos(angle)).toFixed(3)},${(6 + reach * Math.sin(angle)).toFixed(3)}`;
  });
  const svg =
    `<svg xmlns="http://www.w3.org/2000/svg" width="26mm" height="12mm" viewBox="0 0 26 12" fill="none" stroke="#1f766f">` +
    `<g id="kiss"><rect x="1" y="1" width="${EDGE_MM}" height="${EDGE_MM}"/><polygon points="${star.join(' ')}"/></g></svg>`;
  return { svg, drawing: readSvg(svg) };
}
