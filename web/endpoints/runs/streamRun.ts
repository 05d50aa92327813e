import { isRunOver, type Run } from '#core/run/run.ts';
import { watchRun } from '#server/runs/runHub.ts';
import type { LiveEvent } from '#core/run/liveEvent.ts';

/** So often the line is kept alive, and it is looked whether who watches may still, ms. */
const KEEP_ALIVE_MS = 5_000;

/**
 * A run as server-sent events: first its state now, then everything as it happens, until it is over.
 * It is watched from before it is read, so that nothing falls between the two.
 * @param follow has it told of a run that another server drives; returns what ends it
 * @param maySee whether who watches is still signed in
 * @param readRun what the store holds of it; what it throws is thrown, and the run is watched no longer
 */
export async function streamRun(
  runId: number,
  readRun: () => Promise<Run>,
  follow: () => () => void = () => () => undefined,
  maySee: () => Promise<boolean> = () => Promise.resolve(true),
): Promise<Response> {
  const early: LiveEvent[] = [];
  let tell = (event: LiveEvent) => void early.push(event);
  const unfollow = follow();
  const unhear = watchRun(runId, (event) => tell(event));
  const unwatch = () => {
    unfollow();
    unhear();
  };
  let run: Run;
  try {
    run = await readRun();
  } catch (problem) {
    unwatch();
    throw problem;
  }
  let stop = unwatch;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      const write = (text: string) => controller.enqueue(encoder.encode(text));
      const beat = setInterval(() => {
        write(': still here\n\n');
        // A store that is away says nothing of who may see it.
        void maySee()
          .catch(() => true)
          .then((isIn) => {
            if (isIn || isEnded) return;
            stop();
            controller.close();
          });
      }, KEEP_ALIVE_MS);
      let isEnded = false;
      stop = () => {
        isEnded = true;
        unwatch();
        clearInterval(beat);
      };
      tell = (event) => {
        if (isEnded) return;
        write(`data: ${JSON.stringify(event)}\n\n`);
        if (event.kind === 'state' && isRunOver(event.state)) {
          stop();
          controller.close();
        }
      };
      write('retry: 1000\n\n');
      tell({ kind: 'state', state: run.state, message: run.message });
      early.forEach((event) => tell(event));
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
