import { FURTHEST_MM } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Affine } from '#core/geometry/affine.ts';
import { arcToCubics } from '#core/geometry/arcToCubics.ts';
import type { Contour, Segment } from '#core/geometry/contour.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { CLOSES_WITHIN_MM } from '#core/geometry/tolerances.ts';

/**
 * Draws contours in a file's own units and gives them in mm. Quadratics are raised to cubics exactly, arcs become
 * cubics within 4.3e-6 of their radius. What draws nothing is left out; an outline whose ends meet is closed.
 */
export class ContourBuilder {
  private readonly contours: Contour[] = [];
  private segments: Segment[] = [];
  private startX = 0;
  private startY = 0;
  private start: PointMm;
  private at: PointMm;
  /** Where the pen stands, in the file's units. */
  x = 0;
  y = 0;

  constructor(private readonly affine: Affine) {
    this.start = this.at = this.map(0, 0);
  }

  moveTo(x: number, y: number): void {
    this.end(false);
    this.x = this.startX = x;
    this.y = this.startY = y;
    this.start = this.at = this.map(x, y);
  }

  lineTo(x: number, y: number): void {
    if (x === this.x && y === this.y) return;
    this.segments.push({ kind: 'line', from: this.at, to: this.goTo(x, y) });
  }

  cubicTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    const { x: x0, y: y0 } = this;
    if (x0 === x && y0 === y && x1 === x && y1 === y && x2 === x && y2 === y) return;
    this.segments.push({
      kind: 'cubic',
      from: this.at,
      control1: this.map(x1, y1),
      control2: this.map(x2, y2),
      to: this.goTo(x, y),
    });
  }

  quadraticTo(x1: number, y1: number, x: number, y: number): void {
    const third = 1 / 3;
    this.cubicTo(
      this.x + 2 * third * (x1 - this.x),
      this.y + 2 * third * (y1 - this.y),
      x + 2 * third * (x1 - x),
      y + 2 * third * (y1 - y),
      x,
      y,
    );
  }

  /** @param tiltRad of the first radius against the x axis */
  arcTo(
    radiusX: number,
    radiusY: number,
    tiltRad: number,
    isLarge: boolean,
    isSweep: boolean,
    x: number,
    y: number,
  ): void {
    const from = { x: this.x, y: this.y };
    const arc = { from, to: { x, y }, radiusX, radiusY, tiltRad, isLarge, isSweep };
    const image = { affine: this.affine, from: this.at, to: this.goTo(x, y) };
    for (const segment of arcToCubics(arc, image)) this.segments.push(segment);
  }

  close(): void {
    if (this.x !== this.startX || this.y !== this.startY) {
      this.segments.push({ kind: 'line', from: this.at, to: this.start });
    }
    this.x = this.startX;
    this.y = this.startY;
    this.at = this.start;
    this.end(true);
  }

  /** Everything drawn. @throws AppError `badDrawing` where a line runs further than any sheet */
  finish(): readonly Contour[] {
    this.end(false);
    return this.contours;
  }

  private goTo(x: number, y: number): PointMm {
    this.x = x;
    this.y = y;
    return (this.at = this.map(x, y));
  }

  private map(x: number, y: number): PointMm {
    const [a, b, c, d, e, f] = this.affine;
    const mx = a * x + c * y + e;
    const my = b * x + d * y + f;
    // Written so that what is no number is refused as well.
    if (!(Math.abs(mx) < FURTHEST_MM && Math.abs(my) < FURTHEST_MM)) {
      throw new AppError(
        'badDrawing',
        'a line runs to where no sheet is: a number is not finite or far too large',
      );
    }
    return { x: mx, y: my };
  }

  private end(isClosed: boolean): void {
    const { segments } = this;
    const last = segments.at(-1);
    if (!last) return;
    const isMet =
      segments.length > 1 && distanceMm((segments[0] as Segment).from, last.to) <= CLOSES_WITHIN_MM;
    this.contours.push({ segments, isClosed: isClosed || isMet });
    this.segments = [];
  }
}
