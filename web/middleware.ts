import { defineMiddleware } from 'astro:middleware';
import { AppError } from '#core/errors/appError.ts';
import { serverContext } from '#server/serverContext.ts';
import { replyToError } from '#web/endpoints/replyToError.ts';
import { warmPool } from '#web/workers/pool.ts';

warmPool();

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
const POLICY = [
  "default-src 'self'",
  "img-src 'self' data: blob:",
  "style-src 'self' 'unsafe-inline'",
  "script-src 'self' 'unsafe-inline'",
  "frame-ancestors 'none'",
  "base-uri 'none'",
  "form-action 'self'",
].join('; ');

/** Checks where changes come from, logs every answer and sets the headers that every page needs. */
export const onRequest = defineMiddleware(async ({ request, url }, next) => {
  const start = performance.now();
  const response = isForeign(request, url)
    ? replyToError(new AppError('wrongOrigin', 'Changes are only taken from the application itself.'))
    : await answer(next);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  if (response.headers.get('content-type')?.startsWith('text/html')) {
    response.headers.set('content-security-policy', POLICY);
  }
  const milliseconds = Math.round(performance.now() - start);
  const { log } = serverContext();
  log.info({ method: request.method, path: url.pathname, status: response.status, milliseconds }, 'request');
  return response;
});

async function answer(next: () => Promise<Response>): Promise<Response> {
  try {
    return await next();
  } catch (error) {
    return replyToError(error);
  }
}

/** A browser names the origin of every change; a script on this machine names none. */
function isForeign(request: Request, url: URL): boolean {
  if (!CHANGES.has(request.method)) return false;
  if (request.headers.get('sec-fetch-site') === 'cross-site') return true;
  const origin = request.headers.get('origin');
  return origin !== null && origin !== `http://${request.headers.get('host') ?? url.host}`;
}
