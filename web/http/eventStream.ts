/** The line to a browser that is told of something as it happens. */
export interface EventLine {
  /** Tells it; nothing more goes out once the line is closed. */
  send(event: object): void;
  /** Ends it from here. */
  close(): void;
}

/** What a line watches. */
interface Watching {
  /** Called once, whoever ended the line. */
  readonly end: () => void;
  /** Called now and then, while whoever listens may. */
  readonly beat?: () => void;
}

/** So often a line is kept alive, and it is looked whether who listens may still, ms. */
const BEAT_MS = 5_000;

/**
 * Server-sent events, as the HTML Living Standard (9.2) has them, until either side ends them.
 *
 * @param begin begins to watch; the line may be closed within it
 * @param maySee whether who listens is still signed in; a store that is away says nothing of that
 */
export function eventStream(
  begin: (line: EventLine) => Watching,
  maySee: () => Promise<boolean> = () => Promise.resolve(true),
): Response {
  let end: () => void = () => undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      let isEnded = false;
      let watching: Watching | null = null;
      const write = (text: string) => {
        if (!isEnded) controller.enqueue(encoder.encode(text));
      };
      end = () => {
        if (isEnded) return;
        isEnded = true;
        clearInterval(timer);
        watching?.end();
      };
      const close = () => {
        if (isEnded) return;
        end();
        controller.close();
      };
      const beat = async () => {
        write(': still here\n\n');
        if (await maySee().catch(() => true)) watching?.beat?.();
        else close();
      };
      const timer = setInterval(() => void beat(), BEAT_MS);
      write('retry: 1000\n\n');
      watching = begin({ send: (event) => write(`data: ${JSON.stringify(event)}\n\n`), close });
      // Closed within its beginning, it knew nothing yet that could be ended.
      if (isEnded) watching.end();
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
