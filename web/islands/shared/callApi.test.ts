import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { callApi } from '#web/islands/shared/callApi.ts';

/** A change is asked for until it is answered, under one key. */
const calls: { readonly method: string; readonly key: string | null }[] = [];
let answers: (number | 'lost')[] = [];

beforeEach(() => {
  calls.length = 0;
  vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 400 });
  vi.stubGlobal('fetch', (_: string, { method, headers }: RequestInit) => {
    calls.push({ method: method ?? '', key: new Headers(headers).get('idempotency-key') });
    const status = answers.shift() ?? 200;
    if (status === 'lost') return Promise.reject(new TypeError('lost'));
    const body = status < 300 ? { id: 7 } : { error: { code: 'x', title: 't', message: `m ${status}` } };
    return Promise.resolve(Response.json(body, { status }));
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const add = (name: string) => callApi('/api/materials', 'POST', { name });

describe('a change whose answer is lost', () => {
  it('is asked for again with the same key', async () => {
    answers = ['lost', 503, 201];
    expect(await add('Cod')).toEqual({ id: 7 });
    expect(calls).toHaveLength(3);
    expect(new Set(calls.map(({ key }) => key)).size).toBe(1);
  });

  it('keeps its key for the next press, and says that it is done once only', async () => {
    answers = ['lost', 'lost', 'lost'];
    await expect(add('Eel')).rejects.toThrow(/press again: it is done once only/);
    answers = [201];
    await add('Eel');
    await add('Eel');
    const keys = calls.map(({ key }) => key);
    expect(new Set(keys.slice(0, 4)).size).toBe(1);
    expect(keys[4]).not.toBe(keys[3]);
  });

  it('is not asked for again when it was refused', async () => {
    answers = [409];
    await expect(add('Ling')).rejects.toThrow('m 409');
    expect(calls).toHaveLength(1);
  });
});

it('reading carries no key and is asked once', async () => {
  answers = [503];
  await expect(callApi('/api/materials')).rejects.toThrow('m 503');
  expect(calls).toEqual([{ method: 'GET', key: null }]);
});
