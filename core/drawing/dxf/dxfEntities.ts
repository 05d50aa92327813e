import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { numberOf, numbersOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import type { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { AppError } from '#core/errors/appError.ts';
import { MOST_DEGREE, splineToCubics } from '#core/drawing/splineToCubics.ts';

/** A corner of a polyline: a bulge is the tangent of a quarter of the arc's angle to the next corner. */
export interface BulgedPoint {
  readonly x: number;
  readonly y: number;
  readonly bulge: number;
}

/** An arc that bulges more is a whole circle but for a millionth of a turn. */
const MOST_BULGE = 1e6;
const RADIANS = Math.PI / 180;

/**
 * Draws one entity in its own units, y upwards. @returns false for a kind that is not a line
 *
 * @example drawDxfEntity(newPen(), { type: 'LINE', codes: [10, 20, 11, 21], values: ['0', '0', '5', '0'], line: 1 }) // true
 */
export function drawDxfEntity(pen: ContourBuilder, record: DxfRecord): boolean {
  const n = (code: number, fallback = 0) => numberOf(record, code, fallback);
  switch (record.type) {
    case 'LINE':
      pen.moveTo(n(10), n(20));
      pen.lineTo(n(11), n(21));
      return true;
    case 'CIRCLE':
      drawArc(pen, n(10), n(20), n(40), 0, 2 * Math.PI);
      return true;
    case 'ARC':
      drawArc(pen, n(10), n(20), n(40), n(50) * RADIANS, n(51) * RADIANS);
      return true;
    case 'ELLIPSE':
      drawEllipse(pen, record);
      return true;
    case 'LWPOLYLINE':
      drawBulged(pen, readCorners(record), (n(70) & 1) === 1);
      return true;
    case 'SPLINE':
      return drawSpline(pen, record);
    default:
      return false;
  }
}

/**
 * Corners joined by lines and, where they bulge, arcs: left-hand arcs for a positive bulge.
 *
 * @example ((pen) => (drawBulged(pen, [{ x: 0, y: 0, bulge: 0 }, { x: 5, y: 0, bulge: 0 }], false), pen.finish().length))(newPen()) // 1
 */
export function drawBulged(pen: ContourBuilder, corners: readonly BulgedPoint[], isClosed: boolean): void {
  const [first] = corners;
  if (!first) return;
  pen.moveTo(first.x, first.y);
  const rest = isClosed ? [...corners.slice(1), first] : corners.slice(1);
  rest.forEach((corner, index) => {
    const { bulge, x, y } = itemAt(corners, index);
    if (bulge === 0) return pen.lineTo(corner.x, corner.y);
    const chord = Math.hypot(corner.x - x, corner.y - y);
    if (!(Math.abs(bulge) < MOST_BULGE)) {
      throw new AppError('badDrawing', `a bulge of ${bulge} is no arc; at most ${MOST_BULGE} is read`);
    }
    const radius = (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
    pen.arcTo(radius, radius, 0, Math.abs(bulge) > 1, bulge > 0, corner.x, corner.y);
  });
  if (isClosed) pen.close();
}

/** An arc turning left from one angle to the next; equal angles go all around. */
function drawArc(
  pen: ContourBuilder,
  cx: number,
  cy: number,
  radius: number,
  from: number,
  to: number,
): void {
  drawTilted(pen, { cx, cy, major: radius, minor: radius, tilt: 0 }, from, to);
}

function drawEllipse(pen: ContourBuilder, record: DxfRecord): void {
  const [mx, my] = [numberOf(record, 11, 1), numberOf(record, 21, 0)];
  const major = Math.hypot(mx, my);
  const ellipse = {
    cx: numberOf(record, 10, 0),
    cy: numberOf(record, 20, 0),
    major,
    minor: major * numberOf(record, 40, 1),
    tilt: Math.atan2(my, mx),
  };
  const isTurned = numberOf(record, 230, 1) < 0;
  const [from, to] = [numberOf(record, 41, 0), numberOf(record, 42, 2 * Math.PI)];
  if (isTurned) drawTilted(pen, ellipse, -to, -from);
  else drawTilted(pen, ellipse, from, to);
}

interface TiltedEllipse {
  readonly cx: number;
  readonly cy: number;
  readonly major: number;
  readonly minor: number;
  readonly tilt: number;
}

function drawTilted(pen: ContourBuilder, ellipse: TiltedEllipse, from: number, to: number): void {
  const { cx, cy, major, minor, tilt } = ellipse;
  const turn = to - from;
  const whole = 2 * Math.PI;
  const sweep = Math.abs(turn) >= whole - ROUNDING ? whole : ((turn % whole) + whole) % whole || whole;
  const place = (angle: number) => {
    const [x, y] = [major * Math.cos(angle), minor * Math.sin(angle)];
    return [
      cx + x * Math.cos(tilt) - y * Math.sin(tilt),
      cy + x * Math.sin(tilt) + y * Math.cos(tilt),
    ] as const;
  };
  pen.moveTo(...place(from));
  const steps = sweep > Math.PI ? 2 : 1;
  for (let step = 1; step <= steps; step++) {
    const [x, y] = place(from + (sweep * step) / steps);
    pen.arcTo(major, minor, tilt, false, true, x, y);
  }
  if (sweep > whole - ROUNDING) pen.close();
}

function readCorners(record: DxfRecord): readonly BulgedPoint[] {
  const corners: { x: number; y: number; bulge: number }[] = [];
  record.codes.forEach((code, index) => {
    const value = Number(record.values[index]);
    const last = corners.at(-1);
    if (code === 10) corners.push({ x: value, y: 0, bulge: 0 });
    else if (code === 20 && last) last.y = value;
    else if (code === 42 && last) last.bulge = value;
  });
  return corners;
}

function drawSpline(pen: ContourBuilder, record: DxfRecord): boolean {
  const [xs, ys] = [numbersOf(record, 10), numbersOf(record, 20)];
  const degree = numberOf(record, 71, 3);
  pen.spend(xs.length * Math.min(degree, MOST_DEGREE) ** 2);
  const pieces = splineToCubics({
    degree,
    knots: numbersOf(record, 40),
    points: xs.map((x, index) => ({ x, y: ys[index] ?? 0 })),
    weights: numbersOf(record, 41),
  });
  const [first] = pieces;
  if (!first) return false;
  pen.moveTo(first[0].x, first[0].y);
  for (const [, b, c, d] of pieces) pen.cubicTo(b.x, b.y, c.x, c.y, d.x, d.y);
  if ((numberOf(record, 70, 0) & 1) === 1) pen.close();
  return true;
}
