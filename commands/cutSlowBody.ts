import type { IncomingMessage, ServerResponse } from 'node:http';

/** A body has so long to come, whatever its pace, ms. */
const PATIENCE_MS = 10_000;
/** Afterwards it has come at this pace on average, or is cut off: bytes a second. */
const FAIR_PACE = 50_000;
const LOOK_EVERY_MS = 1_000;

/** Ends a request whose body dribbles in, so that nobody holds a connection by sending a byte now and then. */
export function cutSlowBody(request: IncomingMessage, response: ServerResponse): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const begun = performance.now();
  const bytesBefore = request.socket.bytesRead;
  const timer = setInterval(() => {
    if (request.complete || request.destroyed) return clearInterval(timer);
    const milliseconds = performance.now() - begun;
    const bytes = request.socket.bytesRead - bytesBefore;
    if (milliseconds < PATIENCE_MS || bytes > (FAIR_PACE * milliseconds) / 1000) return;
    clearInterval(timer);
    if (!response.headersSent) {
      response.statusCode = 408;
      response.setHeader('connection', 'close');
      response.end('The request came too slowly.', () => request.destroy());
    } else request.destroy();
  }, LOOK_EVERY_MS);
  timer.unref();
}
