import { AsyncLocalStorage } from 'node:async_hooks';
import { defineMiddleware } from 'astro:middleware';
import { AppError } from '#core/errors/appError.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { serverContext } from '#server/serverContext.ts';
import { PageCache, pageKey } from '#web/http/pageCache.ts';
import { asAppError, replyToError } from '#web/http/replyToError.ts';
import { secureHeaders } from '#web/http/secureHeaders.ts';
import { unitsOf } from '#web/http/unitsOf.ts';
import { troublePage } from '#web/http/troublePage.ts';
import { workshopZone } from '#web/http/workshopZone.ts';
import { setServerZone } from '#web/islands/shared/formatTime.ts';
import { setServerSystem } from '#web/islands/shared/units.ts';
import { prepareBench } from '#web/pageData/prepareBench.ts';
import { warmPool } from '#web/workers/pool.ts';
import { watchSoon } from '#web/workers/refitKnowledge.ts';

warmPool();
prepareBench(serverContext());
watchSoon(serverContext());

/** In which units a page is written, for as long as it is: pages are written many at a time. */
const units = new AsyncLocalStorage<UnitSystem>();
setServerSystem(() => units.getStore() ?? 'metric');

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
const pages = new PageCache(() => serverContext().countWrites());

/** Checks where changes come from, keeps pages that are still right, and has every answer be one, with its headers. */
export const onRequest = defineMiddleware(async ({ request, url, cookies, locals }, next) => {
  const start = performance.now();
  const isPage = request.method === 'GET' && !url.pathname.startsWith('/api/');
  const system = unitsOf(cookies);
  const make = () => (isPage ? units.run(system, () => answerPage(next, locals)) : answer(next));
  const response = isForeign(request, url)
    ? replyToError(new AppError('wrongOrigin', 'Changes are only taken from the application itself.'))
    : await (isPage
        ? pages.answer(
            pageKey(url, (name) => cookies.get(name)?.value),
            make,
          )
        : make());
  secureHeaders(response.headers);
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

/** A page whole, or a page that says why there is none. */
async function answerPage(next: () => Promise<Response>, locals: App.Locals): Promise<Response> {
  try {
    // Before anything is written: parts of a page are written before its frame has read what it needs.
    locals.timeZone = await workshopZone(serverContext().store);
    setServerZone(locals.timeZone);
    const response = await next();
    if (!response.headers.get('content-type')?.startsWith('text/html')) return response;
    // What breaks while a page is written would else cut it off in the middle.
    return new Response(await response.text(), { status: response.status, headers: response.headers });
  } catch (error) {
    const known = asAppError(error);
    if (!known) serverContext().log.error({ err: error }, 'a page could not be made');
    return troublePage(known ?? new AppError('unforeseen', 'Nothing was changed. Please try again.'));
  }
}

/** A browser names the origin of every change; a script on this machine names none. */
function isForeign(request: Request, url: URL): boolean {
  if (!CHANGES.has(request.method)) return false;
  if (request.headers.get('sec-fetch-site') === 'cross-site') return true;
  const origin = request.headers.get('origin');
  return origin !== null && origin !== `http://${request.headers.get('host') ?? url.host}`;
}
