import { itemAt } from '#core/collections/itemAt.ts';
/** Powers of ten that a double holds exactly. */
const TEN = Array.from({ length: 23 }, (_, power) => 10 ** power);
const MOST_EXACT = 2 ** 53;
const EXPONENT = /[eE][+-]?\d+/y;

/**
 * Reads numbers, flags and letters one after another, with blanks and single commas between them. Up to 15 digits a
 * number is rounded as `Number()` would; longer ones are left to it.
 */
export class NumberScanner {
  private at = 0;
  private text = '';

  /** Begins at the start of a text. */
  restart(text: string): void {
    this.text = text;
    this.at = 0;
  }

  /** Skips blanks. The code of the letter that stands next, taken; 0 where none does, -1 where the text ends. */
  letter(): number {
    const { text } = this;
    let at = this.at;
    let code = text.charCodeAt(at);
    while (code === 32 || (code >= 9 && code <= 13)) code = text.charCodeAt(++at);
    const small = code | 32;
    const isLetter = small >= 97 && small <= 122;
    this.at = isLetter ? at + 1 : at;
    if (isLetter) return code;
    return at >= text.length ? -1 : 0;
  }

  /** 0 or 1, which need no blank after them. */
  flag(): number {
    this.skip(true);
    const code = this.text.charCodeAt(this.at);
    if (code !== 48 && code !== 49) this.refuse('a flag is 0 or 1');
    this.at++;
    return code - 48;
  }

  /** Written as one loop over local figures: drawings are mostly numbers. */
  number(): number {
    this.skip(true);
    const { text } = this;
    const from = this.at;
    let at = from;
    let code = text.charCodeAt(at);
    const isNegative = code === 45;
    if (isNegative || code === 43) code = text.charCodeAt(++at);
    const first = at;
    let mantissa = 0;
    let shift = 0;
    for (; code >= 48 && code <= 57; code = text.charCodeAt(++at)) mantissa = mantissa * 10 + code - 48;
    let digits = at - first;
    if (code === 46) {
      const dot = at;
      for (code = text.charCodeAt(++at); code >= 48 && code <= 57; code = text.charCodeAt(++at)) {
        mantissa = mantissa * 10 + code - 48;
      }
      shift = at - dot - 1;
      digits += shift;
    }
    this.at = at;
    if (digits === 0) this.refuse('a number is missing', from);
    if ((code | 32) !== 101 || !this.takeExponent()) {
      if (mantissa < MOST_EXACT && shift < 23) {
        const value = shift === 0 ? mantissa : mantissa / itemAt(TEN, shift);
        return isNegative ? -value : value;
      }
    }
    const value = Number(text.slice(from, this.at));
    if (!Number.isFinite(value)) this.refuse('a number is not finite', from);
    return value;
  }

  /** @throws Error always, with the place */
  refuse(reason: string, at: number = this.at): never {
    const near = this.text.slice(at, at + 20);
    throw new Error(`${reason} at character ${at + 1}${near ? `, "${near}"` : ', where it ends'}`);
  }

  /** Takes an exponent where there is one. */
  private takeExponent(): boolean {
    const match = EXPONENT;
    match.lastIndex = this.at;
    if (!match.test(this.text)) return false;
    this.at = match.lastIndex;
    return true;
  }

  /** Blanks, and one comma among them where one may stand. */
  private skip(canComma: boolean): void {
    const { text } = this;
    let at = this.at;
    let isComma = !canComma;
    for (let code = text.charCodeAt(at); ; code = text.charCodeAt(++at)) {
      if (code === 44 && !isComma) isComma = true;
      else if (!(code === 32 || (code >= 9 && code <= 13))) break;
    }
    this.at = at;
  }
}
