import { wrap } from 'comlink';
import { pictureAlone } from '#core/artwork/pictureAlone.ts';
import { sniffFormat } from '#core/artwork/readDrawing.ts';
import type { DrawingFormat } from '#core/drawing/drawing.ts';
import { blobOf } from '#web/islands/jobs/picture/blobOf.ts';
import {
  drawPicture,
  openPictureFile,
  readPixels,
  traceOf,
  widthOf,
} from '#web/islands/jobs/picture/pictureFile.ts';
import type { NewDrawing } from '#web/schemas/job.ts';
import type { TraceThread } from '#web/workers/tracePicture.ts';

/** What the file dialog offers. */
export const ACCEPTED =
  '.svg,.dxf,.hpgl,.plt,.png,.jpg,.jpeg,.webp,.tif,.tiff,image/svg+xml,image/png,image/jpeg';
const MOST_BYTES = 50_000_000;
const PICTURE = /\.(png|jpe?g|webp|tiff?)$/i;
const PICTURE_TYPE = /^image\/(png|jpeg|webp|tiff)$/;

/** A file that was looked into: a picture, or the text of a drawing. */
type LookedInto =
  { readonly kind: 'picture'; readonly file: File } | { readonly kind: 'text'; readonly text: string };

/**
 * What a file is: a picture, also one alone in an SVG, or text.
 *
 * @throws Error in words for a file that is too large
 */
export async function lookInto(file: File): Promise<LookedInto> {
  if (file.size > MOST_BYTES) {
    throw new Error(`${file.name} has ${(file.size / 1e6).toFixed(1)} MB; at most 50 MB are read.`);
  }
  if (PICTURE.test(file.name) || PICTURE_TYPE.test(file.type)) return { kind: 'picture', file };
  const text = decodeText(await file.arrayBuffer());
  const alone = pictureAlone(text);
  return alone ? { kind: 'picture', file: new File([blobOf(alone)], file.name) } : { kind: 'text', text };
}

/**
 * A file as a drawing, without anybody being asked: a picture is cut around at its edge, as large as it says, or as a
 * usual sticker.
 *
 * @param longestMm how long the longer side of a picture becomes, whatever its file says
 * @throws Error in words for what is no artwork, or a picture in which nothing differs from its ground
 */
export async function prepareArtwork(file: File, longestMm?: number): Promise<NewDrawing> {
  const found = await lookInto(file);
  const name = nameOf(file);
  if (found.kind === 'text')
    return { name, format: requireFormat(found.text, file.name), source: found.text };
  return { name, format: 'svg', source: await tracePictureFile(found.file, longestMm) };
}

/** The name of a job from that of its file; what it is where its file has none. */
export function nameOf({ name }: Pick<File, 'name'>, kind = 'drawing'): string {
  return name.replace(/\.[a-z]+$/i, '').slice(0, 120) || kind;
}

async function tracePictureFile(file: File, longestMm?: number): Promise<string> {
  const opened = await openPictureFile(file);
  const image = await readPixels(file, opened);
  const worker = new Worker(new URL('../../../workers/tracePicture.ts', import.meta.url), { type: 'module' });
  try {
    const thread = wrap<TraceThread>(worker);
    const ground = await thread.open({ width: image.width, height: image.height, data: image.data });
    const { widthPx, heightPx } = opened;
    const widthMm = longestMm ? (longestMm * widthPx) / Math.max(widthPx, heightPx) : widthOf(opened);
    const { contours } = await thread.trace(traceOf(opened, ground), widthMm);
    if (contours.length === 0) {
      throw new Error(`In ${file.name} nothing differs from the ground: drop it alone, and tap its ground.`);
    }
    return drawPicture(opened, widthMm, contours);
  } finally {
    worker.terminate();
  }
}

/** @throws Error in words for what is no artwork */
export function requireFormat(source: string, fileName: string): DrawingFormat {
  const format = sniffFormat(source, fileName);
  if (format) return format;
  throw new Error(
    `${fileName} is no artwork that is read: a picture (PNG, JPEG, WebP, TIFF) or a drawing (SVG, DXF as text, HPGL).`,
  );
}

/** As UTF-8; what is none has a character to each byte, as plots have. */
function decodeText(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('latin1').decode(bytes);
  }
}
