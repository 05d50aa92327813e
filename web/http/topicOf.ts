/** Kinds of things that several people may look at, as addresses name them. */
const KINDS = ['jobs', 'dial-ins', 'runs', 'stations', 'materials', 'machines', 'settings'] as const;

/** What a topic is made of. */
export const TOPIC = new RegExp(`^(${KINDS.join('|')})/[1-9]\\d{0,9}$`);

/** A page names itself by this header, so that it is not told of its own changes. */
export const PAGE_HEADER = 'x-feather-page';
/** The name of a page: chosen by itself. */
export const PAGE = /^[\w-]{1,40}$/;

/**
 * What a change at an address is about, for whoever looks at it.
 *
 * @example topicOf('/api/jobs/3/drawings/2') // 'jobs/3'
 */
export function topicOf(pathname: string): string | null {
  const topic = pathname.split('/').slice(2, 4).join('/');
  return pathname.startsWith('/api/') && TOPIC.test(topic) ? topic : null;
}

/** The page that asks, or empty. */
export function pageOf(headers: Headers): string {
  const page = headers.get(PAGE_HEADER) ?? '';
  return PAGE.test(page) ? page : '';
}
