// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Timer } from '#store/repositories/jobs/waits.ts';
import { WaitSlot } from '#web/islands/stationRail/WaitSlot.tsx';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const NOW = new Date('2026-11-20T10:00:00.000Z');
const timer = (id: number, minutes: number, words = `wait ${id}`) =>
  ({ id, words, endsAt: new Date(NOW.getTime() + minutes * 60_000).toISOString() }) as unknown as Timer;
const pass = (minutes: number) => act(() => vi.advanceTimersByTimeAsync(minutes * 60_000));
const slot = () => screen.getByRole('button', { name: /^Waits/ });

beforeEach(() => vi.useFakeTimers({ now: NOW }));
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe('waits on the rail', () => {
  it('say that there is none, and offer to start one', async () => {
    render(<WaitSlot className="" timers={[]} materialId={null} />);
    await pass(0);
    expect(slot().textContent).toBe('Waitsnonestart one');
  });

  it.each([
    [30, '30 min left'],
    [89, '89 min left'],
    [90, '1 h 30 min left'],
    [240, '4 h 0 min left'],
  ])('count %i minutes as "%s"', async (minutes, words) => {
    render(<WaitSlot className="" timers={[timer(1, minutes)]} materialId={4} />);
    await pass(0);
    expect(slot().textContent).toContain(words);
  });

  it('count down, ring when they are over, and stay until somebody clears them', async () => {
    const seen = stubServer({ 'POST /api/timers/1/clear': [] });
    render(<WaitSlot className="" timers={[timer(1, 2, 'Gulls: ink dries')]} materialId={4} />);
    await pass(0);
    expect(screen.queryByRole('alert')).toBeNull();
    await pass(1);
    expect(slot().textContent).toContain('1 min left');
    await pass(1.1);
    expect(screen.getByRole('alert').textContent).toContain('Over: Gulls: ink dries');
    await pass(60);
    expect(screen.getByRole('alert')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Clear' }));
    await pass(0);
    expect(seen.map(({ path }) => path)).toEqual(['/api/timers/1/clear']);
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('are started for what is loaded, and say why not', async () => {
    const seen = stubServer({ 'POST /api/timers': refusal(400, 'Nothing loaded', 'Load a sheet first.') });
    render(<WaitSlot className="" timers={[]} materialId={4} />);
    fireEvent.click(slot());
    await pass(0);
    fireEvent.click(screen.getByRole('button', { name: 'laminate settles' }));
    await pass(0);
    expect(seen[0]?.body).toEqual({ kind: 'laminateSettles', materialId: 4 });
    expect(screen.getByText(/Load a sheet first/)).toBeTruthy();
  });
});
