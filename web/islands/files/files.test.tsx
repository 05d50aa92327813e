// @vitest-environment happy-dom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import { FilesView } from '#web/islands/files/FilesView.tsx';
import { refusal, stubServer, type SeenRequest } from '#web/tests/stubServer.ts';

const row = (index: number, status: string, reason = '') => ({
  kind: 'setting',
  line: index,
  what: `Setting ${index}`,
  status,
  detail: reason,
});
const reply = (isDryRun: boolean, rows: readonly object[]) => ({ isDryRun, rows });
const rows = [
  row(1, 'new'),
  row(2, 'same'),
  row(3, 'changed'),
  row(4, 'refused', 'force 900 is outside 10 to 500'),
];
const pick = (text: string, name = 'book.csv') =>
  userEvent.upload(screen.getByLabelText('Choose a file'), new File([text], name, { type: 'text/csv' }));
afterEach(cleanup);

describe('a file that is read in', () => {
  it('is first only looked at: what it would do stands row by row, then it is done', async () => {
    const seen = stubServer({
      'POST /api/book/import': ({ body }: SeenRequest) =>
        reply((body as { isDryRun: boolean }).isDryRun, rows),
    });
    render(<FilesView />);
    await pick('material;force\nGullpaper;62');
    expect(await screen.findByText('2 of 4 rows would change what is kept here.')).toBeTruthy();
    expect(screen.getByText('book.csv')).toBeTruthy();
    expect(seen[0]?.body).toEqual({ kind: 'csv', text: 'material;force\nGullpaper;62', isDryRun: true });
    expect(screen.getByText(/force 900 is outside 10 to 500/)).toBeTruthy();
    const only = within(screen.getByRole('group', { name: 'Show only' }));
    await userEvent.click(only.getByRole('button', { name: /refused/ }));
    expect(screen.queryByText(/^Setting 1/)).toBeNull();
    expect(screen.getByText(/^Setting 4/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Read 2 rows in' }));
    expect(await screen.findByText(/Done: 1 new, 1 changed/)).toBeTruthy();
    expect(seen[1]?.body).toMatchObject({ isDryRun: false });
  });

  it('is told by what it holds, not by what it is called', async () => {
    const seen = stubServer({ 'POST /api/book/import': reply(true, []) });
    render(<FilesView />);
    await pick('  {"materials": []}', 'settings.csv');
    expect(await screen.findByText('Nothing in it would change what is kept here.')).toBeTruthy();
    expect(seen[0]?.body).toMatchObject({ kind: 'json' });
  });

  it('is refused in words, and nothing of an older one stays on the screen', async () => {
    let isBad = false;
    stubServer({
      'POST /api/book/import': () =>
        isBad ? refusal(400, 'That cannot be taken', 'line 2: no such column') : reply(true, rows),
    });
    render(<FilesView />);
    await pick('good');
    await screen.findByText('2 of 4 rows would change what is kept here.');
    isBad = true;
    await pick('bad');
    expect((await screen.findByRole('alert')).textContent).toMatch(/line 2: no such column/);
    expect(screen.queryByText('2 of 4 rows would change what is kept here.')).toBeNull();
  });
});
