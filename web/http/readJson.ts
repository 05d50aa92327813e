import { AppError } from '#core/errors/appError.ts';
import { parseBody, type ParsedBody } from '#web/workers/tasks/parseBody.ts';
import { runTask } from '#web/workers/pool.ts';

/** A body that is larger is parsed in a thread: it would keep the server from answering others. */
const LARGE_BYTES = 200_000;

/**
 * Reads a JSON body, counting bytes as they come, so that a large one is refused before it is held.
 *
 * @returns what it says, and a hash of how it says it
 * @throws AppError `tooLarge` above the limit; `badInput` when it is no JSON
 */
export async function readJson(request: Request, maxBytes: number): Promise<ParsedBody> {
  const declared = Number(request.headers.get('content-length') ?? 0);
  if (declared > maxBytes) refuseSize(maxBytes);
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
    size += part.value.byteLength;
    if (size > maxBytes) {
      await reader?.cancel();
      refuseSize(maxBytes);
    }
    chunks.push(part.value);
  }
  if (size <= LARGE_BYTES) return parseBody(Buffer.concat(chunks));
  const turn = before.then(() => parseLarge(chunks, size));
  // One after the other: each takes the server some ten milliseconds to hand over and take back.
  before = turn.then(pause, pause);
  return turn;
}

let before: Promise<unknown> = Promise.resolve();
const pause = () => new Promise((resolve) => setTimeout(resolve, 5));

function parseLarge(chunks: readonly Uint8Array[], size: number): Promise<ParsedBody> {
  // A buffer of its own, so that it can be handed over and need not be copied.
  const bytes = new Uint8Array(size);
  let at = 0;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.byteLength;
  }
  return runTask('parseBody', bytes, { transferList: [bytes.buffer] });
}

function refuseSize(maxBytes: number): never {
  throw new AppError('tooLarge', `the request is larger than ${Math.round(maxBytes / 1024)} KB`);
}
