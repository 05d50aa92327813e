import sharp from 'sharp';
import { AppError } from '#core/errors/appError.ts';

/** Kinds of picture that are opened. */
const KINDS = ['jpeg', 'png', 'webp', 'tiff'] as const;
export const MOST_PICTURE_BYTES = 50_000_000;
/** A small file can unpack to a picture that fills the memory. */
const MOST_PIXELS = 100_000_000;
/** More than this is not kept: an A4 sheet at 450 dpi. */
const MOST_KEPT_PIXELS = 20_000_000;
/** A picture that is nobody's sheet at its own resolution has none: 72 dpi stands in files that know nothing. */
const UNKNOWN_DPI = 72;
const SECONDS = 30;

/** A picture as a job keeps it: upright, in the colours of a screen. */
export interface OpenedPicture {
  /** `data:image/png;base64,…` where something of it is clear or it came without loss, else jpeg. */
  readonly image: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** What its file says of its size on paper; `null` where it says nothing. */
  readonly dpi: number | null;
  /** Whether something of it is clear. */
  readonly hasClear: boolean;
  /** How many pixels its file has, where fewer are kept. */
  readonly reducedFrom: number | null;
}

/**
 * Decodes a picture and encodes it anew: upright, 8 bits a channel, at most 20 megapixels.
 *
 * @throws AppError `badDrawing` for what is no picture, is broken, or unpacks to too much; `tooLarge` for too many bytes
 */
export async function openPicture(bytes: Buffer): Promise<OpenedPicture> {
  if (bytes.length > MOST_PICTURE_BYTES) {
    throw new AppError(
      'tooLarge',
      `the picture has ${(bytes.length / 1e6).toFixed(0)} MB; at most 50 MB are read`,
    );
  }
  const { format, width, height, density, hasAlpha } = await readFacts(bytes);
  if (!(KINDS as readonly string[]).includes(format)) {
    throw new AppError('badDrawing', `a ${format} file is no picture that is read: PNG, JPEG, WebP or TIFF`);
  }
  const pixels = width * height;
  if (pixels > MOST_PIXELS) {
    const words = `${width} × ${height} pixels`;
    throw new AppError('badDrawing', `the picture has ${words}, more than the 100 megapixels that are read`);
  }
  try {
    const shrink = Math.min(1, Math.sqrt(MOST_KEPT_PIXELS / pixels));
    const side = Math.floor(Math.max(width, height) * shrink);
    const sized = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
      .timeout({ seconds: SECONDS })
      .rotate()
      .toColourspace('srgb')
      .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true });
    const isOpaque = hasAlpha
      ? (await sharp(bytes, { limitInputPixels: MOST_PIXELS }).stats()).isOpaque
      : true;
    const isLossless = !isOpaque || format === 'png' || format === 'tiff';
    const encoded = isLossless
      ? sized.png({ compressionLevel: 6 })
      : sized.removeAlpha().jpeg({ quality: 92 });
    const { data, info } = await encoded.toBuffer({ resolveWithObject: true });
    return {
      image: `data:image/${isLossless ? 'png' : 'jpeg'};base64,${data.toString('base64')}`,
      widthPx: info.width,
      heightPx: info.height,
      dpi: density && density > UNKNOWN_DPI ? density * shrink : null,
      hasClear: !isOpaque,
      reducedFrom: shrink < 1 ? pixels : null,
    };
  } catch (failure) {
    const reason = failure instanceof Error ? failure.message.split('\n')[0] : '';
    throw new AppError('badDrawing', `this ${format.toUpperCase()} file is broken: ${reason}`);
  }
}

async function readFacts(bytes: Buffer): Promise<sharp.Metadata> {
  try {
    return await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw new AppError('badDrawing', 'this is no picture that can be read: PNG, JPEG, WebP or TIFF');
  }
}
