import { describe, expect, it } from 'vitest';
import { NOBODY } from '#server/people/whoAsks.ts';
import { PLAIN_WRITING } from '#core/units/writing.ts';
import { PageCache, pageKey } from '#web/http/pageCache.ts';

/** A page is made when something changed, not each time that somebody looks. */
function begin() {
  const at = { count: 0, now: 0, made: 0 };
  const cache = new PageCache(
    () => at.count,
    () => at.now,
  );
  const page =
    (status = 200, type = 'text/html') =>
    async () => {
      at.made += 1;
      const number = at.made;
      await Promise.resolve();
      return new Response(`page ${number}`, { status, headers: { 'content-type': type } });
    };
  const ask = async (make = page(), key = 'bench') => (await cache.answer(key, make)).text();
  return { at, page, ask };
}

describe('pages', () => {
  it('are made once for all who ask before anything is written', async () => {
    const { at, ask } = begin();
    expect(await Promise.all([ask(), ask(), ask()])).toEqual(['page 1', 'page 1', 'page 1']);
    at.now = 500;
    expect(await ask()).toBe('page 1');
    at.count += 1;
    expect(await ask()).toBe('page 2');
    at.now = 5_000;
    expect(await ask()).toBe('page 3');
  });

  it('begun before a writing are not shown after it', async () => {
    const { at, ask, page } = begin();
    let finish = () => undefined as unknown;
    const slow = async () => {
      const made = await page()();
      await new Promise((resolve) => (finish = () => resolve(null)));
      return made;
    };
    const first = ask(slow);
    await new Promise((resolve) => setTimeout(resolve, 5));
    at.count += 1;
    expect(await ask()).toBe('page 2');
    finish();
    await first;
    expect(await ask()).not.toBe('page 1');
  });

  it('that are none, or were refused, are made for each', async () => {
    const { ask, page } = begin();
    expect(await ask(page(503))).toBe('page 1');
    expect(await ask(page(503))).toBe('page 2');
    expect(await ask(page(200, 'application/json'))).toBe('page 3');
    expect(await ask(page(200, 'application/json'))).toBe('page 4');
  });

  it('of two people, stations or units are two', () => {
    const url = new URL('http://x/settings?text=a');
    const key = (cookies: Record<string, string>) =>
      pageKey(url, PLAIN_WRITING, NOBODY, (name) => cookies[name]);
    const keys = [
      {},
      { feather_operator: 'a' },
      { feather_station: 'a' },
      { feather_units: 'a' },
      { feather_look: 'a' },
    ].map(key);
    expect(new Set(keys).size).toBe(5);
    expect(key({ other: '1' })).toBe(keys[0]);
  });
});
