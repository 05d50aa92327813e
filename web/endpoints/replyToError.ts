import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { ERROR_TABLE } from '#web/endpoints/errorTable.ts';
import { serverContext } from '#server/serverContext.ts';

/** Turns whatever was thrown into an answer in plain words; only unforeseen errors are logged with their trace. */
export function replyToError(error: unknown): Response {
  const known = asAppError(error);
  if (!known) {
    serverContext().log.error({ err: error }, 'unforeseen error');
    return Response.json(
      {
        error: {
          code: 'unforeseen',
          title: 'The server failed',
          message: 'Nothing was changed. Please try again.',
        },
      },
      { status: 500 },
    );
  }
  const { status, title } = ERROR_TABLE[known.code];
  const { code, message, details } = known;
  return Response.json({ error: { code, title, message, details } }, { status });
}

function asAppError(error: unknown): AppError | null {
  if (error instanceof AppError) return error;
  if (error instanceof z.ZodError) return new AppError('badInput', describeIssues(error));
  if (error instanceof Error && 'code' in error && isConnectionTrouble(String(error.code))) {
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

function isConnectionTrouble(code: string): boolean {
  return [
    'ECONNREFUSED',
    'ECONNRESET',
    'ETIMEDOUT',
    'PROTOCOL_CONNECTION_LOST',
    'ER_SERVER_SHUTDOWN',
  ].includes(code);
}
