import type { Page } from 'playwright-core';

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
