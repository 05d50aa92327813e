// @vitest-environment happy-dom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Run } from '#core/run/run.ts';
import { useRun } from '#web/islands/run/useRun.ts';
import { refusal, StubEvents, stubServer } from '#web/tests/stubServer.ts';

const run = (change: Partial<Run> = {}) =>
  ({ id: 5, state: 'cutting', message: '', strokes: [], outcomes: [], ...change }) as unknown as Run;
const outcome = (index: number) => ({ index, spans: [{ from: 0, to: 1, grade: 3 as const }] });
const settle = () => act(() => new Promise((resolve) => setTimeout(resolve, 0)));
/** The line on which the run is told of; what other pages change comes over another. */
const events = () => StubEvents.last('/api/runs/5/events')!;

beforeEach(() => vi.stubGlobal('EventSource', StubEvents));
afterEach(cleanup);

describe('a run that is watched', () => {
  it('follows what it is told: the head, strokes in any order, each once, and states', async () => {
    stubServer({ 'GET /api/runs/5': run() });
    const { result } = renderHook(() => useRun(run()));
    expect(events().address).toBe('/api/runs/5/events');
    act(() => events().onopen?.());
    await settle();
    act(() => {
      events().tell({ kind: 'position', x: 4, y: 7, stroke: 0 });
      events().tell({ kind: 'stroke', index: 1, spans: [] });
      events().tell({ kind: 'stroke', index: 0, spans: [] });
      events().tell({ kind: 'stroke', index: 1, spans: [] });
    });
    expect(result.current.head).toEqual({ x: 4, y: 7 });
    expect(result.current.run.outcomes.map(({ index }) => index)).toEqual([0, 1]);
    act(() => events().tell({ kind: 'state', state: 'waiting', message: 'turn the blade' }));
    expect(result.current.run).toMatchObject({ state: 'waiting', message: 'turn the blade' });
  });

  it('is not thrown back by an answer that was on its way while more was told', async () => {
    let answer: (run: Run) => void = () => undefined;
    stubServer({ 'GET /api/runs/5': new Promise((resolve) => (answer = resolve)) });
    const { result } = renderHook(() => useRun(run()));
    act(() => events().onopen?.());
    act(() => events().tell({ kind: 'stroke', index: 3, spans: [] }));
    act(() => events().tell({ kind: 'state', state: 'looking', message: '' }));
    answer(run({ state: 'cutting', outcomes: [outcome(0), outcome(1)] }));
    await settle();
    expect(result.current.run.state).toBe('looking');
    expect(result.current.run.outcomes.map(({ index }) => index)).toEqual([0, 1, 3]);
  });

  it('takes what it reads after a lost link over what was told before it', async () => {
    stubServer({ 'GET /api/runs/5': run({ state: 'held', message: 'jam', outcomes: [outcome(0)] }) });
    const { result } = renderHook(() => useRun(run()));
    act(() => events().tell({ kind: 'state', state: 'paused', message: '' }));
    act(() => events().onerror?.());
    expect(result.current.isLinked).toBe(false);
    act(() => events().onopen?.());
    await settle();
    expect(result.current.isLinked).toBe(true);
    expect(result.current.run).toMatchObject({ state: 'held', message: 'jam' });
  });

  it('is watched no longer once it is over', () => {
    stubServer({ 'GET /api/runs/5': run() });
    renderHook(() => useRun(run()));
    const watched = events();
    act(() => watched.tell({ kind: 'state', state: 'done', message: '' }));
    expect(watched.isClosed).toBe(true);
    expect(events()).toBe(watched);
  });

  it('gives orders, says why one was refused, and reads the strokes that a repeat brings', async () => {
    const seen = stubServer({
      'GET /api/runs/5': run({ state: 'cutting', outcomes: [outcome(7)] }),
      'POST /api/runs/5/pause': refusal(409, 'Not now', 'The run is held.'),
      'POST /api/runs/5/repeat': { isDone: true },
    });
    const { result } = renderHook(() => useRun(run()));
    act(() => result.current.order('pause', { isPaused: true }));
    await settle();
    expect(seen.at(-1)).toEqual({ method: 'POST', path: '/api/runs/5/pause', body: { isPaused: true } });
    expect((result.current.error as Error).message).toBe('The run is held.');
    act(() => result.current.order('repeat', { operation: 'kiss' }));
    await settle();
    expect(result.current.error).toBeNull();
    expect(result.current.run.outcomes.map(({ index }) => index)).toEqual([7]);
  });
});
