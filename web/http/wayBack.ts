const HERE = 'http://here';

/**
 * Where a page leads back to: a path of this application, never another site.
 *
 * @example wayBack('//evil.example') // '/'
 */
export function wayBack(asked: string | null): string {
  if (!asked?.startsWith('/')) return '/';
  try {
    const { origin, pathname, search } = new URL(asked, HERE);
    return origin === HERE ? pathname + search : '/';
  } catch {
    return '/';
  }
}
