import { AppError } from '#core/errors/appError.ts';
import { readUserUnits } from '#core/drawing/svgLength.ts';
import { readSvgPath } from '#core/drawing/svgPath.ts';
import { arcToCubics } from '#core/geometry/arcToCubics.ts';
import type { Contour, Segment } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';

type Attributes = Readonly<Record<string, string>>;

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
 * The contours of a basic shape or path in its own user units. A shape of no size draws nothing.
 *
 * @param name one of {@link SHAPES}
 * @throws AppError `badDrawing` for attributes that are no numbers, or negative sizes
 * Source of the outlines and starting points: W3C SVG 1.1, chapter 9.
 */
export function readSvgShape(name: string, attributes: Attributes): readonly Contour[] {
  switch (name) {
    case 'path':
      return readSvgPath(attributes['d'] ?? '');
    case 'rect':
      return readRectangle(attributes);
    case 'circle': {
      const radius = size(attributes, 'r');
      return ellipse(number(attributes, 'cx'), number(attributes, 'cy'), radius, radius);
    }
    case 'ellipse':
      return ellipse(
        number(attributes, 'cx'),
        number(attributes, 'cy'),
        size(attributes, 'rx'),
        size(attributes, 'ry'),
      );
    case 'line': {
      const from = { x: number(attributes, 'x1'), y: number(attributes, 'y1') };
      return polyline([from, { x: number(attributes, 'x2'), y: number(attributes, 'y2') }], false);
    }
    default:
      return polyline(readPoints(attributes['points'] ?? ''), name === 'polygon');
  }
}

function number(attributes: Attributes, name: string): number {
  const text = attributes[name];
  return text === undefined ? 0 : readUserUnits(text);
}

function size(attributes: Attributes, name: string): number {
  const value = number(attributes, name);
  if (value < 0)
    throw new AppError('badDrawing', `${name}="${attributes[name]}" is negative; a size is 0 or more`);
  return value;
}

function readRectangle(attributes: Attributes): readonly Contour[] {
  const x = number(attributes, 'x');
  const y = number(attributes, 'y');
  const width = size(attributes, 'width');
  const height = size(attributes, 'height');
  if (width === 0 || height === 0) return [];
  const rx = Math.min(size(attributes, attributes['rx'] === undefined ? 'ry' : 'rx'), width / 2);
  const ry = Math.min(size(attributes, attributes['ry'] === undefined ? 'rx' : 'ry'), height / 2);
  const right = x + width;
  const bottom = y + height;
  if (rx === 0 || ry === 0) {
    return polyline(
      [
        { x, y },
        { x: right, y },
        { x: right, y: bottom },
        { x, y: bottom },
      ],
      true,
    );
  }
  const data =
    `M${x + rx} ${y}H${right - rx}A${rx} ${ry} 0 0 1 ${right} ${y + ry}V${bottom - ry}` +
    `A${rx} ${ry} 0 0 1 ${right - rx} ${bottom}H${x + rx}A${rx} ${ry} 0 0 1 ${x} ${bottom - ry}` +
    `V${y + ry}A${rx} ${ry} 0 0 1 ${x + rx} ${y}Z`;
  return readSvgPath(data);
}

function ellipse(cx: number, cy: number, rx: number, ry: number): readonly Contour[] {
  if (rx === 0 || ry === 0) return [];
  const right = { x: cx + rx, y: cy };
  const left = { x: cx - rx, y: cy };
  const shared = { radiusX: rx, radiusY: ry, tiltRad: 0, isLarge: false, isSweep: true };
  const segments = [
    ...arcToCubics({ ...shared, from: right, to: left }),
    ...arcToCubics({ ...shared, from: left, to: right }),
  ];
  return [{ segments, isClosed: true }];
}

function readPoints(text: string): readonly PointMm[] {
  const trimmed = text.trim();
  if (trimmed === '') return [];
  const numbers = trimmed.split(/[\s,]+/).map(Number);
  if (numbers.some((value) => !Number.isFinite(value))) {
    throw new AppError('badDrawing', 'points hold something that is not a finite number');
  }
  const pairs = Math.floor(numbers.length / 2);
  return Array.from({ length: pairs }, (_, index) => ({
    x: numbers[2 * index] as number,
    y: numbers[2 * index + 1] as number,
  }));
}

function polyline(points: readonly PointMm[], isClosed: boolean): readonly Contour[] {
  const ring = isClosed && points.length > 0 ? [...points, points[0] as PointMm] : points;
  const segments: Segment[] = [];
  for (let index = 1; index < ring.length; index++) {
    const from = ring[index - 1] as PointMm;
    const to = ring[index] as PointMm;
    if (from.x !== to.x || from.y !== to.y) segments.push({ kind: 'line', from, to });
  }
  return segments.length > 0 ? [{ segments, isClosed }] : [];
}
