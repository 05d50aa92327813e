import { AppError } from '#core/errors/appError.ts';

/** A step of an encoded polyline, in user units. */
export interface EncodedStep {
  readonly x: number;
  readonly y: number;
  /** From the origin, instead of from where the pen stands. */
  readonly isAbsolute: boolean;
  readonly isDown: boolean;
}

/** What an encoded polyline does, in its order. */
export type EncodedPart =
  { readonly kind: 'pen'; readonly pen: number } | ({ readonly kind: 'step' } & EncodedStep);

/** Figures are written to the base of 64, or of 32 where seven bits are all there is. */
const BASES = { eight: { bits: 6, last: 191 }, seven: { bits: 5, last: 95 } } as const;
const LOWEST = 63;
/** More digits than a double holds whole are no figure. */
const MOST_BITS = 52;

/**
 * Decodes an encoded polyline: steps in figures to the base of 64 or 32, the lowest digit first, the sign in the lowest
 * bit; flags for pen up, absolute steps, fractions and pens between them.
 *
 * @param text what stands between PE and its semicolon
 * @throws AppError `badDrawing` for characters that are no digits, or a step without its second figure
 * Source: HP-GL/2 reference, the PE instruction; checked against another reader in the tests.
 * @example decodePolyline('7=__')[0]?.kind // 'step'
 */
export function decodePolyline(text: string): readonly EncodedPart[] {
  const parts: EncodedPart[] = [];
  const reader = new DigitReader(text);
  let [isDown, isAbsolute, fractionBits] = [true, false, 0];
  for (let flag = reader.flag(); flag !== null; flag = reader.flag()) {
    if (flag === ':') parts.push({ kind: 'pen', pen: reader.figure() });
    else if (flag === '<') isDown = false;
    else if (flag === '=') isAbsolute = true;
    else if (flag === '>') fractionBits = reader.figure();
    else if (flag === '7') reader.isSeven = true;
    else {
      const x = reader.figure() / 2 ** fractionBits;
      const y = reader.figure() / 2 ** fractionBits;
      parts.push({ kind: 'step', x, y, isAbsolute, isDown });
      [isDown, isAbsolute] = [true, false];
    }
  }
  return parts;
}

class DigitReader {
  isSeven = false;
  private at = 0;

  constructor(private readonly text: string) {}

  /** A flag, `''` where a figure begins, or `null` at the end. */
  flag(): string | null {
    this.skipBlanks();
    const next = this.text[this.at];
    if (next === undefined || next === ';') return null;
    if (!':<>=7'.includes(next)) return '';
    this.at++;
    return next;
  }

  figure(): number {
    this.skipBlanks();
    const { bits, last } = this.isSeven ? BASES.seven : BASES.eight;
    let value = 0;
    for (let shift = 0; ; shift += bits) {
      const code = this.text.charCodeAt(this.at);
      const digit = code >= last ? code - last : code - LOWEST;
      if (!(digit >= 0 && digit < 2 ** bits) || shift > MOST_BITS) this.refuse();
      this.at++;
      value += digit * 2 ** shift;
      if (code >= last) break;
    }
    const size = Math.floor(value / 2);
    return value % 2 === 1 ? -size : size;
  }

  private skipBlanks(): void {
    while (/[\s]/.test(this.text[this.at] ?? '')) this.at++;
  }

  private refuse(): never {
    const near = this.text.slice(this.at, this.at + 10);
    throw new AppError(
      'badDrawing',
      `an encoded polyline cannot be read at its character ${this.at + 1}, "${near}"`,
    );
  }
}
