/** Powers of ten that a double holds exactly. */
const TEN = Array.from({ length: 23 }, (_, power) => 10 ** power);
const MOST_EXACT = 2 ** 53;

/**
 * Reads numbers, flags and letters one after another, with blanks and single commas between them. Up to 15 digits a
 * number is rounded as `Number()` would; longer ones are left to it.
 */
export class NumberScanner {
  private at = 0;

  constructor(private readonly text: string) {}

  /** Skips blanks and tells whether nothing follows. */
  isAtEnd(): boolean {
    this.skip(false);
    return this.at >= this.text.length;
  }

  /** The letter that stands next, taken; or `null` when none does. */
  letter(): string | null {
    const code = this.text.charCodeAt(this.at) | 32;
    if (!(code >= 97 && code <= 122)) return null;
    return this.text[this.at++] as string;
  }

  /** 0 or 1, which need no blank after them. */
  flag(): number {
    this.skip(true);
    const code = this.text.charCodeAt(this.at);
    if (code !== 48 && code !== 49) this.refuse('a flag is 0 or 1');
    this.at++;
    return code - 48;
  }

  number(): number {
    this.skip(true);
    const from = this.at;
    const sign = this.takeSign();
    let mantissa = 0;
    let digits = 0;
    let shift = 0;
    for (let code = this.code(); code >= 48 && code <= 57; code = this.next()) {
      mantissa = mantissa * 10 + (code - 48);
      digits++;
    }
    if (this.code() === 46) {
      for (let code = this.next(); code >= 48 && code <= 57; code = this.next()) {
        mantissa = mantissa * 10 + (code - 48);
        digits++;
        shift++;
      }
    }
    if (digits === 0) this.refuse('a number is missing', from);
    const power = this.takeExponent();
    if (mantissa < MOST_EXACT && power === 0 && shift < 23) return (sign * mantissa) / (TEN[shift] as number);
    const value = Number(this.text.slice(from, this.at));
    if (!Number.isFinite(value)) this.refuse('a number is not finite', from);
    return value;
  }

  /** @throws Error always, with the place */
  refuse(reason: string, at: number = this.at): never {
    const near = this.text.slice(at, at + 20);
    throw new Error(`${reason} at character ${at + 1}${near ? `, "${near}"` : ', where it ends'}`);
  }

  private code(): number {
    return this.text.charCodeAt(this.at);
  }

  private next(): number {
    return this.text.charCodeAt(++this.at);
  }

  private takeSign(): 1 | -1 {
    const code = this.code();
    if (code === 45 || code === 43) this.at++;
    return code === 45 ? -1 : 1;
  }

  private takeExponent(): number {
    if ((this.code() | 32) !== 101) return 0;
    const back = this.at++;
    this.takeSign();
    const from = this.at;
    for (let code = this.code(); code >= 48 && code <= 57;) code = this.next();
    if (this.at > from) return 1;
    this.at = back;
    return 0;
  }

  /** Blanks, and one comma among them where one may stand. */
  private skip(canComma: boolean): void {
    let isComma = !canComma;
    for (let code = this.code(); ; code = this.next()) {
      if (code === 44 && !isComma) isComma = true;
      else if (!(code === 32 || (code >= 9 && code <= 13))) return;
    }
  }
}
