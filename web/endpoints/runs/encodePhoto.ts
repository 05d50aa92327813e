import sharp from 'sharp';
import { AppError } from '#core/errors/appError.ts';

export const MOST_PHOTO_BYTES = 12_000_000;
const EDGE_PX = 1600;
/** A small file can unpack to a picture that fills the memory: more pixels than any camera makes are refused. */
const MOST_PIXELS = 80_000_000;

/** A photo as it is kept. */
export interface EncodedPhoto {
  readonly image: Buffer;
  readonly widthPx: number;
  readonly heightPx: number;
}

/**
 * Decodes a photo and encodes it anew: upright, at most 1600 px, as JPEG, with nothing in it but the picture. Place, time
 * and camera that a phone writes into a file are gone.
 *
 * @throws AppError `badInput` for what is no JPEG, PNG or WebP picture, or is too large
 */
export async function encodePhoto(bytes: Buffer): Promise<EncodedPhoto> {
  if (bytes.length > MOST_PHOTO_BYTES) {
    throw new AppError('badInput', `the photo is larger than ${MOST_PHOTO_BYTES / 1e6} MB`);
  }
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (!['jpeg', 'png', 'webp'].includes(format)) throw new Error(format);
    const { data, info } = await picture
      .rotate()
      .resize({ width: EDGE_PX, height: EDGE_PX, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return { image: data, widthPx: info.width, heightPx: info.height };
  } catch {
    throw new AppError('badInput', 'this is no JPEG, PNG or WebP picture that can be read');
  }
}
