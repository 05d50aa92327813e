import { AppError } from '#core/errors/appError.ts';

/**
 * Reads a JSON body, counting bytes as they come, so that a large one is refused before it is held.
 *
 * @throws AppError `tooLarge` above the limit; `badInput` when it is no JSON
 */
export async function readJson(request: Request, maxBytes: number): Promise<unknown> {
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
  const text = Buffer.concat(chunks).toString('utf8');
  try {
    return JSON.parse(text, text.includes('\\u0000') ? refuseNul : undefined) as unknown;
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError('badInput', 'the request is not JSON');
  }
}

/** No text that people type holds the character NUL, and some that read it stop there. */
function refuseNul(key: string, value: unknown): unknown {
  if (key.includes('\0') || (typeof value === 'string' && value.includes('\0'))) {
    throw new AppError('badInput', 'a text holds the character NUL');
  }
  return value;
}

function refuseSize(maxBytes: number): never {
  throw new AppError('tooLarge', `the request is larger than ${Math.round(maxBytes / 1024)} KB`);
}
