import { wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Rgb } from '#core/artwork/trace/pixels.ts';
import { PLAIN_TRACE, type PictureTrace } from '#core/artwork/trace/tracePicture.ts';
import { blobOf } from '#web/islands/jobs/picture/blobOf.ts';
import { base64Of } from '#web/islands/shared/base64Of.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { OpenedPictureReply } from '#web/schemas/job.ts';
import type { TraceThread, TracedPicture } from '#web/workers/tracePicture.ts';

/** An outline is found in at most so many pixels: finer than any blade goes. */
const MOST_TRACED_PIXELS = 3_000_000;
/** The longest side of a piece whose file says nothing of its size, mm. Common practice, no source. */
const USUAL_MM = 60;

/** A picture that is opened: what it is, its pixels for the eye dropper, how it is traced and how large it lies. */
export interface PictureState {
  readonly opened: OpenedPictureReply | null;
  readonly trace: PictureTrace;
  readonly widthMm: number;
  readonly traced: TracedPicture | null;
  readonly error: unknown;
  readonly setTrace: (change: Partial<PictureTrace>) => void;
  readonly setWidthMm: (mm: number) => void;
  /** The colour at a place of the picture, shares of its width and height. */
  readonly colourAt: (x: number, y: number) => Rgb | null;
}

/** Opens a picture on the server and traces it in a thread of the browser; the newest wish wins. */
export function usePicture(file: File): PictureState {
  const [opened, setOpened] = useState<OpenedPictureReply | null>(null);
  const [trace, setTrace] = useState(PLAIN_TRACE);
  const [widthMm, setWidthMm] = useState(USUAL_MM);
  const [traced, setTraced] = useState<TracedPicture | null>(null);
  const [error, setError] = useState<unknown>(null);
  const thread = useRef<Remote<TraceThread> | null>(null);
  const pixels = useRef<ImageData | null>(null);
  const newest = useRef(0);

  useEffect(() => {
    const worker = new Worker(new URL('../../../workers/tracePicture.ts', import.meta.url), {
      type: 'module',
    });
    const remote = wrap<TraceThread>(worker);
    let isGone = false;
    const open = async () => {
      const reply = await callApi<OpenedPictureReply>('/api/pictures', 'POST', {
        image: await base64Of(file),
      });
      const image = await readPixels(reply);
      const ground = await remote.open({ width: image.width, height: image.height, data: image.data });
      if (isGone) return;
      pixels.current = image;
      thread.current = remote;
      setTrace({ ...PLAIN_TRACE, by: reply.hasClear ? 'clear' : 'ground', ...(ground ? { ground } : {}) });
      setWidthMm(widthOf(reply));
      setOpened(reply);
    };
    open().catch((refusal: unknown) => setError(refusal));
    return () => {
      isGone = true;
      worker.terminate();
    };
  }, [file]);

  useEffect(() => {
    if (!opened) return;
    newest.current += 1;
    const mine = newest.current;
    thread.current?.trace(trace, widthMm).then(
      (result) => mine === newest.current && setTraced(result),
      (failure: unknown) => setError(failure),
    );
  }, [opened, trace, widthMm]);

  return {
    opened,
    trace,
    widthMm,
    traced,
    error,
    setTrace: (change) => setTrace((before) => ({ ...before, ...change })),
    setWidthMm,
    colourAt: (x, y) => colourOf(pixels.current, x, y),
  };
}

/** As large as its file says, else the longest side of a usual sticker. */
function widthOf({ widthPx, heightPx, dpi }: OpenedPictureReply): number {
  const wide = dpi ? (widthPx / dpi) * 25.4 : (USUAL_MM * widthPx) / Math.max(widthPx, heightPx);
  return Math.round(wide * 10) / 10;
}

/** The pixels of a picture, fewer where it has more than an outline needs. */
async function readPixels({ image, widthPx, heightPx }: OpenedPictureReply): Promise<ImageData> {
  const shrink = Math.min(1, Math.sqrt(MOST_TRACED_PIXELS / (widthPx * heightPx)));
  const [width, height] = [
    Math.max(1, Math.round(widthPx * shrink)),
    Math.max(1, Math.round(heightPx * shrink)),
  ];
  const bitmap = await createImageBitmap(blobOf(image), {
    premultiplyAlpha: 'none',
    resizeWidth: width,
    resizeHeight: height,
    resizeQuality: 'high',
  });
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const drawn = canvas.getContext('2d', { willReadFrequently: true });
  if (!drawn) throw new Error('this browser cannot read the pixels of a picture');
  drawn.drawImage(bitmap, 0, 0);
  return drawn.getImageData(0, 0, width, height);
}

function colourOf(pixels: ImageData | null, x: number, y: number): Rgb | null {
  if (!pixels) return null;
  const column = Math.min(pixels.width - 1, Math.max(0, Math.floor(x * pixels.width)));
  const row = Math.min(pixels.height - 1, Math.max(0, Math.floor(y * pixels.height)));
  const at = 4 * (row * pixels.width + column);
  const [r = 0, g = 0, b = 0] = pixels.data.subarray(at, at + 3);
  return { r, g, b };
}
