// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import { BookView } from '#web/islands/settings/BookView.tsx';
import { sampleSetting } from '#web/tests/sampleBook.ts';
import { refusal, stubServer, type SeenRequest } from '#web/tests/stubServer.ts';

const two = [sampleSetting(), sampleSetting({ id: 8, material: 'Gullpaper', state: 'doubted' })];
const page = (settings = two, next: string | null = null) => ({ settings, total: settings.length, next });
const show = (answers: Readonly<Record<string, unknown>>) => {
  const seen = stubServer(answers);
  render(<BookView first={page()} text="" machines={[{ id: 2, name: 'Gannet 600' }]} />);
  return seen;
};
const choose = (name: RegExp) => userEvent.click(screen.getAllByRole('checkbox', { name }).at(0)!);
const bar = () => within(screen.getByRole('toolbar', { name: 'Chosen settings' }));
const queryOf = ({ path }: SeenRequest) => Object.fromEntries(new URL(path, 'http://x').searchParams);
afterEach(cleanup);

describe('the book', () => {
  it('shows what it was given without asking, and narrows by asking', async () => {
    const seen = show({ 'GET /api/settings': page([two[1]!]) });
    expect(screen.getByRole('status').textContent).toBe('2 shown');
    expect(seen).toEqual([]);
    await userEvent.selectOptions(screen.getByLabelText('State'), 'doubted');
    await waitFor(() => expect(screen.getByRole('status').textContent).toBe('1 shown'));
    expect(queryOf(seen.at(-1)!)).toEqual({ state: 'doubted', isArchived: 'false' });
    await userEvent.selectOptions(screen.getByLabelText('Machine'), 'Gannet 600');
    await waitFor(() => expect(queryOf(seen.at(-1)!)).toMatchObject({ machineId: '2', state: 'doubted' }));
  });

  it('says why it could not be narrowed', async () => {
    show({
      'GET /api/settings': refusal(503, 'The database cannot be reached', 'The database does not answer.'),
    });
    await userEvent.click(screen.getByLabelText('put away'));
    expect((await screen.findByRole('alert')).textContent).toMatch(/does not answer/);
  });
});

describe('settings that were chosen', () => {
  it('are counted, compared and printed together, and let go', async () => {
    show({});
    expect(screen.queryByRole('toolbar')).toBeNull();
    await choose(/Herringglass/);
    await choose(/Gullpaper/);
    expect(bar().getByText('2 chosen')).toBeTruthy();
    expect(bar().getByRole('link', { name: 'Compare' }).getAttribute('href')).toBe('/compare?ids=7,8');
    expect(bar().getByRole('link', { name: 'Bench labels' }).getAttribute('href')).toBe(
      '/api/labels?ids=7,8',
    );
    await choose(/Gullpaper/);
    expect(bar().getByText('1 chosen')).toBeTruthy();
    await userEvent.click(bar().getByRole('button', { name: 'Choose none' }));
    expect(screen.queryByRole('toolbar')).toBeNull();
  });

  it('are locked at once, say which were left and why, and are unlocked again', async () => {
    const seen = show({
      'GET /api/settings': page(),
      'POST /api/settings/bulk': { done: [7], refused: [{ id: 8, reason: 'it is put away' }] },
    });
    await choose(/Herringglass/);
    await choose(/Gullpaper/);
    await userEvent.click(bar().getByRole('button', { name: 'Lock' }));
    expect(await screen.findByText(/1 locked\./)).toBeTruthy();
    expect(screen.getByText(/1 left as they were: it is put away/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
    const bulk = () => seen.filter(({ method }) => method === 'POST').map(({ body }) => body);
    await waitFor(() =>
      expect(bulk()).toEqual([
        { action: 'lock', ids: [7, 8] },
        { action: 'unlock', ids: [7] },
      ]),
    );
  });

  it('get a value all at once, as new revisions that have no undo', async () => {
    const seen = show({
      'GET /api/settings': page(),
      'POST /api/settings/bulk': { done: [7], refused: [] },
    });
    await choose(/Herringglass/);
    const set = bar().getByRole<HTMLButtonElement>('button', { name: 'Set for all' });
    expect(set.disabled).toBe(true);
    await userEvent.selectOptions(bar().getByLabelText('Field to set'), 'passes');
    await userEvent.type(bar().getByLabelText('New value'), '2{Enter}');
    expect(await screen.findByText(/1 changed, each as a new revision/)).toBeTruthy();
    expect(seen.find(({ method }) => method === 'POST')?.body).toEqual({
      action: 'set',
      ids: [7],
      field: 'passes',
      value: 2,
    });
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull();
  });
});
