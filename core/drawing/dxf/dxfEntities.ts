import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import { numberOf, numbersOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import type { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { AppError } from '#core/errors/appError.ts';
import { STEPS } from '#core/drawing/readBudget.ts';
import { splineThrough } from '#core/drawing/splineThrough.ts';
import { MOST_DEGREE, splineToCubics, type CubicPoints } from '#core/drawing/splineToCubics.ts';
import type { PointMm } from '#core/geometry/point.ts';

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
 * Draws one entity in its own units, y upwards; an ellipse as the unit circle. @returns false for a kind that is not a line
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

/** An arc turning left from one angle to the next; equal angles go all around, and more than a turn counts once. */
function drawArc(
  pen: ContourBuilder,
  cx: number,
  cy: number,
  radius: number,
  from: number,
  to: number,
): void {
  const whole = 2 * Math.PI;
  const turn = (((to - from) % whole) + whole) % whole;
  const sweep = turn < ROUNDING || turn > whole - ROUNDING ? whole : turn;
  const place = (angle: number) => [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)] as const;
  pen.moveTo(...place(from));
  const steps = sweep > Math.PI ? 2 : 1;
  for (let step = 1; step <= steps; step++) {
    const [x, y] = place(from + (sweep * step) / steps);
    pen.arcTo(radius, radius, 0, false, true, x, y);
  }
  if (sweep === whole) pen.close();
}

/** A pen that draws the unit circle onto the ellipse is asked for: see {@link ellipseOf}. */
function drawEllipse(pen: ContourBuilder, record: DxfRecord): void {
  const [from, to] = [numberOf(record, 41, 0), numberOf(record, 42, 2 * Math.PI)];
  drawArc(pen, 0, 0, 1, from, to);
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
  const isClosed = (numberOf(record, 70, 0) & 1) === 1;
  const points = pointsOf(record, 10);
  const pieces = points.length > 0 ? controlled(pen, record, points) : fitted(pen, record, isClosed);
  const [first] = pieces;
  if (!first) return false;
  pen.moveTo(first[0].x, first[0].y);
  for (const [, b, c, d] of pieces) pen.cubicTo(b.x, b.y, c.x, c.y, d.x, d.y);
  if (isClosed) pen.close();
  return true;
}

function controlled(
  pen: ContourBuilder,
  record: DxfRecord,
  points: readonly PointMm[],
): readonly CubicPoints[] {
  const degree = numberOf(record, 71, 3);
  pen.spend(points.length * Math.min(degree, MOST_DEGREE) ** 2);
  return splineToCubics({ degree, knots: numbersOf(record, 40), points, weights: numbersOf(record, 41) });
}

/** A spline that is given by points it goes through. */
function fitted(pen: ContourBuilder, record: DxfRecord, isClosed: boolean): readonly CubicPoints[] {
  const points = pointsOf(record, 11);
  pen.spend(points.length * STEPS.cubic);
  const [start = null] = pointsOf(record, 12);
  const [end = null] = pointsOf(record, 13);
  return splineThrough(points, { start, end }, isClosed);
}

/** Points whose x has a group code, and whose y has the one ten above. */
function pointsOf(record: DxfRecord, code: number): readonly PointMm[] {
  const ys = numbersOf(record, code + 10);
  return numbersOf(record, code).map((x, index) => ({ x, y: ys[index] ?? 0 }));
}
