import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { wrap, type Remote } from 'comlink';
import { pixelsOf } from '#web/islands/shared/pixelsOf.ts';
import type { SeekCode } from '#web/workers/readCode.ts';

/** Sizes a photo is tried at, longest side in pixels: a code may be small in it, or blurred. */
const PHOTO_SIDES = [1200, 2000, 800, 3200];
/** A picture of the camera is tried this often, ms. */
const LOOK_EVERY_MS = 150;

interface CodeReader {
  readonly video: RefObject<HTMLVideoElement | null>;
  readonly isLooking: boolean;
  /** Whether this browser gives out its camera here at all: only over https, or on the computer itself. */
  readonly hasCamera: boolean;
  readonly error: unknown;
  readonly look: () => Promise<void>;
  readonly stop: () => void;
  readonly readPhoto: (file: File) => Promise<void>;
}

/** Reads codes from the camera, or from a photo. */
export function useCodeReader(onRead: (text: string) => void): CodeReader {
  const video = useRef<HTMLVideoElement>(null);
  const stream = useRef<MediaStream | null>(null);
  const seek = useSeekThread();
  const [isLooking, setLooking] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const [hasCamera, setCamera] = useState(false);
  useEffect(() => setCamera('mediaDevices' in navigator), []);
  const stop = useCallback(() => {
    for (const track of stream.current?.getTracks() ?? []) track.stop();
    stream.current = null;
    setLooking(false);
  }, []);
  useEffect(() => stop, [stop]);

  const look = async () => {
    setError(null);
    try {
      const wanted = { facingMode: 'environment', width: { ideal: 1920 } };
      const found = await navigator.mediaDevices.getUserMedia({ video: wanted });
      stream.current = found;
      setLooking(true);
      const screen = video.current;
      if (!screen) return stop();
      screen.srcObject = found;
      await screen.play();
      while (stream.current === found) {
        const text =
          screen.videoWidth > 0 ? await seek(pixelsOf(screen, screen.videoWidth, screen.videoHeight)) : null;
        if (text !== null && stream.current === found) {
          stop();
          onRead(text);
        }
        await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
      }
    } catch (problem) {
      stop();
      setError(wordCamera(problem));
    }
  };

  const readPhoto = async (file: File) => {
    setError(null);
    try {
      const text = await seekInPhoto(await createImageBitmap(file), seek);
      if (text !== null) onRead(text);
      else
        setError(
          new Error(
            'No code was found in this photo. Hold the phone straight over it, so that it fills the picture.',
          ),
        );
    } catch {
      setError(new Error('This file is no picture that the browser can read.'));
    }
  };
  return { video, isLooking, hasCamera, error, look, stop, readPhoto };
}

/** Seeks in a photo at several sizes. */
async function seekInPhoto(
  photo: ImageBitmap,
  seek: (pixels: ImageData) => Promise<string | null>,
): Promise<string | null> {
  const longest = Math.max(photo.width, photo.height);
  for (const side of PHOTO_SIDES) {
    const shrink = Math.min(1, side / longest);
    const [width, height] = [Math.round(photo.width * shrink), Math.round(photo.height * shrink)];
    const text = await seek(pixelsOf(photo, width, height));
    if (text !== null) return text;
  }
  return null;
}

function useSeekThread() {
  const thread = useRef<{ readonly worker: Worker; readonly seek: Remote<SeekCode> } | null>(null);
  useEffect(() => () => thread.current?.worker.terminate(), []);
  return useCallback((pixels: ImageData) => {
    if (!thread.current) {
      const worker = new Worker(new URL('../../workers/readCode.ts', import.meta.url), { type: 'module' });
      thread.current = { worker, seek: wrap<SeekCode>(worker) };
    }
    const { width, height, data } = pixels;
    return thread.current.seek({ width, height, data });
  }, []);
}

/** Why there is no picture, by the names of the Media Capture specification. */
function wordCamera(problem: unknown): Error {
  const name = problem instanceof DOMException ? problem.name : '';
  if (name === 'NotAllowedError')
    return new Error('The camera was not allowed. Allow it in the browser, or take a photo.');
  if (name === 'NotFoundError')
    return new Error('This device has no camera. Choose a photo, or paste the code.');
  return new Error('The camera could not be opened: something else may be using it. Take a photo instead.');
}
