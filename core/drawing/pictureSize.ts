/** Pixels of a picture. */
export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Fewer pixels an inch are seen on paper. Common practice, no source. */
export const COARSE_DPI = 150;

/** Where PNG has its width. Source: W3C, Portable Network Graphics (third edition), 5.6 and 11.2.1. */
const PNG_SIZE_AT = 16;
const PNG_START = 0x89504e47;
const JPEG_START = 0xffd8;
/** Frames of JPEG begin with one of these; the others between carry tables. Source: ITU-T T.81, table B.1. */
const isFrame = (marker: number) => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);

/**
 * How many pixels a PNG or JPEG picture has, as its head says.
 *
 * @param head its first bytes; of JPEG those before its frame, which may hold what a camera adds
 * @returns `null` where they do not say it
 * @example pictureSize(whitePixel.data) // null
 */
export function pictureSize(head: Uint8Array | Uint8ClampedArray): PictureSize | null {
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  if (head.length >= PNG_SIZE_AT + 8 && view.getUint32(0) === PNG_START) {
    return { widthPx: view.getUint32(PNG_SIZE_AT), heightPx: view.getUint32(PNG_SIZE_AT + 4) };
  }
  if (head.length < 2 || view.getUint16(0) !== JPEG_START) return null;
  for (let at = 2; at + 9 < head.length && head[at] === 0xff;) {
    if (isFrame(head[at + 1] as number)) {
      return { heightPx: view.getUint16(at + 5), widthPx: view.getUint16(at + 7) };
    }
    at += 2 + view.getUint16(at + 2);
  }
  return null;
}
