import { createHash, randomUUID } from 'node:crypto';
import { AppError } from '#core/errors/appError.ts';
import type { KeyedRequest } from '#store/repositories/workshop/requestKeys.ts';

const KEY = /^[\x21-\x7e]{1,128}$/;

/**
 * The key of a request that changes something, from its `Idempotency-Key` header (after the IETF draft "The
 * Idempotency-Key HTTP Header Field"); who names none gets one that nobody else has.
 *
 * @param bodyHash of the bytes of its body, or empty
 * @throws AppError `badInput` for a key that is none
 */
export function keyOf(request: Request, { pathname, search }: URL, bodyHash: string): KeyedRequest {
  const given = request.headers
    .get('idempotency-key')
    ?.trim()
    .replace(/^"(.*)"$/, '$1');
  if (given !== undefined && !KEY.test(given)) {
    throw new AppError('badInput', 'a request key has 1 to 128 printable characters and no blanks');
  }
  const fingerprint = createHash('sha256')
    .update(JSON.stringify([request.method, pathname, search, bodyHash]))
    .digest('hex');
  return { key: given ?? randomUUID(), isOwn: given === undefined, fingerprint };
}
