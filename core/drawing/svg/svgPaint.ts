import type { ShapePaint } from '#core/drawing/drawing.ts';
import type { SvgStyle } from '#core/drawing/svg/svgStyle.ts';
import type { Affine } from '#core/geometry/affine.ts';

/** A pen squeezed by less than this share still looks round. */
const EVEN_SHARE = 0.001;

/**
 * The fill that shows: `null` for none and for one that covers nothing.
 *
 * @example shownFill(INITIAL_STYLE) // '#000000'
 */
export function shownFill({ fill, fillAlpha, fillOpacity }: SvgStyle): string | null {
  return fillAlpha * fillOpacity > 0 ? fill : null;
}

/**
 * The stroke that shows. One of no width stays a line: that is how hairlines to cut are often drawn.
 *
 * @example shownStroke(INITIAL_STYLE) // null
 */
export function shownStroke({ stroke, strokeAlpha, strokeOpacity }: SvgStyle): string | null {
  return strokeAlpha * strokeOpacity > 0 ? stroke : null;
}

/**
 * Whether its lines and colours do not tell how a shape looks: gradients and patterns, paint that lets through,
 * markers, strokes squeezed by an unequal scale.
 *
 * @example needsFile(INITIAL_STYLE, [1, 0, 0, 1, 0, 0]) // false
 */
export function needsFile(style: SvgStyle, affine: Affine): boolean {
  if (style.isAdorned) return true;
  const fill = shownFill(style);
  const stroke = shownStroke(style);
  if (fill !== null && (style.isFillServed || style.fillAlpha * style.fillOpacity < 1)) return true;
  if (stroke === null) return false;
  return style.isStrokeServed || style.strokeAlpha * style.strokeOpacity < 1 || !isEvenScale(affine);
}

/** Whether a map turns circles into circles. */
function isEvenScale([a, b, c, d]: Affine): boolean {
  const first = Math.hypot(a, b);
  const second = Math.hypot(c, d);
  const most = Math.max(first, second);
  const isSquare = Math.abs(a * c + b * d) <= EVEN_SHARE * first * second;
  return isSquare && Math.abs(first - second) <= EVEN_SHARE * most;
}

/**
 * How a shape of this style is filled and stroked.
 *
 * @param scale mm per user unit
 * @example paintOf(INITIAL_STYLE, 1).cap // 'butt'
 */
export function paintOf({ pen, dash, dashOffset }: SvgStyle, scale: number): ShapePaint {
  if (dash === null) return pen;
  const dashMm = dashesOf(dash).map((length) => length * scale);
  return { ...pen, dashMm, dashOffsetMm: dashOffset * scale };
}

/** An odd count of lengths is run through twice. Source: W3C SVG 1.1, section 11.4. */
function dashesOf(dash: string): readonly number[] {
  const lengths = dash.split(' ').map(parseFloat);
  if (!lengths.every((length) => length >= 0)) return [];
  return lengths.length % 2 === 1 ? [...lengths, ...lengths] : lengths;
}
