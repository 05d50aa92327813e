import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { listLongPictures, nameKeptPicture, SMALL_PX, type PictureKind } from '#core/drawing/keptPicture.ts';
import type { PictureSize } from '#core/drawing/pictureSize.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { MOST_PIXELS } from '#web/endpoints/jobs/pictures/openPicture.ts';
import { keepPicture } from '#store/repositories/jobs/pictures.ts';

/**
 * Keeps the bytes of a picture apart from all drawings.
 *
 * @param db not within a transaction: others may keep the same picture meanwhile
 * @returns the address by which drawings name it
 */
export async function keepBytes(
  db: Store,
  { data, kind, widthPx, heightPx }: PictureSize & { readonly data: Buffer; readonly kind: PictureKind },
): Promise<string> {
  const sha256 = createHash('sha256').update(data).digest('hex');
  const address = nameKeptPicture(sha256, { widthPx, heightPx }, kind);
  const opened = sharp(data, { limitInputPixels: MOST_PIXELS });
  const { icc, hasAlpha } = await opened.metadata();
  const sized = opened
    .resize({ width: SMALL_PX, height: SMALL_PX, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb');
  const small = await (hasAlpha || kind === 'png' ? sized.png() : sized.jpeg({ quality: 88 })).toBuffer();
  const profile = icc && !isScreenProfile(icc) ? icc : null;
  await keepPicture(db, { address, data, small, profile }, new Date());
  return address;
}

/** Whether a profile says what is meant without one. Its name stands in it, in one byte or two to the letter. */
function isScreenProfile(icc: Buffer): boolean {
  return icc.toString('latin1').replaceAll('\0', '').includes('sRGB');
}

/**
 * A file whose long pictures are kept apart. What cannot be read as a picture stays where it is.
 *
 * @param source SVG
 */
export async function keepLongPictures(db: Store, source: string): Promise<string> {
  let short = source;
  for (const address of listLongPictures(source)) {
    const kept = await keepInline(db, address);
    if (kept) short = short.replaceAll(address, kept);
  }
  return short;
}

async function keepInline(db: Store, address: string): Promise<string | null> {
  const data = Buffer.from(address.slice(address.indexOf(',') + 1), 'base64');
  const facts = await sharp(data, { limitInputPixels: MOST_PIXELS })
    .metadata()
    .catch(() => null);
  if (facts?.format !== 'png' && facts?.format !== 'jpeg') return null;
  const { width: widthPx, height: heightPx, format: kind } = facts;
  return keepBytes(db, { data, kind, widthPx, heightPx }).catch(() => null);
}
