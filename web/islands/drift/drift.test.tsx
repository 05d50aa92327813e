// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import { DriftPanel } from '#web/islands/drift/DriftPanel.tsx';
import type { DriftReply } from '#web/schemas/drift.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const point = (day: number, residual: number) => ({
  at: `2026-11-${String(day).padStart(2, '0')}T09:00:00.000Z`,
  residual,
  mean: residual / 2,
  sheet: 'Gullpaper',
  bladeMetres: 100 + day,
});
const quiet: DriftReply = {
  points: [point(1, 0.2), point(2, -0.4), point(3, 0.1), point(4, 0)],
  limit: 1.2,
  lambda: 0.3,
  alarm: null,
  blade: {
    number: 3,
    metres: 104,
    lowMetres: 120.4,
    highMetres: 300.6,
    advice: 'good',
    reason: 'it is young',
    changes: 1,
    freshFactor: 0.93,
  },
};
const alarmed: DriftReply = {
  ...quiet,
  alarm: {
    direction: 'more',
    began: '2026-11-03T09:00:00.000Z',
    causes: [
      { cause: 'bladeWorn', chance: 0.62, reason: 'it is at 340 m' },
      { cause: 'damp', chance: 0.2, reason: 'the room was at 71 %' },
    ],
  },
  blade: { ...quiet.blade!, advice: 'change', reason: 'cleaning did not help', changes: 0 },
};
const show = (answers: Readonly<Record<string, unknown>>) => {
  const seen = stubServer(answers);
  render(<DriftPanel machineId={2} machineName="Dunlin desk" />);
  return seen;
};
afterEach(cleanup);

describe('drift of a machine', () => {
  it('is quiet while cuts go as expected, with the life that is left to the blade', async () => {
    show({ 'GET /api/machines/2/drift': quiet });
    expect(screen.getByRole('status').textContent).toMatch(/Comparing cuts/);
    expect(await screen.findByText(/Quiet: the last 4 graded cuts/)).toBeTruthy();
    expect(screen.getByRole('region', { name: 'Drift on Dunlin desk' }).textContent).toMatch(
      /Blade no\. 3 is good: it is young\. It has 120 to 301 m left, 8 times in 10 \(learnt from 1 change here\)\. A fresh one would want 7 % less force/,
    );
    expect(screen.getByRole('figure', { name: /4 graded cuts, quiet/ })).toBeTruthy();
  });

  it('says before there is anything to chart what it waits for', async () => {
    show({ 'GET /api/machines/2/drift': { ...quiet, points: [], blade: null } });
    expect(await screen.findByText(/begins with the fourth graded cut/)).toBeTruthy();
    expect(screen.queryByText(/Quiet/)).toBeNull();
  });

  it('names the causes of an alarm with their chances, and begins anew with what was done', async () => {
    const seen = show({
      'GET /api/machines/2/drift': alarmed,
      'POST /api/machines/2/drift/answer': quiet,
    });
    const alarm = await screen.findByRole('alert');
    expect(alarm.textContent).toMatch(/Since 3 Nov cuts need more force than expected/);
    expect(alarm.textContent).toMatch(/62 %the blade is worn: it is at 340 m.*20 %a damp room/);
    expect(screen.getByText(/change it/)).toBeTruthy();
    expect(screen.getByText(/as usual for its kind/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Blade changed' }));
    expect(seen.at(-1)).toEqual({
      method: 'POST',
      path: '/api/machines/2/drift/answer',
      body: { why: 'Blade changed' },
    });
    expect(await screen.findByText(/Quiet/)).toBeTruthy();
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says why it cannot tell', async () => {
    show({ 'GET /api/machines/2/drift': refusal(404, 'Not there', 'There is no such machine.') });
    expect((await screen.findByRole('alert')).textContent).toMatch(/no such machine/);
    expect(screen.queryByRole('status')).toBeNull();
  });
});
