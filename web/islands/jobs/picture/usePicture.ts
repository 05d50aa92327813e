import { wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Rgb } from '#core/artwork/trace/pixels.ts';
import { PLAIN_TRACE, type PictureTrace } from '#core/artwork/trace/tracePicture.ts';
import {
  openPictureFile,
  readPixels,
  traceOf,
  USUAL_MM,
  widthOf,
} from '#web/islands/jobs/picture/pictureFile.ts';
import type { OpenedPictureReply } from '#web/schemas/job.ts';
import type { TraceThread, TracedPicture } from '#web/workers/tracePicture.ts';

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
  const [widthMm, setWidthMm] = useState<number>(USUAL_MM);
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
      const reply = await openPictureFile(file);
      const image = await readPixels(file, reply);
      const ground = await remote.open({ width: image.width, height: image.height, data: image.data });
      if (isGone) return;
      pixels.current = image;
      thread.current = remote;
      setTrace(traceOf(reply, ground));
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

function colourOf(pixels: ImageData | null, x: number, y: number): Rgb | null {
  if (!pixels) return null;
  const column = Math.min(pixels.width - 1, Math.max(0, Math.floor(x * pixels.width)));
  const row = Math.min(pixels.height - 1, Math.max(0, Math.floor(y * pixels.height)));
  const at = 4 * (row * pixels.width + column);
  const [r = 0, g = 0, b = 0] = pixels.data.subarray(at, at + 3);
  return { r, g, b };
}
