import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { NumberScanner } from '#core/drawing/svg/numberScanner.ts';
import type { ReadBudget } from '#core/drawing/readBudget.ts';
import { AppError } from '#core/errors/appError.ts';
import { IDENTITY, type Affine } from '#core/geometry/affine.ts';
import type { Contour } from '#core/geometry/contour.ts';

/** Codes of the capital letters of the commands. */
const M = 77;
const L = 76;
const H = 72;
const V = 86;
const C = 67;
const S = 83;
const Q = 81;
const T = 84;
const A = 65;
const Z = 90;

/** Numbers that each command takes at a time, by the code of its capital letter; -1 where there is no such command. */
const COUNTS = new Int8Array(128).fill(-1);
for (const [code, count] of [
  [M, 2],
  [L, 2],
  [H, 1],
  [V, 1],
  [C, 6],
  [S, 4],
  [Q, 4],
  [T, 2],
  [A, 7],
  [Z, 0],
] as const) {
  COUNTS[code] = count;
}
/** What a small letter has over its capital. */
const SMALL = 32;

/**
 * Reads path data into contours in mm.
 *
 * @param toMm from the path's own units
 * @param budget what reading it may cost
 * @throws AppError `badDrawing` when the data breaks the path grammar or holds a number that is not finite
 * Source of the grammar: W3C SVG 1.1 (second edition), section 8.3.9.
 * @example readSvgPath('M0 0H10V10Z')[0].isClosed // true
 */
export function readSvgPath(
  data: string,
  toMm: Affine = IDENTITY,
  budget: ReadBudget | null = null,
): readonly Contour[] {
  scanner.restart(data);
  pen.restart(toMm, budget);
  let command = 0;
  try {
    for (let letter = scanner.letter(); letter >= 0; letter = scanner.letter()) {
      if (letter > 0) command = letter;
      else if (command === 0 || (command | SMALL) === (Z | SMALL)) scanner.refuse('a command is missing');
      const upper = command & ~SMALL;
      const count = COUNTS[upper] as number;
      if (count < 0) scanner.refuse(`there is no command "${String.fromCharCode(command)}"`);
      if (pen.isFresh && upper !== M) scanner.refuse('a path starts with a move');
      for (let index = 0; index < count; index++) {
        values[index] = upper === A && (index === 3 || index === 4) ? scanner.flag() : scanner.number();
      }
      pen.draw(upper, command !== upper, values);
      if (upper === M) command = command === M ? L : L | SMALL;
    }
    return pen.builder.finish();
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError('badDrawing', `a path cannot be read: ${(error as Error).message}`);
  }
}

/** Keeps what smooth commands look back on. */
class PathPen {
  readonly builder = new ContourBuilder(IDENTITY);
  isFresh = true;
  /** The control point that S and T mirror, or where the pen stands. */
  private mirrorX = 0;
  private mirrorY = 0;
  private last = 0;

  restart(toMm: Affine, budget: ReadBudget | null): void {
    this.builder.restart(toMm, budget);
    this.isFresh = true;
    this.mirrorX = this.mirrorY = this.last = 0;
  }

  /** @param v the numbers of one command; relative ones are made absolute in place */
  draw(command: number, isRelative: boolean, v: Float64Array): void {
    const pen = this.builder;
    if (isRelative) makeAbsolute(command, v, pen.x, pen.y);
    // Taken one by one: a typed array is spread by its iterator, which costs more than the drawing.
    const a = v[0] as number;
    const b = v[1] as number;
    const c = v[2] as number;
    const d = v[3] as number;
    const e = v[4] as number;
    const f = v[5] as number;
    this.isFresh = false;
    switch (command) {
      case M:
        pen.moveTo(a, b);
        break;
      case L:
        pen.lineTo(a, b);
        break;
      case H:
        pen.lineTo(a, pen.y);
        break;
      case V:
        pen.lineTo(pen.x, a);
        break;
      case C:
        this.curve(a, b, c, d, e, f);
        break;
      case S:
        this.mirror(C, S);
        this.curve(this.mirrorX, this.mirrorY, a, b, c, d);
        break;
      case Q:
        this.bow(a, b, c, d);
        break;
      case T:
        this.mirror(Q, T);
        this.bow(this.mirrorX, this.mirrorY, a, b);
        break;
      case A:
        pen.arcTo(a, b, (c * Math.PI) / 180, d === 1, e === 1, f, v[6] as number);
        break;
      default:
        pen.close();
    }
    this.last = command;
  }

  private curve(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.builder.cubicTo(x1, y1, x2, y2, x, y);
    this.mirrorX = x2;
    this.mirrorY = y2;
  }

  private bow(x1: number, y1: number, x: number, y: number): void {
    this.builder.quadraticTo(x1, y1, x, y);
    this.mirrorX = x1;
    this.mirrorY = y1;
  }

  /** Mirrors the last control point where the command before was one of these. */
  private mirror(first: number, second: number): void {
    const { x, y } = this.builder;
    const follows = this.last === first || this.last === second;
    this.mirrorX = follows ? 2 * x - this.mirrorX : x;
    this.mirrorY = follows ? 2 * y - this.mirrorY : y;
  }
}

function makeAbsolute(command: number, v: Float64Array, x: number, y: number): void {
  if (command === V) v[0] = (v[0] as number) + y;
  else if (command === H) v[0] = (v[0] as number) + x;
  else {
    const from = command === A ? 5 : 0;
    const count = COUNTS[command] as number;
    for (let index = from; index < count; index += 2) {
      v[index] = (v[index] as number) + x;
      v[index + 1] = (v[index + 1] as number) + y;
    }
  }
}

// Made once: reading a path never runs within reading another, and drawings hold a hundred thousand.
const scanner = new NumberScanner();
const pen = new PathPen();
/** The numbers of the command at hand. */
const values = new Float64Array(7);
