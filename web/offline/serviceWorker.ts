/// <reference lib="webworker" />
import { isKeepable, planFetch } from '#web/offline/planFetch.ts';

declare const self: ServiceWorkerGlobalScope;

/** Keeps pages that are read at a machine for when there is no network, and what pages are made of. */
const PAGES = 'pages-1';
const ASSETS = 'assets-1';
/** When a page takes longer it is asked whether the workshop is there at all, ms. */
const PATIENCE_MS = 4_000;
/** A workshop that does not say so much as that it is there, ms, is out of reach. */
const SIGN_OF_LIFE_MS = 3_000;
/** What pages are made of is named by its content: old names are let go when there are so many. */
const MOST_ASSETS = 400;

self.addEventListener('install', (event) => event.waitUntil(self.skipWaiting()));
self.addEventListener('activate', (event) => event.waitUntil(takeOver()));

async function takeOver(): Promise<void> {
  for (const name of await caches.keys()) {
    if (name !== PAGES && name !== ASSETS) await caches.delete(name);
  }
  await self.clients.claim();
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  const isPage = request.mode === 'navigate';
  switch (planFetch({ method: request.method, pathname: url.pathname, isPage })) {
    case 'asset':
      event.respondWith(assetOf(request));
      return;
    case 'page':
      event.respondWith(pageOf(request));
      return;
    case 'signOut':
      // What somebody saw is not for the next one.
      event.waitUntil(caches.delete(PAGES));
      return;
    case 'pass':
  }
});

async function assetOf(request: Request): Promise<Response> {
  const cache = await caches.open(ASSETS);
  const kept = await cache.match(request);
  if (kept) return kept;
  const fresh = await fetch(request);
  if (fresh.ok) {
    await cache.put(request, fresh.clone());
    const names = await cache.keys();
    for (const old of names.slice(0, Math.max(0, names.length - MOST_ASSETS))) await cache.delete(old);
  }
  return fresh;
}

async function pageOf(request: Request): Promise<Response> {
  const cache = await caches.open(PAGES);
  const fresh = fetch(request).then(async (page) => {
    // The browser follows a redirect by itself; one to signing in ends what was kept.
    if (page.type === 'opaqueredirect' || page.status === 401) await caches.delete(PAGES);
    else if (isKeepable(page)) await cache.put(request, page.clone());
    return page;
  });
  const kept = await cache.match(request);
  if (!kept) return fresh;
  // A slow workshop is waited for: what is kept may be from before the last tap. One that is out of reach is not.
  const late = pause(PATIENCE_MS).then(async () => ((await isThere()) ? fresh : kept));
  return Promise.race([fresh, late]).catch(() => kept);
}

async function isThere(): Promise<boolean> {
  try {
    await fetch('/api/health', { cache: 'no-store', signal: AbortSignal.timeout(SIGN_OF_LIFE_MS) });
    return true;
  } catch {
    return false;
  }
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
