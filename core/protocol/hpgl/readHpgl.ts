import { itemAt } from '#core/collections/itemAt.ts';
import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { ReadBudget, STEPS } from '#core/drawing/readBudget.ts';
import { frameContours } from '#core/drawing/frameContours.ts';
import {
  MAX_CONTOURS,
  MAX_DRAWING_LENGTH,
  type Drawing,
  type DrawnContour,
  type ReadProgress,
} from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';

/** Plotter units in one millimetre of a drawing: a unit is 0.025 mm. */
const UNITS_PER_MM = 40;

/** Instructions about pens, speed and pages that change no line. */
const SILENT: ReadonlySet<string> = new Set([
  ...[
    'IN',
    'DF',
    'VS',
    'FS',
    'IP',
    'IW',
    'RO',
    'PT',
    'CO',
    'AS',
    'CA',
    'CS',
    'SS',
    'SA',
    'SI',
    'SR',
    'DI',
    'DR',
  ],
  ...[
    'ES',
    'SL',
    'TL',
    'XT',
    'YT',
    'NR',
    'PG',
    'AF',
    'AH',
    'BP',
    'PS',
    'PW',
    'NP',
    'PC',
    'MC',
    'TR',
    'WU',
    'DT',
  ],
]);
/** One instruction: two letters, then figures up to a semicolon or the next letter. */
const INSTRUCTION = /([A-Za-z])\s*([A-Za-z])([^A-Za-z;]*);?/y;
const ESCAPE = /\u001b(?:\.[A-Z][^:]*:?|%-?\d+[A-Z]|[A-Z])/g;

/**
 * Reads an HPGL plot: pen up and down, absolute and relative, arcs, circles and rectangles, pens as layers, line types.
 * A unit is 0.025 mm; the plot is as large as its lines; y is turned downwards.
 *
 * @throws AppError `badDrawing` with the place and reason: no HPGL, figures that are none, scaled plots, no lines;
 *   `tooLarge` above 50 million characters or 100,000 lines
 * @example readHpgl('IN;SP1;PU0,0;PD400,0;').contours.length // 1
 */
export function readHpgl(text: string, onProgress?: ReadProgress): Drawing {
  if (text.length > MAX_DRAWING_LENGTH) {
    throw new AppError(
      'tooLarge',
      `the drawing has ${text.length} characters; at most ${MAX_DRAWING_LENGTH} are read`,
    );
  }
  const plain = text.replace(ESCAPE, '');
  const plotter = new Plotter();
  let at = skipBlanks(plain, 0);
  for (let count = 0; at < plain.length; count++) {
    INSTRUCTION.lastIndex = at;
    const match = INSTRUCTION.exec(plain);
    if (!match) {
      throw new AppError(
        'badDrawing',
        `character ${at + 1}: "${plain.slice(at, at + 20)}" is no HPGL instruction`,
      );
    }
    const name = `${match[1]}${match[2]}`.toUpperCase();
    if (count === 0 && !SILENT.has(name) && !Plotter.knows(name)) {
      throw new AppError('badDrawing', `a plot does not begin with "${plain.slice(at, at + 20)}"`);
    }
    at = INSTRUCTION.lastIndex;
    if (name === 'LB') at = plotter.skipLabel(plain, match.index);
    else plotter.take(name, readFigures(match[3] ?? '', name, at));
    at = skipBlanks(plain, at);
    if (count % 20_000 === 0) onProgress?.(at / plain.length);
  }
  plotter.endLine();
  return frameContours(plotter.contours, plotter.leftOut);
}

function skipBlanks(text: string, from: number): number {
  let at = from;
  while (at < text.length && /[\s;,]/.test(itemAt(text, at))) at++;
  return at;
}

function readFigures(text: string, name: string, at: number): readonly number[] {
  const figures = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);
  if (figures.every(Number.isFinite)) return figures;
  throw new AppError('badDrawing', `character ${at}: ${name} has "${text.trim().slice(0, 30)}" for figures`);
}

/** Draws as a plotter would. */
class Plotter {
  readonly contours: DrawnContour[] = [];
  readonly leftOut = new Set<string>();
  private readonly budget = new ReadBudget();
  private pen = newPen(this.budget);
  private isDown = false;
  private isRelative = false;
  private penNumber = 1;
  private dash: string | null = null;

  static knows(name: string): boolean {
    return ['PU', 'PD', 'PA', 'PR', 'SP', 'LT', 'UL', 'AA', 'AR', 'CI', 'EA', 'ER', 'LB', 'SC'].includes(
      name,
    );
  }

  take(name: string, n: readonly number[]): void {
    this.budget.spend(STEPS.element);
    switch (name) {
      case 'PU':
      case 'PD':
        this.isDown = name === 'PD';
        return this.walk(n);
      case 'PA':
      case 'PR':
        this.isRelative = name === 'PR';
        return this.walk(n);
      case 'SP':
        this.endLine();
        this.penNumber = n[0] ?? 0;
        return;
      case 'LT':
        this.endLine();
        this.dash = n.length > 0 ? `type ${n[0]}` : null;
        return;
      case 'AA':
      case 'AR':
        return this.turn(name === 'AR', n);
      case 'CI':
        return this.circle(n[0] ?? 0);
      case 'EA':
      case 'ER':
        return this.rectangle(name === 'ER', n);
      case 'SC':
        if (n.length >= 4)
          throw new AppError('badDrawing', 'the plot is scaled by SC; save it in plotter units');
        return;
      default:
        if (!SILENT.has(name)) this.leftOut.add(`${name} instructions`);
    }
  }

  /** Texts end with the control character ETX. @returns where to go on */
  skipLabel(text: string, from: number): number {
    this.leftOut.add('text (turn it into outlines first)');
    const end = text.indexOf('\u0003', from);
    return end < 0 ? text.length : end + 1;
  }

  endLine(): void {
    const { x, y } = this.pen;
    this.keep(this.pen);
    this.pen = newPen(this.budget);
    this.pen.moveTo(x, y);
  }

  private walk(n: readonly number[]): void {
    for (let index = 0; index + 1 < n.length; index += 2) {
      const x = itemAt(n, index) + (this.isRelative ? this.pen.x : 0);
      const y = itemAt(n, index + 1) + (this.isRelative ? this.pen.y : 0);
      if (this.isDown) this.pen.lineTo(x, y);
      else this.pen.moveTo(x, y);
    }
  }

  private turn(isRelative: boolean, [a = 0, b = 0, degrees = 0]: readonly number[]): void {
    const { x, y } = this.pen;
    const [cx, cy] = isRelative ? [x + a, y + b] : [a, b];
    const radius = Math.hypot(x - cx, y - cy);
    const from = Math.atan2(y - cy, x - cx);
    // Round and round is once around, and on to where it ends.
    const sweep = Math.abs(degrees) > 720 ? Math.sign(degrees) * (360 + (Math.abs(degrees) % 360)) : degrees;
    const steps = Math.max(1, Math.ceil(Math.abs(sweep) / 120));
    for (let step = 1; step <= steps; step++) {
      const angle = from + (sweep * step * Math.PI) / 180 / steps;
      const [toX, toY] = [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
      if (this.isDown) this.pen.arcTo(radius, radius, 0, false, degrees > 0, toX, toY);
      else if (step === steps) this.pen.moveTo(toX, toY);
    }
  }

  private circle(radius: number): void {
    const { x, y } = this.pen;
    const pen = newPen(this.budget);
    pen.moveTo(x + radius, y);
    pen.arcTo(radius, radius, 0, false, true, x - radius, y);
    pen.arcTo(radius, radius, 0, false, true, x + radius, y);
    pen.close();
    this.keep(pen);
  }

  private rectangle(isRelative: boolean, [a = 0, b = 0]: readonly number[]): void {
    const { x, y } = this.pen;
    const [toX, toY] = isRelative ? [x + a, y + b] : [a, b];
    const pen = newPen(this.budget);
    pen.moveTo(x, y);
    pen.lineTo(toX, y);
    pen.lineTo(toX, toY);
    pen.lineTo(x, toY);
    pen.close();
    this.keep(pen);
  }

  private keep(pen: ContourBuilder): void {
    for (const contour of pen.finish()) {
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
}

function newPen(budget: ReadBudget): ContourBuilder {
  return new ContourBuilder([1 / UNITS_PER_MM, 0, 0, -1 / UNITS_PER_MM, 0, 0], budget);
}
