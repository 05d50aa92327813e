import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { ERROR_TABLE } from '#web/http/errorTable.ts';
import { isNotNow } from '#store/connection/retryTransactions.ts';
import { isDiskFull, isStoreTrouble } from '#store/connection/storeTrouble.ts';
import { serverContext } from '#server/serverContext.ts';

/** After so many seconds it is worth asking again. */
const RETRY_AFTER_S = 2;

/**
 * Turns whatever was thrown into an answer in plain words; only unforeseen errors are logged with their trace.
 *
 * @param isNothingChanged whether it is sure that a request that failed changed nothing
 */
export function replyToError(error: unknown, isNothingChanged = true): Response {
  const known = asAppError(error);
  if (!known) {
    serverContext().log.error({ err: error }, 'unforeseen error');
    const message = isNothingChanged
      ? 'Nothing was changed. Please try again.'
      : 'It is not known how far it came. Look what was done before you try again.';
    return Response.json(
      { error: { code: 'unforeseen', title: 'The server failed', message } },
      { status: 500 },
    );
  }
  const { status, title } = ERROR_TABLE[known.code];
  const { code, message, details } = known;
  const headers = status === 503 ? { 'retry-after': String(RETRY_AFTER_S) } : undefined;
  return Response.json({ error: { code, title, message, details } }, { status, ...(headers && { headers }) });
}

/** What the database refuses of a request, by its number: what was asked for names what is not there, or does not fit. */
const UNFIT: Readonly<Record<number, readonly ['notFound' | 'badInput', string]>> = {
  1452: ['notFound', 'what this belongs to is not there (any more)'],
  1406: ['badInput', 'a text is longer than can be kept'],
  1264: ['badInput', 'a figure is larger than can be kept'],
  1366: ['badInput', 'a text holds characters that cannot be kept'],
};

/** A refusal in plain words, or `null` for what was not foreseen. */
export function asAppError(error: unknown): AppError | null {
  if (error instanceof AppError) return error;
  if (error instanceof z.ZodError) return new AppError('badInput', describeIssues(error));
  // Nobody waits for the answer to a question that was hung up on.
  if (error instanceof Error && error.name === 'AbortError') return new AppError('busy', 'This was stopped.');
  if (isDiskFull(error)) {
    return new AppError(
      'storeUnavailable',
      'The disk with the database is full. Nothing was changed: make room, then try again.',
    );
  }
  if (error instanceof Error && 'errno' in error) {
    const words = UNFIT[Number(error.errno)];
    if (words) return new AppError(...words);
  }
  if (isStoreTrouble(error) || isNotNow(error)) {
    return new AppError(
      'storeUnavailable',
      'The database does not answer. Nothing was changed; try again shortly.',
    );
  }
  return null;
}

function describeIssues(error: z.ZodError): string {
  return error.issues
    .slice(0, 5)
    .map((issue) => `${issue.path.join('.') || 'input'}: ${issue.message}`)
    .join('; ');
}
