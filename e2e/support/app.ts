import { gzipSync } from 'node:zlib';
import {
  chromium,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
  type Response,
  type Route,
} from 'playwright-core';
import { inject } from 'vitest';
import { fallQuiet, settle, watchFetching } from '#e2e/support/settle.ts';
import { mine } from '#store/tests/mine.ts';

export { mine, settle };

/** Where the application under test answers. */
export const ADDRESS = mine('FEATHER_TEST_ADDRESS');

export const BENCH_SIZE = { width: 1280, height: 800 };
export const PHONE_SIZE = { width: 390, height: 844 };

/** A person at a browser of their own: signed, standing at a machine, every page error remembered. */
export interface Visitor {
  readonly context: BrowserContext;
  readonly page: Page;
  readonly errors: string[];
  leave(): Promise<void>;
}

let browser: Promise<Browser> | undefined;

/** The browser that all journeys share; each visitor has a context of their own in it. */
function joinBrowser(): Promise<Browser> {
  return (browser ??= chromium.connect(inject('browserAddress')));
}

/** Leaves the shared browser at the end of a file. */
export async function leaveBrowser(): Promise<void> {
  const left = browser;
  browser = undefined;
  await (await left)?.close();
}

/** @param serviceWorkers `allow`: pages are kept for when there is no network, and may come from there */
export async function visit(
  name: string,
  machineId = 1,
  size = BENCH_SIZE,
  serviceWorkers: 'allow' | 'block' = 'block',
): Promise<Visitor> {
  const context = await (
    await joinBrowser()
  ).newContext({ viewport: size, acceptDownloads: true, locale: 'en-GB', serviceWorkers });
  await context.addCookies([
    { name: 'feather_operator', value: name, url: ADDRESS },
    { name: 'feather_station', value: String(machineId), url: ADDRESS },
  ]);
  const page = await context.newPage();
  watchFetching(page);
  // The first pages of a new browser and a new server, two of each on two cores, take longest.
  page.setDefaultTimeout(45_000);
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  return { context, page, errors, leave: () => context.close() };
}

/** From now on a visitor is told of nothing that others change, as in a corner where the air is bad. */
export function hearNothing({ page }: Visitor): Promise<unknown> {
  return page.route(/\/api\/events\?/, (route) => route.abort());
}

/**
 * From now on what a visitor reads again of an address is on its way, and does not come before it is let through.
 *
 * @returns lets it through, and all that follows
 */
export async function holdReads({ page }: Visitor, address: string): Promise<() => Promise<void>> {
  const held: Route[] = [];
  const hold = (route: Route) =>
    route.request().method() === 'GET' ? void held.push(route) : route.continue();
  await page.route(address, hold);
  return async () => {
    await page.unroute(address, hold);
    await Promise.all(held.map((route) => route.continue()));
  };
}

/** So often a page is opened when another one comes in between. */
const MOST_TRIES = 4;

/** Opens a page and waits until its islands answer. */
export async function go(page: Page, path: string): Promise<void> {
  const address = `${ADDRESS}${path}`;
  for (let tries = 1; ; tries++) {
    try {
      await page.goto(address, { waitUntil: 'load' });
      break;
    } catch (error) {
      // The page before was still reading itself anew after a change, and its own navigation came in between.
      const isInterrupted = /interrupted by another navigation|ERR_ABORTED/.test(String(error));
      if (!isInterrupted || tries === MOST_TRIES) throw error;
      await page.waitForLoadState('load');
      if (page.url() === address) break;
    }
  }
  await settle(page);
}

/** Says of everything that stops a job on its last step that it may go nevertheless, as whoever knows better does. */
export async function acceptAll(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Send to/ }).waitFor();
  for (const box of await page.getByRole('checkbox', { name: /send it anyway/ }).all()) await box.check();
}

/** Presses what leads to another page, and waits until that page's islands answer. */
export async function follow(page: Page, link: Locator, to: RegExp): Promise<void> {
  await link.click();
  await arrive(page, to);
}

/** Waits until the browser stands at another page and its islands answer. */
export async function arrive(page: Page, at: RegExp): Promise<void> {
  await page.waitForURL((url) => at.test(url.pathname), { waitUntil: 'load' });
  await settle(page);
}

/** Presses what changes the book, and waits until the change is answered. */
export async function press(page: Page, button: Locator, answeredBy: RegExp): Promise<void> {
  const answered = page.waitForResponse(
    (response) => response.request().method() !== 'GET' && answeredBy.test(new URL(response.url()).pathname),
  );
  await button.click();
  await answered;
}

/** Calls the HTTP interface as a script would. */
export async function api<Reply>(
  path: string,
  method = 'GET',
  body?: unknown,
): Promise<{ status: number; reply: Reply }> {
  const response = await fetch(`${ADDRESS}${path}`, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const text = await response.text();
  return {
    status: response.status,
    reply: (text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text) as Reply,
  };
}

/** What a story needs before it begins. Refused, it says so here, and not as a missing button at the end. */
export async function setUp<Reply>(path: string, method: string, body: unknown): Promise<Reply> {
  const { status, reply } = await api<Reply>(path, method, body);
  if (status >= 300) throw new Error(`${method} ${path} answered ${status}: ${JSON.stringify(reply)}`);
  return reply;
}

/** The gzipped size of all scripts that a page loads at first, in kB. */
export async function weighScripts(page: Page, path: string): Promise<number> {
  const scripts: Response[] = [];
  const hear = (response: Response) => {
    if (response.request().resourceType() === 'script') scripts.push(response);
  };
  page.on('response', hear);
  await page.goto(`${ADDRESS}${path}`, { waitUntil: 'load' });
  await fallQuiet(page);
  // What comes later is not loaded at first, and its page may be gone before it is read.
  page.off('response', hear);
  const bodies = await Promise.all(scripts.map((script) => script.body()));
  return bodies.reduce((sum, body) => sum + gzipSync(body, { level: 9 }).length, 0) / 1000;
}
