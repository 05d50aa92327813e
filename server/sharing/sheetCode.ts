import { deflateSync, inflateSync } from 'node:zlib';
import { AppError } from '#core/errors/appError.ts';
import { fromBase45, toBase45 } from '#core/book/base45.ts';
import { USUAL_WORDS } from '#server/sharing/usualWords.ts';

/** How a code of ours begins; the figure is the edition of {@link USUAL_WORDS}. */
const BEGINS = 'FEATHER1:';
/** A full stop ends it: a space at its end would be lost where text is pasted. */
const ENDS = '.';
/** What a code may unfold to, bytes. */
const MOST_BYTES = 1024 * 1024;

/**
 * JSON as letters of a QR code: words that every sheet has are left out (zlib with a dictionary, RFC 1950, which also
 * tells a damaged one by its check sum), the rest as base45 (RFC 9285).
 *
 * @example readSheetCode(writeSheetCode('{}')) // '{}'
 */
export function writeSheetCode(json: string): string {
  return BEGINS + toBase45(deflateSync(json, { level: 9, memLevel: 9, dictionary: USUAL_WORDS })) + ENDS;
}

export function isSheetCode(text: string): boolean {
  return /^\s*FEATHER\d+:/.test(text);
}

/** @throws AppError `badInput` for a code that is cut off, damaged or of a later edition */
export function readSheetCode(text: string): string {
  // Lines may have been broken where it was pasted; spaces are letters of it.
  const code = text.replaceAll(/[\r\n\t]/g, '').trim();
  if (!code.startsWith(BEGINS)) {
    throw new AppError('badInput', 'this code is of a later Pale Feather: bring yours up to date first');
  }
  if (!code.endsWith(ENDS))
    throw new AppError('badInput', 'the code is cut off: its last letter is a full stop');
  const bytes = fromBase45(code.slice(BEGINS.length, -ENDS.length));
  try {
    return inflateSync(bytes, { dictionary: USUAL_WORDS, maxOutputLength: MOST_BYTES }).toString('utf8');
  } catch {
    throw new AppError('badInput', 'the code is damaged: read it again');
  }
}
