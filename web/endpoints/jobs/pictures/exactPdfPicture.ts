import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import sharp from 'sharp';
import { kindOfPicture } from '#core/drawing/keptPicture.ts';
import type { ExactPicture } from '#store/repositories/jobs/pictures.ts';
import { openPdfPicture, type PdfPage, type PdfPicture } from '#web/endpoints/jobs/pdfPage.ts';

/** Where a profile says what its colours are made of. Source: ICC.1:2022, table 17. */
const COLOURS_AT = 16;
const COLOURS: Readonly<Record<string, { readonly count: number; readonly plain: string }>> = {
  'RGB ': { count: 3, plain: 'DeviceRGB' },
  GRAY: { count: 1, plain: 'DeviceGray' },
};

type ColourSpace = string | readonly unknown[];
/** What pdfkit holds of a picture until it is drawn; its types leave it out. */
interface HeldPicture {
  colorSpace?: ColourSpace;
  image?: { colorSpace: ColourSpace };
  alphaChannel?: Buffer;
}

/**
 * A picture for a PDF, pixel for pixel: its numbers as they are, and the profile that says what colours they are.
 * Source: ISO 32000-1, 8.6.5.5 and 11.6.5.3.
 */
export async function openExactPicture(page: PdfPage, { data, profile }: ExactPicture): Promise<PdfPicture> {
  const bytes = Buffer.from(data.buffer, data.byteOffset, data.length);
  const isPng = kindOfPicture(bytes) === 'png';
  const opened = isPng ? await openPng(page, bytes) : openPdfPicture(page, bytes);
  const held = opened as HeldPicture;
  const owner = isPng ? held.image : held;
  if (profile && owner) owner.colorSpace = spaceOf(page, Buffer.from(profile), owner.colorSpace);
  return opened;
}

/** As it stands in its file where the PDF can hold it so; what is clear of it, and what is packed by a palette, apart. */
async function openPng(page: PdfPage, bytes: Buffer): Promise<PdfPicture> {
  const { hasAlpha, depth, isProgressive, isPalette } = await sharp(bytes).metadata();
  if (!hasAlpha && !isPalette && !isProgressive && depth === 'uchar') return openPdfPicture(page, bytes);
  const exact = () => sharp(bytes, { ignoreIcc: true });
  const [ink, clear] = await Promise.all([
    exact().removeAlpha().png({ compressionLevel: 6, palette: false }).toBuffer(),
    hasAlpha ? exact().extractChannel('alpha').raw().toBuffer() : null,
  ]);
  const opened = openPdfPicture(page, ink);
  if (clear) (opened as HeldPicture).alphaChannel = await promisify(deflate)(clear);
  return opened;
}

/** Profiles that a PDF holds already. */
const held = new WeakMap<PdfPage, Map<string, readonly unknown[]>>();

function spaceOf(page: PdfPage, profile: Buffer, plain: ColourSpace | undefined): ColourSpace {
  const own = COLOURS[profile.toString('latin1', COLOURS_AT, COLOURS_AT + 4)];
  // A profile of other inks than the picture has says nothing of it.
  if (!own || own.plain !== plain) return plain ?? 'DeviceRGB';
  const known = held.get(page) ?? new Map<string, readonly unknown[]>();
  held.set(page, known);
  const key = profile.toString('base64');
  const space = known.get(key) ?? ['ICCBased', writeProfile(page, profile, own)];
  known.set(key, space);
  return space;
}

function writeProfile(
  page: PdfPage,
  profile: Buffer,
  { count, plain }: { readonly count: number; readonly plain: string },
): unknown {
  const written = page.ref({ N: count, Alternate: plain });
  written.end(profile);
  return written;
}
