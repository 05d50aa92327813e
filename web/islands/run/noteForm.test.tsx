// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Run } from '#core/run/run.ts';
import { NoteForm } from '#web/islands/run/NoteForm.tsx';
import { readNumber } from '#web/islands/run/NoteFacts.tsx';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const stroke = (operation: 'kiss' | 'perforated') => ({
  operation,
  isTab: false,
  contourId: 0,
  repeat: 0,
  points: [],
});
const run = (change: Partial<Run> = {}) =>
  ({
    id: 9,
    verdict: null,
    piecesGood: 8,
    piecesSpoiled: 0,
    note: '',
    flaws: [],
    sheetsUsed: 1,
    humidity: null,
    strokes: [stroke('kiss')],
    outcomes: [{ index: 0, spans: [] }],
    ...change,
  }) as unknown as Run;
const answers = (note: unknown) => ({ 'GET /api/runs/9/photos': [], 'PUT /api/runs/9/note': note });
const show = (shown = run(), onNoted = vi.fn()) => {
  render(<NoteForm run={shown} onNoted={onNoted} />);
  return onNoted;
};
afterEach(cleanup);

describe('a number as it is typed', () => {
  it.each([
    ['', null],
    ['  ', null],
    ['0', 0],
    ['1,5', 1.5],
    [' -0.3 ', -0.3],
  ])('%j is %j', (text, wanted) => {
    expect(readNumber(text)).toBe(wanted);
  });

  it('is no number where it is none, so that the form can say so', () => {
    expect(readNumber('damp')).toBeNaN();
  });
});

describe('noting a run', () => {
  it('sends what was tapped and typed, and says where to go on', async () => {
    const noted = run({ verdict: 'someSpoiled' });
    const seen = stubServer(answers(noted));
    const onNoted = show();
    const user = userEvent.setup();
    await user.click(screen.getByText('Some spoiled'));
    await user.clear(screen.getByLabelText('Pieces spoiled'));
    await user.type(screen.getByLabelText('Pieces spoiled'), '2');
    await user.click(screen.getByLabelText('fuzzy edge'));
    await user.type(screen.getByLabelText('Note, if you like'), 'gull 3 hung');
    await user.type(screen.getByLabelText('Damp of the room, %'), '62,5');
    await user.type(screen.getByLabelText('Cut lies right of print, mm'), '-0.4');
    await user.click(screen.getByRole('button', { name: 'Note it' }));
    await waitFor(() => expect(onNoted).toHaveBeenCalledWith(noted));
    expect(seen.find(({ method }) => method === 'PUT')?.body).toEqual({
      verdict: 'someSpoiled',
      // The one that was cut, as nobody said otherwise.
      piecesGood: 1,
      piecesSpoiled: 2,
      note: 'gull 3 hung',
      flaws: ['fuzzy'],
      sheetsUsed: 1,
      humidity: 62.5,
      tabsHeld: null,
      shift: { x: -0.4, y: 0 },
    });
    expect(screen.getByRole('status').textContent).toMatch(/Noted.*See the Log/);
    expect(screen.getByRole('button', { name: 'Note it again' })).toBeTruthy();
  });

  it('asks for a verdict before anything is sent', async () => {
    const seen = stubServer(answers(run()));
    show();
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    expect(await screen.findByText('Choose one of the three.')).toBeTruthy();
    expect(seen.filter(({ method }) => method === 'PUT')).toEqual([]);
  });

  it('marks what is no number, and sends nothing', async () => {
    const seen = stubServer(answers(run()));
    show();
    const user = userEvent.setup();
    await user.click(screen.getByText('Clean'));
    await user.type(screen.getByLabelText('Damp of the room, %'), 'damp');
    await user.click(screen.getByRole('button', { name: 'Note it' }));
    await waitFor(() =>
      expect(screen.getByLabelText('Damp of the room, %').getAttribute('aria-invalid')).toBe('true'),
    );
    expect(seen.filter(({ method }) => method === 'PUT')).toEqual([]);
  });

  it('asks how tabs held only where there were some, and takes the answer back on a second tap', async () => {
    stubServer(answers(run()));
    show();
    expect(screen.queryByText('How did the pieces hold at their tabs?')).toBeNull();
    cleanup();
    show(run({ strokes: [stroke('kiss'), stroke('perforated')] as unknown as Run['strokes'] }));
    const right = screen.getByRole('button', { name: /right/i });
    await userEvent.click(right);
    expect(right.getAttribute('aria-pressed')).toBe('true');
    await userEvent.click(right);
    expect(right.getAttribute('aria-pressed')).toBe('false');
  });

  it('keeps what was typed when the server refuses, with its words', async () => {
    stubServer(answers(refusal(409, 'Not yet', 'The run is still going.')));
    const onNoted = show();
    const user = userEvent.setup();
    await user.click(screen.getByText('Failed'));
    await user.type(screen.getByLabelText('Note, if you like'), 'all of it');
    await user.click(screen.getByRole('button', { name: 'Note it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/Not yet.*still going/);
    expect((screen.getByLabelText('Note, if you like') as HTMLTextAreaElement).value).toBe('all of it');
    expect(onNoted).not.toHaveBeenCalled();
  });
});
