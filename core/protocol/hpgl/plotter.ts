import { itemAt } from '#core/collections/itemAt.ts';
import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { MAX_CONTOURS, type DrawnContour } from '#core/drawing/drawing.ts';
import { ReadBudget, STEPS } from '#core/drawing/readBudget.ts';
import { Tally } from '#core/drawing/tally.ts';
import { AppError } from '#core/errors/appError.ts';
import { IDENTITY, invertAffine, mapPoint, type Affine } from '#core/geometry/affine.ts';
import { boundContour, boundPoints, encloses, overlap, type BoxMm } from '#core/geometry/box.ts';
import { clipLines } from '#core/geometry/clip.ts';
import type { Contour } from '#core/geometry/contour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { decodePolyline } from '#core/protocol/hpgl/encodedPolyline.ts';
import { PlotterScale } from '#core/protocol/hpgl/plotterScale.ts';
import type { HpglInstruction } from '#core/protocol/hpgl/scanHpgl.ts';

/** Instructions about pens, speed, labels and pages that change no line. */
const SILENT: ReadonlySet<string> = new Set(
  (
    'IN DF VS FS PT CO AS CA CS SS SA SI SR DI DR DV ES SL TL XT YT NR PG AF AH BP PS PW NP PC MC TR WU DT UL AC AD ' +
    'SD SB SV RF CR EC FR LA LO QL MG MT OE OS OI OP OA OC OD OF OG OH OK OL OO OT OW VA VN NS CV WD'
  ).split(' '),
);
const RADIANS = Math.PI / 180;

type Figures = readonly number[];
type Act = (plotter: Plotter, n: Figures) => void;

/** Instructions that draw, move or change how both are done. */
const ACTS: Readonly<Record<string, Act>> = {
  PU: (plotter, n) => plotter.raise(false, n),
  PD: (plotter, n) => plotter.raise(true, n),
  PA: (plotter, n) => plotter.count(false, n),
  PR: (plotter, n) => plotter.count(true, n),
  SP: (plotter, [pen = 0]) => plotter.choosePen(pen),
  LT: (plotter, [type]) => plotter.chooseLine(type ?? null),
  AA: (plotter, n) => plotter.turn(false, n),
  AR: (plotter, n) => plotter.turn(true, n),
  AT: (plotter, n) => plotter.turnThrough(false, n),
  RT: (plotter, n) => plotter.turnThrough(true, n),
  BZ: (plotter, n) => plotter.bend(false, n),
  BR: (plotter, n) => plotter.bend(true, n),
  CI: (plotter, [radius = 0]) => plotter.circle(radius),
  EA: (plotter, n) => plotter.rectangle(false, n),
  ER: (plotter, n) => plotter.rectangle(true, n),
  RA: (plotter, n) => plotter.rectangle(false, n),
  RR: (plotter, n) => plotter.rectangle(true, n),
  EW: (plotter, n) => plotter.wedge(n),
  WG: (plotter, n) => plotter.wedge(n),
  PM: (plotter, [step = 0]) => plotter.outline(step),
  EP: (plotter) => plotter.drawOutline(),
  FP: (plotter) => plotter.drawOutline(),
  SC: (plotter, n) => plotter.rescale((scale) => scale.scale(n)),
  IP: (plotter, n) => plotter.rescale((scale) => scale.place(n)),
  RO: (plotter, n) => plotter.rescale((scale) => scale.turn(n)),
  IW: (plotter, n) => plotter.setWindow(n),
};

/**
 * Whether a plot may begin with an instruction.
 *
 * @example knowsInstruction('PU') // true
 */
export function knowsInstruction(name: string): boolean {
  return name in ACTS || SILENT.has(name) || name === 'LB' || name === 'PE';
}

/** Draws as a plotter would. */
export class Plotter {
  readonly contours: DrawnContour[] = [];
  readonly leftOut = new Tally();
  private readonly budget = new ReadBudget();
  private readonly scale = new PlotterScale();
  private affine: Affine = this.scale.toMm();
  private pen = new ContourBuilder(this.affine, this.budget);
  /** Where what is drawn goes on to while an outline is drawn, and the pen that waits meanwhile. */
  private waiting: ContourBuilder | null = null;
  private polygon: readonly Contour[] = [];
  private window: BoxMm | null = null;
  private isDown = false;
  private isRelative = false;
  private penNumber = 1;
  private dash: string | null = null;

  /** @throws AppError `badDrawing`, `tooLarge` */
  take({ name, figures, text }: HpglInstruction): void {
    this.budget.spend(STEPS.element);
    const act = ACTS[name];
    if (act) act(this, figures);
    else if (name === 'PE') this.decode(text);
    else if (name === 'LB') this.leftOut.add('text (turn it into outlines first)');
    else if (!SILENT.has(name)) this.leftOut.add(`${name} instructions`);
  }

  /** What is drawn so far becomes a line of its own. */
  endLine(): void {
    const { x, y } = this.pen;
    this.keep(this.pen.finish());
    this.pen = this.newPen();
    this.pen.moveTo(x, y);
  }

  raise(isDown: boolean, n: Figures): void {
    this.isDown = isDown;
    this.walk(n);
  }

  count(isRelative: boolean, n: Figures): void {
    this.isRelative = isRelative;
    this.walk(n);
  }

  choosePen(pen: number): void {
    this.endLine();
    this.penNumber = pen;
  }

  chooseLine(type: number | null): void {
    this.endLine();
    this.dash = type === null ? null : `type ${type}`;
  }

  /** Figures count otherwise from here; the pen stays where it is on the paper. */
  rescale(change: (scale: PlotterScale) => void): void {
    const at = mapPoint(this.affine, this.pen);
    this.endLine();
    change(this.scale);
    this.affine = this.scale.toMm();
    this.pen = this.newPen();
    const { x, y } = mapPoint(invertAffine(this.affine), at);
    this.pen.moveTo(x, y);
  }

  setWindow([x1, y1, x2, y2]: Figures): void {
    this.endLine();
    const isWhole = x1 === undefined || y1 === undefined || x2 === undefined || y2 === undefined;
    this.window = isWhole
      ? null
      : boundPoints([mapPoint(this.affine, { x: x1, y: y1 }), mapPoint(this.affine, { x: x2, y: y2 })]);
  }

  turn(isRelative: boolean, [a = 0, b = 0, degrees = 0]: Figures): void {
    const { x, y } = this.pen;
    const [cx, cy] = isRelative ? [x + a, y + b] : [a, b];
    const radius = Math.hypot(x - cx, y - cy);
    const from = Math.atan2(y - cy, x - cx);
    // Round and round is once around, and on to where it ends.
    const sweep = Math.abs(degrees) > 720 ? Math.sign(degrees) * (360 + (Math.abs(degrees) % 360)) : degrees;
    const steps = Math.max(1, Math.ceil(Math.abs(sweep) / 120));
    for (let step = 1; step <= steps; step++) {
      const angle = from + (sweep * step * RADIANS) / steps;
      const [toX, toY] = [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
      if (this.isDown) this.pen.arcTo(radius, radius, 0, false, degrees > 0, toX, toY);
      else if (step === steps) this.pen.moveTo(toX, toY);
    }
  }

  /** An arc through a point to another. */
  turnThrough(isRelative: boolean, [a = 0, b = 0, c = 0, d = 0]: Figures): void {
    const { x, y } = this.pen;
    const [mx, my, tx, ty] = isRelative ? [x + a, y + b, x + c, y + d] : [a, b, c, d];
    const twice = 2 * ((mx - x) * (ty - y) - (my - y) * (tx - x));
    if (twice === 0) return this.isDown ? this.pen.lineTo(tx, ty) : this.pen.moveTo(tx, ty);
    const [m2, t2] = [(mx - x) ** 2 + (my - y) ** 2, (tx - x) ** 2 + (ty - y) ** 2];
    const cx = x + ((ty - y) * m2 - (my - y) * t2) / twice;
    const cy = y + ((mx - x) * t2 - (tx - x) * m2) / twice;
    const angleTo = (px: number, py: number) => Math.atan2(py - cy, px - cx) - Math.atan2(y - cy, x - cx);
    const turn = 2 * Math.PI;
    const left = ((angleTo(tx, ty) % turn) + turn) % turn;
    const isLeft = ((angleTo(mx, my) % turn) + turn) % turn < left;
    this.turn(false, [cx, cy, (isLeft ? left : left - turn) / RADIANS]);
  }

  /** Cubic curves, one after another. */
  bend(isRelative: boolean, n: Figures): void {
    for (let index = 0; index + 5 < n.length; index += 6) {
      const { x, y } = this.pen;
      const at = (off: number, axis: number) => itemAt(n, index + off) + (isRelative ? axis : 0);
      const [ex, ey] = [at(4, x), at(5, y)];
      if (this.isDown) this.pen.cubicTo(at(0, x), at(1, y), at(2, x), at(3, y), ex, ey);
      else this.pen.moveTo(ex, ey);
    }
  }

  circle(radius: number): void {
    this.drawClosed((pen, x, y) => {
      pen.moveTo(x + radius, y);
      pen.arcTo(radius, radius, 0, false, true, x - radius, y);
      pen.arcTo(radius, radius, 0, false, true, x + radius, y);
    });
  }

  rectangle(isRelative: boolean, [a = 0, b = 0]: Figures): void {
    this.drawClosed((pen, x, y) => {
      const [toX, toY] = isRelative ? [x + a, y + b] : [a, b];
      pen.moveTo(x, y);
      pen.lineTo(toX, y);
      pen.lineTo(toX, toY);
      pen.lineTo(x, toY);
    });
  }

  /** A piece of a pie: radius, where it begins, how far it goes. */
  wedge([radius = 0, start = 0, sweep = 0]: Figures): void {
    const turn = Math.max(-360, Math.min(360, sweep));
    this.drawClosed((pen, x, y) => {
      const rim = (angle: number) =>
        [x + radius * Math.cos(angle * RADIANS), y + radius * Math.sin(angle * RADIANS)] as const;
      pen.moveTo(x, y);
      pen.lineTo(...rim(start));
      const steps = Math.max(1, Math.ceil(Math.abs(turn) / 120));
      for (let step = 1; step <= steps; step++) {
        pen.arcTo(
          Math.abs(radius),
          Math.abs(radius),
          0,
          false,
          turn > 0,
          ...rim(start + (turn * step) / steps),
        );
      }
    });
  }

  /** PM: 0 begins an outline, 1 closes a part of it, 2 closes it all. */
  outline(step: number): void {
    if (step === 0) {
      const { x, y } = this.pen;
      this.endLine();
      this.waiting = this.pen;
      this.pen = this.newPen();
      this.pen.moveTo(x, y);
      return;
    }
    if (!this.waiting) return;
    this.pen.close();
    if (step === 1) return;
    this.polygon = this.pen.finish();
    this.pen = this.waiting;
    this.waiting = null;
  }

  /** The outline is drawn once, whether it is filled, edged or both. */
  drawOutline(): void {
    this.keep(this.polygon);
    this.polygon = [];
  }

  private drawClosed(draw: (pen: ContourBuilder, x: number, y: number) => void): void {
    const { x, y } = this.pen;
    const pen = this.waiting ? this.pen : this.newPen();
    draw(pen, x, y);
    pen.close();
    if (this.waiting) pen.moveTo(x, y);
    else this.keep(pen.finish());
  }

  private decode(text: string): void {
    for (const part of decodePolyline(text)) {
      this.budget.spend(1);
      if (part.kind === 'pen') {
        this.choosePen(part.pen);
        continue;
      }
      const x = part.x + (part.isAbsolute ? 0 : this.pen.x);
      const y = part.y + (part.isAbsolute ? 0 : this.pen.y);
      if (part.isDown) this.pen.lineTo(x, y);
      else this.pen.moveTo(x, y);
    }
    this.isDown = true;
  }

  private walk(n: Figures): void {
    for (let index = 0; index + 1 < n.length; index += 2) {
      const x = itemAt(n, index) + (this.isRelative ? this.pen.x : 0);
      const y = itemAt(n, index + 1) + (this.isRelative ? this.pen.y : 0);
      // A raised pen within an outline goes along its edge as well.
      if (this.isDown || this.waiting) this.pen.lineTo(x, y);
      else this.pen.moveTo(x, y);
    }
  }

  private keep(contours: readonly Contour[]): void {
    for (const contour of contours.flatMap((one) => this.throughWindow(one))) {
      if (this.contours.length >= MAX_CONTOURS) {
        throw new AppError('tooLarge', `the plot has more than ${MAX_CONTOURS} lines`);
      }
      const id = this.contours.length;
      this.contours.push({
        id,
        contour,
        layer: `pen ${this.penNumber}`,
        strokeColour: '#000000',
        strokeWidthMm: null,
        fillColour: null,
        dash: this.dash,
        shape: id,
      });
    }
  }

  /** What the window of the plot lets through of a line. */
  private throughWindow(contour: Contour): readonly Contour[] {
    const { window } = this;
    const box = window && boundContour(contour);
    if (!window || !box || encloses(window, box)) return [contour];
    if (!overlap(window, box)) {
      this.leftOut.add('lines outside the window of the plot');
      return [];
    }
    this.leftOut.add('ends of lines outside the window of the plot');
    const builder = new ContourBuilder(IDENTITY, this.budget);
    for (const [first, ...rest] of clipLines([flattenContour(contour)], window)) {
      if (!first) continue;
      builder.moveTo(first.x, first.y);
      for (const { x, y } of rest) builder.lineTo(x, y);
    }
    return builder.finish();
  }

  private newPen(): ContourBuilder {
    return new ContourBuilder(this.affine, this.budget);
  }
}
