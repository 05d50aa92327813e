/** What the worker does with a request: nothing, keep what never changes, or keep a page for when there is no network. */
type FetchPlan = 'pass' | 'asset' | 'page' | 'signOut';

/** Pages that are read standing at a machine, also where the air is bad. */
const KEPT_PAGES = [/^\/$/, /^\/wall$/, /^\/test-cuts$/, /^\/runs\/\d+$/, /^\/faults$/];

/**
 * What becomes of a request.
 *
 * @example planFetch({ method: 'GET', pathname: '/runs/3', isPage: true }) // 'page'
 */
export function planFetch({
  method,
  pathname,
  isPage,
}: {
  readonly method: string;
  readonly pathname: string;
  readonly isPage: boolean;
}): FetchPlan {
  if (method === 'DELETE' && pathname === '/api/sessions/current') return 'signOut';
  if (method !== 'GET') return 'pass';
  if (pathname.startsWith('/_astro/')) return 'asset';
  return isPage && KEPT_PAGES.some((page) => page.test(pathname)) ? 'page' : 'pass';
}

/** Whether a page may be kept: a whole one, and not one that led elsewhere, such as to signing in. */
export function isKeepable({ ok, redirected, type }: Pick<Response, 'ok' | 'redirected' | 'type'>): boolean {
  return ok && !redirected && type === 'basic';
}
