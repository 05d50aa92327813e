import { isRunOver, type Run } from '#core/job/run.ts';
import { watchRun } from '#web/links/runHub.ts';
import type { RunEvent } from '#web/schemas/run.ts';

const KEEP_ALIVE_MS = 15_000;

/** A run as server-sent events: first its state now, then everything as it happens, until it is over. */
export function streamRun(run: Run): Response {
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      const write = (text: string) => controller.enqueue(encoder.encode(text));
      const tell = (event: RunEvent) => {
        write(`data: ${JSON.stringify(event)}\n\n`);
        if (event.kind === 'state' && isRunOver(event.state)) {
          stop();
          controller.close();
        }
      };
      const unwatch = watchRun(run.id, tell);
      const beat = setInterval(() => write(': still here\n\n'), KEEP_ALIVE_MS);
      stop = () => {
        unwatch();
        clearInterval(beat);
      };
      write('retry: 1000\n\n');
      tell({ kind: 'state', state: run.state, message: run.message });
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
