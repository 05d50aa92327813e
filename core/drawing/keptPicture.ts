import { pictureSize, type PictureSize } from '#core/drawing/pictureSize.ts';

/** Longest side of a kept picture's small copy, for lists and sheets, pixels: sharp at the size of a sticker. */
export const SMALL_PX = 512;

/** Kinds of picture that stand in drawings. */
export type PictureKind = 'png' | 'jpeg';

/**
 * Where a drawing names a picture that is kept apart from it: by what it holds, its pixels and its kind, so that files of
 * many megabytes are not carried along where lines alone are wanted.
 */
const KEPT = /picture:[0-9a-f]{64}-\d+x\d+\.(?:png|jpeg)/g;
const PARTS = /^picture:[0-9a-f]{64}-(\d+)x(\d+)\.(png|jpeg)$/;
/** A shorter one is not worth a place of its own, characters. */
const LEAST_CHARACTERS = 20_000;
const INLINE = /data:image\/(?:png|jpeg);base64,[A-Za-z0-9+/=\s]+/g;

/**
 * What a kept picture is called.
 *
 * @param sha256 of its bytes, as 64 hexadecimal digits
 * @example nameKeptPicture('0'.repeat(64), { widthPx: 9, heightPx: 4 }, 'png').slice(-8) // '-9x4.png'
 */
export function nameKeptPicture(
  sha256: string,
  { widthPx, heightPx }: PictureSize,
  kind: PictureKind,
): string {
  return `picture:${sha256}-${widthPx}x${heightPx}.${kind}`;
}

/**
 * Of which kind a picture is, by its first byte. Source: W3C, Portable Network Graphics (third edition), 5.2.
 *
 * @example kindOfPicture(whitePixel.data) // 'jpeg'
 */
export function kindOfPicture(bytes: Uint8Array | Uint8ClampedArray): PictureKind {
  return bytes[0] === 0x89 ? 'png' : 'jpeg';
}

/**
 * How many pixels a kept picture has.
 *
 * @returns `null` for another address
 * @example keptPictureSize('data:image/png;base64,AAAA') // null
 */
export function keptPictureSize(address: string): PictureSize | null {
  const [, widthPx, heightPx] = PARTS.exec(address) ?? [];
  return widthPx && heightPx ? { widthPx: Number(widthPx), heightPx: Number(heightPx) } : null;
}

/** What a camera adds stands before the size of a picture, but no more than this. */
const HEAD_BYTES = 300_000;

/**
 * How many pixels the picture of a drawing has, kept apart or within.
 *
 * @returns `null` where it does not say
 * @example sizeOfPicture('data:image/png;base64,AAAA') // null
 */
export function sizeOfPicture(address: string): PictureSize | null {
  const kept = keptPictureSize(address);
  if (kept) return kept;
  const start = address.indexOf(',') + 1;
  // Four letters carry three bytes.
  const letters = address.slice(start, start + 4 * Math.ceil(HEAD_BYTES / 3)).replace(/\s+/g, '');
  const whole = letters.slice(0, letters.length - (letters.length % 4));
  return pictureSize(decodeBase64(whole));
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Source: RFC 4648, section 4. What is no letter of it, and the padding, count as zeros. */
function decodeBase64(text: string): Uint8Array {
  const bytes = new Uint8Array((text.length / 4) * 3);
  for (let at = 0, to = 0; at < text.length; at += 4, to += 3) {
    const four = [0, 1, 2, 3].map((by) => Math.max(0, LETTERS.indexOf(text[at + by] ?? 'A')));
    const [a = 0, b = 0, c = 0, d = 0] = four;
    bytes.set([(a << 2) | (b >> 4), (b << 4) | (c >> 2), (c << 6) | d], to);
  }
  return bytes;
}

/**
 * The kept pictures that a file names, each once.
 *
 * @example listKeptPictures('<svg/>') // []
 */
export function listKeptPictures(source: string): readonly string[] {
  return [...new Set(source.match(KEPT) ?? [])];
}

/**
 * A file with other addresses in place of its kept pictures.
 *
 * @example replaceKeptPictures('<svg/>', () => '') // '<svg/>'
 */
export function replaceKeptPictures(source: string, addressOf: (kept: string) => string): string {
  return source.replace(KEPT, addressOf);
}

/**
 * The pictures within a file that are long enough to be kept apart, as data addresses.
 *
 * @example listLongPictures('<image href="data:image/png;base64,AAAA"/>') // []
 */
export function listLongPictures(source: string): readonly string[] {
  const long = (source.match(INLINE) ?? []).filter(({ length }) => length >= LEAST_CHARACTERS);
  return [...new Set(long.map((address) => address.trimEnd()))];
}
