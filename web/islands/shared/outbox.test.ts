import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nameLater, sendInOrder, threadOf, type KeptWish } from '#web/islands/shared/outbox.ts';
import { isKeepable, planFetch } from '#web/offline/planFetch.ts';

const wish = (id: number, path: string, refusal: string | null = null): KeptWish => ({
  id,
  key: `key-${id}`,
  method: 'POST',
  path,
  text: '{}',
  at: '2026-11-29T08:00:00.000Z',
  refusal,
});

/** Sends with given answers; tells what was tried and how it was settled. */
async function sent(wishes: readonly KeptWish[], answer: (wish: KeptWish) => string | null) {
  const tried: number[] = [];
  const settled: (readonly [number, string])[] = [];
  const done = await sendInOrder(
    wishes,
    (one) => {
      tried.push(one.id);
      return Promise.resolve(answer(one));
    },
    (one, refusal) => Promise.resolve(void settled.push([one.id, refusal])),
  );
  return { tried, settled, done };
}

describe('what is sent when the network is back', () => {
  const wishes = [
    wish(1, '/api/dial-ins/3/grades'),
    wish(2, '/api/runs/9/note'),
    wish(3, '/api/dial-ins/3/grades'),
  ];

  it('goes in order, each once', async () => {
    expect(await sent(wishes, () => '')).toEqual({
      tried: [1, 2, 3],
      settled: [
        [1, ''],
        [2, ''],
        [3, ''],
      ],
      done: 3,
    });
  });

  it('stops where the network goes again, and leaves the rest waiting', async () => {
    expect(await sent(wishes, ({ id }) => (id === 2 ? null : ''))).toEqual({
      tried: [1, 2],
      settled: [[1, '']],
      done: 1,
    });
  });

  it('holds back what belongs to a refused one, and nothing else', async () => {
    const { tried, settled } = await sent(wishes, ({ id }) => (id === 1 ? 'closed' : ''));
    expect(tried).toEqual([1, 2]);
    expect(settled).toEqual([
      [1, 'closed'],
      [2, ''],
    ]);
    const later = [wish(1, '/api/dial-ins/3/grades', 'closed'), ...wishes.slice(1)];
    expect((await sent(later, () => '')).tried).toEqual([2]);
  });

  it('never overtakes within one thing and never sends twice, whatever is answered (300 seeded queues)', async () => {
    const answers = fc.constantFrom('', 'no', null);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 3 }), answers), { maxLength: 12 }),
        async (queue) => {
          const all = queue.map(([thing], id) => wish(id, `/api/dial-ins/${thing}/grades`));
          const { tried, settled } = await sent(all, ({ id }) => queue[id]?.[1] ?? null);
          expect(tried).toEqual([...new Set(tried)].sort((a, b) => a - b));
          const refused = new Set<string>();
          for (const [id, refusal] of settled) {
            const thread = threadOf(all[id]?.path ?? '');
            expect(refused.has(thread)).toBe(false);
            if (refusal !== '') refused.add(thread);
          }
        },
      ),
      { seed: 20, numRuns: 300 },
    );
  });
});

describe('what may wait', () => {
  it.each([
    ['POST', '/api/dial-ins/3/grades', 'a grade'],
    ['PUT', '/api/runs/9/note', 'a note'],
    ['POST', '/api/timers/4/clear', 'a wait'],
    ['POST', '/api/runs/9/stop', null],
    ['POST', '/api/jobs/4/runs', null],
    ['PATCH', '/api/jobs/4', null],
    ['POST', '/api/dial-ins/3/keep', null],
    ['POST', '/api/sessions', null],
  ])('%s %s: %s', (method, path, name) => {
    expect(nameLater(method, path)).toBe(name);
  });
});

describe('the worker', () => {
  it.each([
    ['GET', '/', true, 'page'],
    ['GET', '/test-cuts', true, 'page'],
    ['GET', '/runs/12', true, 'page'],
    ['GET', '/workshop', true, 'pass'],
    ['GET', '/sign-in', true, 'pass'],
    ['GET', '/', false, 'pass'],
    ['GET', '/api/dial-ins/3', false, 'pass'],
    ['GET', '/_astro/hoisted.abc.js', false, 'asset'],
    ['POST', '/_astro/hoisted.abc.js', false, 'pass'],
    ['DELETE', '/api/sessions/current', false, 'signOut'],
  ])('%s %s (a page: %s): %s', (method, pathname, isPage, plan) => {
    expect(planFetch({ method, pathname, isPage })).toBe(plan);
  });

  it('keeps whole pages alone, never one that led elsewhere', () => {
    expect(isKeepable({ ok: true, redirected: false, type: 'basic' })).toBe(true);
    expect(isKeepable({ ok: true, redirected: true, type: 'basic' })).toBe(false);
    expect(isKeepable({ ok: false, redirected: false, type: 'basic' })).toBe(false);
  });
});
