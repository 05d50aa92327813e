import { createHash } from 'node:crypto';
import { AppError } from '#core/errors/appError.ts';

/** A body of a request. */
export interface ParsedBody {
  readonly value: unknown;
  /** SHA-256 of its bytes, hexadecimal. */
  readonly sha256: string;
}

/** Parses JSON. @throws AppError `badInput` when it is none, or a text in it holds the character NUL */
export function parseBody(bytes: Uint8Array): ParsedBody {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const text = buffer.toString('utf8');
  const sha256 = createHash('sha256').update(buffer).digest('hex');
  try {
    return { value: JSON.parse(text, text.includes('\\u0000') ? refuseNul : undefined) as unknown, sha256 };
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
