import { LRUCache } from 'lru-cache';
import type { Who } from '#server/people/whoAsks.ts';
import type { Writing } from '#core/units/writing.ts';

/** A page as it was made. */
interface KeptPage {
  readonly body: string;
  readonly headers: readonly (readonly [string, string])[];
  /** How much had been written when its making began. */
  readonly count: number;
  readonly madeAt: number;
}

/** What another process writes, and what the clock changes, shows after so long at the latest, ms. */
const FRESH_MS = 700;
const MOST_CHARACTERS = 24_000_000;
/** Cookies that change what a page shows. */
const TELLING = [
  'feather_operator',
  'feather_station',
  'feather_units',
  'feather_look',
  'feather_writing',
] as const;

/**
 * Pages as they were last made. Whoever asks for the same page before anything was written gets the same one; while it
 * is made, all wait for one making.
 */
export class PageCache {
  private readonly pages = new LRUCache<string, KeptPage>({
    maxSize: MOST_CHARACTERS,
    sizeCalculation: ({ body }) => body.length + 1,
  });
  private readonly making = new Map<string, Promise<KeptPage | Response>>();

  /**
   * @param countWrites how much was written so far
   * @param now ms
   */
  constructor(
    private readonly countWrites: () => number,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** The page for a key, made when none is fresh. Only whole pages of status 200 are kept. */
  async answer(key: string, make: () => Promise<Response>): Promise<Response> {
    const kept = this.pages.get(key);
    if (kept && kept.count === this.countWrites() && this.now() - kept.madeAt < FRESH_MS) return reply(kept);
    const count = this.countWrites();
    const shared = `${count} ${key}`;
    const going = this.making.get(shared);
    const page = going ?? this.make(key, count, make);
    if (!going) {
      this.making.set(shared, page);
      const done = () => this.making.delete(shared);
      page.then(done, done);
    }
    const made = await page;
    if (!(made instanceof Response)) return reply(made);
    // What is no page of status 200 is made for each who asks.
    return going ? make() : made;
  }

  private async make(
    key: string,
    count: number,
    make: () => Promise<Response>,
  ): Promise<KeptPage | Response> {
    const madeAt = this.now();
    const response = await make();
    if (response.status !== 200 || !response.headers.get('content-type')?.startsWith('text/html')) {
      return response;
    }
    const page = { body: await response.text(), headers: [...response.headers], count, madeAt };
    this.pages.set(key, page);
    return page;
  }
}

function reply({ body, headers }: KeptPage): Response {
  return new Response(body, { headers: headers.map(([name, value]): [string, string] => [name, value]) });
}

/** What tells one page from another: its address, how it is written, and who asks for it where. */
export function pageKey(
  { pathname, search }: URL,
  { mark, isMonthFirst }: Writing,
  { name, role, by }: Pick<Who, 'name' | 'role' | 'by'>,
  cookie: (name: string) => string | undefined,
): string {
  return JSON.stringify([
    pathname,
    search,
    mark,
    isMonthFirst,
    name,
    role,
    by,
    ...TELLING.map((name) => cookie(name) ?? ''),
  ]);
}
