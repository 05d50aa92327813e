import { itemAt } from '#core/collections/itemAt.ts';
import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import type { ReadBudget } from '#core/drawing/readBudget.ts';
import { MM_PER_PIXEL, readSvgLength } from '#core/drawing/svg/svgLength.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Affine } from '#core/geometry/affine.ts';
import type { Contour } from '#core/geometry/contour.ts';

type Attributes = Readonly<Record<string, string>>;

/** What percentages are of: the size of the nearest viewport, in user units. */
export interface UserFrame {
  readonly width: number;
  readonly height: number;
}

/** Element names that draw a line. */
export const SHAPES: ReadonlySet<string> = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

/**
 * The contours of a basic shape or path in mm. A shape of no size draws nothing.
 *
 * @param name one of {@link SHAPES}
 * @throws AppError `badDrawing` for attributes that are no numbers, or negative sizes
 * Source of the outlines and starting points: W3C SVG 1.1, chapter 9.
 * @example readSvgShape('rect', { width: '4', height: '2' }, IDENTITY, { width: 10, height: 10 })[0].isClosed // true
 */
export function readSvgShape(
  name: string,
  attributes: Attributes,
  toMm: Affine,
  frame: UserFrame,
  budget: ReadBudget | null = null,
): readonly Contour[] {
  if (name === 'path') return readSvgPath(attributes['d'] ?? '', toMm, budget);
  const pen = new ContourBuilder(toMm, budget);
  const x = (key: string) => readCoordinate(attributes[key], frame.width);
  const y = (key: string) => readCoordinate(attributes[key], frame.height);
  switch (name) {
    case 'rect':
      drawRectangle(pen, attributes, frame);
      break;
    case 'circle': {
      const radius = size(attributes, 'r', Math.hypot(frame.width, frame.height) / Math.SQRT2);
      drawEllipse(pen, x('cx'), y('cy'), radius, radius);
      break;
    }
    case 'ellipse':
      drawEllipse(
        pen,
        x('cx'),
        y('cy'),
        size(attributes, 'rx', frame.width),
        size(attributes, 'ry', frame.height),
      );
      break;
    case 'line':
      pen.moveTo(x('x1'), y('y1'));
      pen.lineTo(x('x2'), y('y2'));
      break;
    default:
      drawPoints(pen, attributes['points'] ?? '', name === 'polygon');
  }
  return pen.finish();
}

/**
 * A length in user units; percentages are of `whole`. Absent is 0. @throws AppError `badDrawing`
 *
 * @example readCoordinate('50%', 80) // 40
 */
export function readCoordinate(text: string | undefined, whole: number): number {
  if (text === undefined) return 0;
  const plain = Number(text);
  if (Number.isFinite(plain) && text !== '') return plain;
  const mm = readSvgLength(text);
  return mm === null ? (parseFloat(text) / 100) * whole : mm / MM_PER_PIXEL;
}

function size(attributes: Attributes, name: string, whole: number): number {
  const value = readCoordinate(attributes[name], whole);
  if (value < 0)
    throw new AppError('badDrawing', `${name}="${attributes[name]}" is negative; a size is 0 or more`);
  return value;
}

function drawRectangle(pen: ContourBuilder, attributes: Attributes, frame: UserFrame): void {
  const x = readCoordinate(attributes['x'], frame.width);
  const y = readCoordinate(attributes['y'], frame.height);
  const width = size(attributes, 'width', frame.width);
  const height = size(attributes, 'height', frame.height);
  if (width === 0 || height === 0) return;
  const given = (name: string, other: string) =>
    attributes[name] === undefined || attributes[name] === 'auto' ? other : name;
  const rx = Math.min(size(attributes, given('rx', 'ry'), frame.width), width / 2);
  const ry = Math.min(size(attributes, given('ry', 'rx'), frame.height), height / 2);
  const right = x + width;
  const bottom = y + height;
  const corner = (toX: number, toY: number) => {
    if (rx > 0 && ry > 0) pen.arcTo(rx, ry, 0, false, true, toX, toY);
  };
  const [dx, dy] = rx > 0 && ry > 0 ? [rx, ry] : [0, 0];
  pen.moveTo(x + dx, y);
  pen.lineTo(right - dx, y);
  corner(right, y + dy);
  pen.lineTo(right, bottom - dy);
  corner(right - dx, bottom);
  pen.lineTo(x + dx, bottom);
  corner(x, bottom - dy);
  pen.lineTo(x, y + dy);
  corner(x + dx, y);
  pen.close();
}

function drawEllipse(pen: ContourBuilder, cx: number, cy: number, rx: number, ry: number): void {
  if (rx === 0 || ry === 0) return;
  pen.moveTo(cx + rx, cy);
  pen.arcTo(rx, ry, 0, false, true, cx - rx, cy);
  pen.arcTo(rx, ry, 0, false, true, cx + rx, cy);
  pen.close();
}

function drawPoints(pen: ContourBuilder, text: string, isClosed: boolean): void {
  const numbers =
    text.trim() === ''
      ? []
      : text
          .trim()
          .split(/[\s,]+/)
          .map(Number);
  if (numbers.some((value) => !Number.isFinite(value))) {
    throw new AppError('badDrawing', 'points hold something that is not a finite number');
  }
  for (let index = 0; index + 1 < numbers.length; index += 2) {
    const x = itemAt(numbers, index);
    const y = itemAt(numbers, index + 1);
    if (index === 0) pen.moveTo(x, y);
    else pen.lineTo(x, y);
  }
  if (isClosed) pen.close();
}
