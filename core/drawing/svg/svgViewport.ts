import { AppError } from '#core/errors/appError.ts';
import { MM_PER_PIXEL, readSvgLength } from '#core/drawing/svg/svgLength.ts';
import type { Affine } from '#core/geometry/affine.ts';

/** Larger than any sheet or roll length a small cutter takes, mm. */
const LARGEST_MM = 20_000;

/** The real size of a drawing and the map from its user units to mm. */
export interface SvgViewport {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly toMm: Affine;
}

/**
 * Reads width, height and viewBox of the outermost svg element. Without a size the viewBox counts as pixels; with
 * neither, nothing says how large the drawing is.
 *
 * @throws AppError `badDrawing` for no size, zero size, unknown units, or more than 20 m
 * @example readSvgViewport({ width: '40mm', height: '30mm', viewBox: '0 0 40 30' }).widthMm // 40
 */
export function readSvgViewport(attributes: Readonly<Record<string, string>>): SvgViewport {
  const box = readViewBox(attributes['viewBox']);
  const given = (name: string) => (attributes[name] === undefined ? null : readSvgLength(attributes[name]));
  const width = given('width');
  const height = given('height');
  const widthMm =
    width ?? (box && (height === null ? box.width * MM_PER_PIXEL : (height * box.width) / box.height));
  const heightMm =
    height ?? (box && (width === null ? box.height * MM_PER_PIXEL : (width * box.height) / box.width));
  if (widthMm === null || heightMm === null) {
    throw new AppError('badDrawing', 'the drawing says neither its width and height nor a viewBox');
  }
  for (const [name, value] of [
    ['width', widthMm],
    ['height', heightMm],
  ] as const) {
    if (!(value > 0))
      throw new AppError('badDrawing', `the drawing's ${name} is ${value} mm; it must be above 0`);
    if (value > LARGEST_MM) {
      throw new AppError(
        'badDrawing',
        `the drawing's ${name} is ${value.toFixed(0)} mm; at most ${LARGEST_MM} mm`,
      );
    }
  }
  return {
    widthMm,
    heightMm,
    toMm: box ? fit(box, widthMm, heightMm, attributes) : [MM_PER_PIXEL, 0, 0, MM_PER_PIXEL, 0, 0],
  };
}

/**
 * A drawing or symbol within another: a viewBox fitted into a box of the outer user units.
 *
 * @returns the map from its own user units to the outer ones
 * @throws AppError `badDrawing` for a viewBox that is not four numbers or has no size
 * @example readInnerViewport({ viewBox: '0 0 10 10' }, { x: 5, y: 0, width: 20, height: 20 }) // [2, 0, 0, 2, 5, 0]
 */
export function readInnerViewport(
  attributes: Readonly<Record<string, string>>,
  place: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): Affine {
  const box = readViewBox(attributes['viewBox']);
  if (!box) return [1, 0, 0, 1, place.x, place.y];
  const [a, b, c, d, e, f] = fit(box, place.width, place.height, attributes);
  return [a, b, c, d, e + place.x, f + place.y];
}

export interface ViewBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * @example readViewBox('0 0 40 30').width // 40
 */
export function readViewBox(text: string | undefined): ViewBox | null {
  if (text === undefined) return null;
  const [x = NaN, y = NaN, width = NaN, height = NaN] = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (![x, y, width, height].every(Number.isFinite)) {
    throw new AppError('badDrawing', `viewBox "${text.slice(0, 60)}" is not four numbers`);
  }
  if (width <= 0 || height <= 0) {
    throw new AppError(
      'badDrawing',
      `viewBox "${text.slice(0, 60)}" has no size; width and height must be above 0`,
    );
  }
  return { x, y, width, height };
}

/** The viewBox onto the viewport: whole and centred, or stretched where preserveAspectRatio is none. */
function fit(
  box: ViewBox,
  widthMm: number,
  heightMm: number,
  attributes: Readonly<Record<string, string>>,
): Affine {
  const scaleX = widthMm / box.width;
  const scaleY = heightMm / box.height;
  const ratio = attributes['preserveAspectRatio'] ?? 'xMidYMid';
  if (ratio.startsWith('none')) return [scaleX, 0, 0, scaleY, -box.x * scaleX, -box.y * scaleY];
  const scale = ratio.includes('slice') ? Math.max(scaleX, scaleY) : Math.min(scaleX, scaleY);
  const place = (size: number, used: number, axis: 'x' | 'Y') =>
    ratio.includes(`${axis}Min`) ? 0 : ratio.includes(`${axis}Max`) ? size - used : (size - used) / 2;
  const left = place(widthMm, box.width * scale, 'x');
  const top = place(heightMm, box.height * scale, 'Y');
  return [scale, 0, 0, scale, left - box.x * scale, top - box.y * scale];
}
