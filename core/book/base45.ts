import { AppError } from '#core/errors/appError.ts';

/** The letters that a QR code holds two in eleven bits. Source: RFC 9285, table 1; ISO/IEC 18004, alphanumeric mode. */
const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:';
const BASE = LETTERS.length;

/**
 * Bytes as text for a QR code, three letters for two bytes. Source: RFC 9285.
 *
 * @example toBase45(pixelCoverage.values) // 'U5'
 */
export function toBase45(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += 2) {
    const isPair = at + 1 < bytes.length;
    const [first, second] = [bytes[at] as number, bytes[at + 1] as number];
    let rest = isPair ? 256 * first + second : first;
    for (let letter = 0; letter < (isPair ? 3 : 2); letter++) {
      text += LETTERS[rest % BASE];
      rest = Math.floor(rest / BASE);
    }
  }
  return text;
}

/**
 * The bytes that a text was written from.
 *
 * @throws AppError `badInput` for text that no bytes were written as
 * @example fromBase45('BB8')[1] // 66
 */
export function fromBase45(text: string): Uint8Array {
  if (text.length % 3 === 1) throw new AppError('badInput', 'the code is cut off');
  const bytes: number[] = [];
  for (let at = 0; at < text.length; at += 3) {
    const digits = [...text.slice(at, at + 3)].map((letter) => LETTERS.indexOf(letter));
    if (digits.includes(-1)) throw new AppError('badInput', 'the code holds a letter that none of ours has');
    const value = digits.reduceRight((sum, digit) => BASE * sum + digit, 0);
    if (value >= (digits.length === 3 ? 65_536 : 256)) throw new AppError('badInput', 'the code is damaged');
    if (digits.length === 3) bytes.push(value >> 8);
    bytes.push(value & 255);
  }
  return Uint8Array.from(bytes);
}
