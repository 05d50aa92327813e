import type { Page, Request } from 'playwright-core';

/**
 * Waits until every island answers to keys and clicks. Astro takes its own mark away when it has asked React to
 * hydrate, which React then does in its own time; only the properties React hangs on an element tell that it did.
 */
export async function settle(page: Page): Promise<void> {
  await page.waitForFunction(() =>
    [...document.querySelectorAll('astro-island')].every((island) => {
      const first = island.firstElementChild;
      const isHydrated = !first || Object.keys(first).some((key) => key.startsWith('__reactProps'));
      return isHydrated && !island.hasAttribute('ssr');
    }),
  );
}

/** What each page is still fetching; lines on which it is told of changes never end and do not count. */
const fetching = new WeakMap<Page, Set<Request>>();
const QUIET_MS = 500;

/** Watches what a page fetches, from now on. */
export function watchFetching(page: Page): Set<Request> {
  const known = fetching.get(page);
  if (known) return known;
  const open = new Set<Request>();
  fetching.set(page, open);
  page.on('request', (request) => request.resourceType() !== 'eventsource' && open.add(request));
  page.on('requestfinished', (request) => open.delete(request));
  page.on('requestfailed', (request) => open.delete(request));
  page.on('framenavigated', (frame) => frame === page.mainFrame() && open.clear());
  return open;
}

/** Waits until a page has fetched nothing for half a second. */
export async function fallQuiet(page: Page): Promise<void> {
  const open = watchFetching(page);
  await page.waitForLoadState('load');
  for (let since = Date.now(); Date.now() - since < QUIET_MS;) {
    await page.waitForTimeout(50);
    if (open.size > 0) since = Date.now();
  }
}
