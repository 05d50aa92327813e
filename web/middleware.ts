import type { APIContext } from 'astro';
import { AsyncLocalStorage } from 'node:async_hooks';
import { defineMiddleware } from 'astro:middleware';
import { AppError } from '#core/errors/appError.ts';
import { PLAIN_WRITING } from '#core/units/writing.ts';
import type { ServerContext } from '#server/context/context.ts';
import { isOwned } from '#server/people/isOwned.ts';
import type { Who } from '#server/people/whoAsks.ts';
import { serverContext } from '#server/serverContext.ts';
import { PageCache, pageKey } from '#web/http/pageCache.ts';
import { identify } from '#web/http/identify.ts';
import { asAppError, replyToError } from '#web/http/replyToError.ts';
import { secureHeaders } from '#web/http/secureHeaders.ts';
import { originOf } from '#web/http/whereAsked.ts';
import { unitsOf, writingOfBrowser } from '#web/http/unitsOf.ts';
import { troublePage } from '#web/http/troublePage.ts';
import { workshopZone } from '#web/http/workshopZone.ts';
import { setServerZone } from '#web/islands/shared/formatTime.ts';
import { setServerManner, type Manner } from '#web/islands/shared/units.ts';
import { prepareBench } from '#web/pageData/prepareBench.ts';
import { warmPool } from '#web/workers/pool.ts';
import { watchSoon } from '#web/workers/refitKnowledge.ts';

warmPool();
prepareBench(serverContext());
watchSoon(serverContext());

/** In which units, and how, a page is written, for as long as it is: pages are written many at a time. */
const manners = new AsyncLocalStorage<Manner>();
setServerManner(() => manners.getStore() ?? { system: 'metric', writing: PLAIN_WRITING });

/** Pages that show nothing of the workshop. */
const OPEN_PAGES = new Set(['/sign-in', '/first-owner', '/on-a-phone', '/404']);

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
const pages = new PageCache(() => serverContext().countWrites());

/** Checks who asks and where changes come from, keeps pages that are still right, and has every answer be one. */
export const onRequest = defineMiddleware(async (api, next) => {
  const start = performance.now();
  const response = await respond(api, next);
  secureHeaders(response.headers);
  const milliseconds = Math.round(performance.now() - start);
  const { method } = api.request;
  const { log } = serverContext();
  log.info({ method, path: api.url.pathname, status: response.status, milliseconds }, 'request');
  return response;
});

async function respond(api: APIContext, next: () => Promise<Response>): Promise<Response> {
  const { request, url, cookies, locals } = api;
  if (isForeign(request, url)) {
    return replyToError(new AppError('wrongOrigin', 'Changes are only taken from the application itself.'));
  }
  const isPage = request.method === 'GET' && !url.pathname.startsWith('/api/');
  try {
    const server = serverContext();
    const who = await identify(api, server);
    locals.who = who;
    if (!isPage) return await answer(next);
    const gate = await gateOf(url, who, server);
    if (gate) return gate;
    const manner = { system: unitsOf(cookies), writing: writingOfBrowser(cookies, request.headers) };
    const make = () => manners.run(manner, () => answerPage(next, locals));
    // Doors are made anew for each who comes: they set nothing aside for another.
    if (OPEN_PAGES.has(url.pathname)) return await make();
    const key = pageKey(url, manner.writing, who, (name) => cookies.get(name)?.value);
    return await pages.answer(key, make);
  } catch (error) {
    return isPage ? troubleOf(error) : replyToError(error);
  }
}

/** Where the browser is sent first: to name an owner, or to sign in. `null` where the page may be seen. */
async function gateOf(url: URL, who: Who, { store, isOpenDemo }: ServerContext): Promise<Response | null> {
  if (OPEN_PAGES.has(url.pathname) || who.role !== 'nobody') return null;
  const to = isOpenDemo || (await isOwned(store)) ? '/sign-in' : '/first-owner';
  const back = url.pathname === '/' ? '' : `?to=${encodeURIComponent(url.pathname + url.search)}`;
  return new Response(null, { status: 303, headers: { location: to + back } });
}

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
    return troubleOf(error);
  }
}

function troubleOf(error: unknown): Response {
  const known = asAppError(error);
  if (!known) serverContext().log.error({ err: error }, 'a page could not be made');
  return troublePage(known ?? new AppError('unforeseen', 'Nothing was changed. Please try again.'));
}

/** A browser names the origin of every change; a script on this machine names none. */
function isForeign(request: Request, url: URL): boolean {
  if (!CHANGES.has(request.method)) return false;
  if (request.headers.get('sec-fetch-site') === 'cross-site') return true;
  const origin = request.headers.get('origin');
  return origin !== null && origin !== originOf(request, url);
}
