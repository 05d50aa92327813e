import { writePictureSvg } from '#core/artwork/pictureDrawing.ts';
import type { Rgb } from '#core/artwork/trace/pixels.ts';
import { PLAIN_TRACE, type PictureTrace } from '#core/artwork/trace/tracePicture.ts';
import type { Contour } from '#core/geometry/contour.ts';
import { base64Of } from '#web/islands/shared/base64Of.ts';
import { pixelsOf } from '#web/islands/shared/pixelsOf.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { OpenedPictureReply } from '#web/schemas/job.ts';

/** An outline is found in at most so many pixels: finer than any blade goes. */
const MOST_TRACED_PIXELS = 3_000_000;
/** The longest side of a piece whose file says nothing of its size, mm. Common practice, no source. */
export const USUAL_MM = 60;

/** As large as its file says, else the longest side of a usual sticker. */
export function widthOf({ widthPx, heightPx, dpi }: OpenedPictureReply): number {
  const wide = dpi ? (widthPx / dpi) * 25.4 : (USUAL_MM * widthPx) / Math.max(widthPx, heightPx);
  return Math.round(wide * 10) / 10;
}

/** Has the server open a picture and keep it, upright and of a kind that stands in drawings. */
export async function openPictureFile(file: File): Promise<OpenedPictureReply> {
  return callApi<OpenedPictureReply>('/api/pictures', 'POST', { image: await base64Of(file), isKept: true });
}

/**
 * The pixels of a picture, fewer where it has more than an outline needs: of the file itself where the browser reads it,
 * else of what the server keeps.
 */
export async function readPixels(
  file: File,
  { image, widthPx, heightPx }: OpenedPictureReply,
): Promise<ImageData> {
  const shrink = Math.min(1, Math.sqrt(MOST_TRACED_PIXELS / (widthPx * heightPx)));
  const [width, height] = [
    Math.max(1, Math.round(widthPx * shrink)),
    Math.max(1, Math.round(heightPx * shrink)),
  ];
  const sized = {
    premultiplyAlpha: 'none',
    resizeWidth: width,
    resizeHeight: height,
    resizeQuality: 'high',
  } as const;
  const bitmap = await createImageBitmap(file, sized).catch(async () =>
    createImageBitmap(await (await fetch(image)).blob(), sized),
  );
  return pixelsOf(bitmap, width, height);
}

/** How a picture is traced as it begins: by what is clear of it, else by what differs from its ground. */
export function traceOf({ hasClear }: OpenedPictureReply, ground: Rgb | null): PictureTrace {
  return { ...PLAIN_TRACE, by: hasClear ? 'clear' : 'ground', ...(ground ? { ground } : {}) };
}

/** A picture at its size with its outlines, as SVG. */
export function drawPicture(
  { image, address = image, widthPx, heightPx }: OpenedPictureReply,
  widthMm: number,
  contours: readonly Contour[],
): string {
  const heightMm = Number(((widthMm * heightPx) / widthPx).toFixed(3));
  return writePictureSvg({ image: address, widthMm, heightMm, contours });
}
