import { STEPS, type ReadBudget } from '#core/drawing/readBudget.ts';
import { FURTHEST_MM } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';
import { mapPoint, type Affine } from '#core/geometry/affine.ts';
import { arcToCubics } from '#core/geometry/arcToCubics.ts';
import { CUBIC, CUBIC_STEP, LINE, LINE_STEP, type Contour } from '#core/geometry/contour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { CLOSES_WITHIN_MM } from '#core/geometry/tolerances.ts';

/**
 * Draws contours in a file's own units and gives them in mm. Quadratics are raised to cubics exactly, arcs become
 * cubics within 4.3e-6 of their radius. What draws nothing is left out; an outline whose ends meet is closed.
 */
export class ContourBuilder {
  private contours: Contour[] = [];
  /**
   * The path at hand: filled again and again, and copied out at its exact length when it is finished. It begins with a
   * fraction, so that the engine holds it as plain doubles.
   */
  private readonly path: number[] = [0.5];
  /** How many of its numbers belong to the path at hand; 0 before its first segment. */
  private length = 0;
  private startX = 0;
  private startY = 0;
  /** Where the pen stands, in the file's units. */
  x = 0;
  y = 0;

  /** @param budget what drawing may cost; a file's own, where a file is read */
  constructor(
    private affine: Affine,
    private budget: ReadBudget | null = null,
  ) {
    this.restart(affine, budget);
  }

  /** Begins anew, as if just made. @throws AppError `badDrawing` where the origin itself is no place */
  restart(affine: Affine, budget: ReadBudget | null = null): void {
    this.affine = affine;
    this.budget = budget;
    // It may lie far from what is drawn, as that of a map does.
    if (!Number.isFinite(affine[4]) || !Number.isFinite(affine[5])) refuse();
    this.contours = [];
    this.length = this.x = this.y = this.startX = this.startY = 0;
  }

  /** Counts work that is done to draw here. @throws AppError `tooLarge` */
  spend(steps: number): void {
    this.budget?.spend(steps);
  }

  moveTo(x: number, y: number): void {
    this.budget?.spend(1);
    this.end(false);
    this.startX = x;
    this.startY = y;
    // Refused where it leads nowhere, though nothing may be drawn from there.
    this.goTo(x, y);
    this.length = 0;
  }

  lineTo(x: number, y: number): void {
    this.budget?.spend(1);
    if (x === this.x && y === this.y) return;
    this.begin();
    this.path[this.length++] = LINE;
    this.goTo(x, y);
  }

  cubicTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.budget?.spend(STEPS.cubic);
    const { x: x0, y: y0 } = this;
    if (x0 === x && y0 === y && x1 === x && y1 === y && x2 === x && y2 === y) return;
    this.begin();
    this.path[this.length++] = CUBIC;
    this.put(x1, y1);
    this.put(x2, y2);
    this.goTo(x, y);
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
    this.budget?.spend(STEPS.arc);
    if (x === this.x && y === this.y) return;
    const arc = { from: { x: this.x, y: this.y }, to: { x, y }, radiusX, radiusY, tiltRad, isLarge, isSweep };
    this.begin();
    this.length = arcToCubics(this.path, this.length, arc, { affine: this.affine, to: this.image(x, y) });
    this.x = x;
    this.y = y;
  }

  close(): void {
    if (this.x !== this.startX || this.y !== this.startY) this.lineTo(this.startX, this.startY);
    this.end(true);
  }

  /** Everything drawn. @throws AppError `badDrawing` where a line runs further than any sheet */
  finish(): readonly Contour[] {
    this.end(false);
    return this.contours;
  }

  /** A path starts where the pen stands when its first segment comes. */
  private begin(): void {
    if (this.length === 0) this.put(this.x, this.y);
  }

  private goTo(x: number, y: number): void {
    this.x = x;
    this.y = y;
    this.put(x, y);
  }

  /** Adds the image of a point to the path. */
  private put(x: number, y: number): void {
    const { affine, path } = this;
    const mx = affine[0] * x + affine[2] * y + affine[4];
    const my = affine[1] * x + affine[3] * y + affine[5];
    requireOnSheet(mx, my);
    path[this.length++] = mx;
    path[this.length++] = my;
  }

  private image(x: number, y: number): PointMm {
    const to = mapPoint(this.affine, { x, y });
    requireOnSheet(to.x, to.y);
    return to;
  }

  private end(isClosed: boolean): void {
    const { length, path } = this;
    if (length === 0) return;
    const isOne = length === 2 + (path[2] === LINE ? LINE_STEP : CUBIC_STEP);
    const isMet =
      !isOne &&
      Math.hypot(
        (path[0] as number) - (path[length - 2] as number),
        (path[1] as number) - (path[length - 1] as number),
      ) <= CLOSES_WITHIN_MM;
    this.contours.push({ path: path.slice(0, length), isClosed: isClosed || isMet });
    this.length = 0;
  }
}

function requireOnSheet(x: number, y: number): void {
  // Written so that what is no number is refused as well.
  if (!(Math.abs(x) < FURTHEST_MM && Math.abs(y) < FURTHEST_MM)) refuse();
}

function refuse(): never {
  throw new AppError(
    'badDrawing',
    'a line runs to where no sheet is: a number is not finite or far too large',
  );
}
