import sharp from 'sharp';
import type { PictureKind } from '#core/drawing/keptPicture.ts';
import { AppError } from '#core/errors/appError.ts';

/** Kinds of picture that are opened. */
const KINDS = ['jpeg', 'png', 'webp', 'tiff'] as const;
export const MOST_PICTURE_BYTES = 50_000_000;
/** A small file can unpack to a picture that fills the memory. */
export const MOST_PIXELS = 100_000_000;
/** More than this is not kept: an A4 sheet at 450 dpi. */
const MOST_KEPT_PIXELS = 20_000_000;
/** A picture that is nobody's sheet at its own resolution has none: 72 dpi stands in files that know nothing. */
const UNKNOWN_DPI = 72;
const SECONDS = 30;

/** A picture as a job keeps it: upright, in the colours of its own profile. */
export interface OpenedPicture {
  /** PNG where something of it is clear or it came without loss, else JPEG. */
  readonly data: Buffer;
  readonly kind: PictureKind;
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
 * Opens a picture: upright, 8 bits a channel, at most 20 megapixels. A PNG or JPEG that is so already stays as it is,
 * byte for byte; any other is encoded anew. Its colour profile stays.
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
  const facts = await readFacts(bytes);
  const { format, width, height, density } = facts;
  if (!(KINDS as readonly string[]).includes(format)) {
    throw new AppError('badDrawing', `a ${format} file is no picture that is read: PNG, JPEG, WebP or TIFF`);
  }
  const pixels = width * height;
  if (pixels > MOST_PIXELS) {
    const words = `${width} × ${height} pixels`;
    throw new AppError('badDrawing', `the picture has ${words}, more than the 100 megapixels that are read`);
  }
  try {
    const hasClear = await isAnyClear(bytes, facts);
    const shrink = Math.min(1, Math.sqrt(MOST_KEPT_PIXELS / pixels));
    const kind = hasClear || format === 'png' || format === 'tiff' ? 'png' : 'jpeg';
    const kept = isFit(facts)
      ? { data: bytes, info: { width, height } }
      : await encodeAnew(bytes, facts, shrink, kind);
    return {
      data: kept.data,
      kind,
      widthPx: kept.info.width,
      heightPx: kept.info.height,
      dpi: density && density > UNKNOWN_DPI ? density * shrink : null,
      hasClear,
      reducedFrom: shrink < 1 ? pixels : null,
    };
  } catch (failure) {
    const reason = failure instanceof Error ? failure.message.split('\n')[0] : '';
    throw new AppError('badDrawing', `this ${format.toUpperCase()} file is broken: ${reason}`);
  }
}

/** Whether a file is kept as it is. */
function isFit({ format, width, height, depth, space, orientation = 1 }: sharp.Metadata): boolean {
  const isKind = format === 'png' || format === 'jpeg';
  const isPlain = depth === 'uchar' && (space === 'srgb' || space === 'b-w') && orientation === 1;
  return isKind && isPlain && width * height <= MOST_KEPT_PIXELS;
}

function encodeAnew(
  bytes: Buffer,
  { width, height, space }: sharp.Metadata,
  shrink: number,
  kind: PictureKind,
): Promise<{ readonly data: Buffer; readonly info: sharp.OutputInfo }> {
  const side = Math.floor(Math.max(width, height) * shrink);
  const upright = decode(bytes)
    .rotate()
    .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true });
  // A press has other inks: what it shows is told in the colours of a screen.
  const sized = (space === 'cmyk' ? upright : upright.keepIccProfile()).toColourspace('srgb');
  const encoded =
    kind === 'png' ? sized.png({ compressionLevel: 6 }) : sized.removeAlpha().jpeg({ quality: 92 });
  return encoded.toBuffer({ resolveWithObject: true });
}

/** Reads all of it, so that one which breaks off is found out. */
async function isAnyClear(bytes: Buffer, { hasAlpha }: sharp.Metadata): Promise<boolean> {
  if (!hasAlpha) {
    await decode(bytes).resize(1, 1, { fit: 'fill' }).raw().toBuffer();
    return false;
  }
  const alpha = await decode(bytes).toColourspace('srgb').extractChannel('alpha').raw().toBuffer();
  return alpha.some((one) => one < 255);
}

function decode(bytes: Buffer): sharp.Sharp {
  return sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).timeout({ seconds: SECONDS });
}

async function readFacts(bytes: Buffer): Promise<sharp.Metadata> {
  try {
    return await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw new AppError('badDrawing', 'this is no picture that can be read: PNG, JPEG, WebP or TIFF');
  }
}
