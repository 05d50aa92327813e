// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { LogKind } from '#core/job/logKinds.ts';
import { LogTable } from '#web/islands/log/LogTable.tsx';
import { writeScope, type ShownScope } from '#web/islands/log/useLog.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const whole: ShownScope = { from: '', to: '', machine: '', material: '', kind: '' };
const entry = (id: string, kind: LogKind, what: string, detail = '') => ({
  id,
  kind,
  at: '2026-11-20T10:00:00.000Z',
  what,
  detail,
  author: 'Ines',
  link: kind === 'run' ? `/runs/${id}` : null,
});
const all = [
  entry('1', 'run', 'Gulls on Gannet 600', 'clean: 8 good'),
  entry('2', 'testCut', 'Test cut for kiss: force 90, clean'),
  entry('3', 'upkeep', 'Blade no. 7 cleaned'),
];
const show = (change: Partial<Parameters<typeof LogTable>[0]> = {}) =>
  render(
    <LogTable
      entries={all}
      scope={whole}
      machines={[{ id: 2, name: 'Gannet 600' }]}
      materials={[{ id: 4, name: 'Herringglass matt' }]}
      {...change}
    />,
  );
const rows = () =>
  within(screen.getByRole('region', { name: 'Log entries' }))
    .getAllByRole('row')
    .slice(1);

beforeEach(() => history.replaceState(null, '', '/log'));
afterEach(cleanup);

describe('the part of the log in an address', () => {
  it('holds only what was asked for, and nothing for the whole', () => {
    expect(writeScope(whole)).toBe('');
    expect(writeScope({ ...whole, machine: '2', kind: 'run' })).toBe('?machine=2&kind=run');
    expect(writeScope({ ...whole, from: '2026-01-01', to: '2026-01-31' })).toBe(
      '?from=2026-01-01&to=2026-01-31',
    );
  });
});

describe('the log', () => {
  it('shows everything once, with a way to what has a page', () => {
    stubServer({});
    show();
    expect(rows()).toHaveLength(3);
    expect(screen.getByRole('link', { name: 'Gulls on Gannet 600' }).getAttribute('href')).toBe('/runs/1');
  });

  it('is narrowed by words without asking the server', async () => {
    const seen = stubServer({});
    show();
    await userEvent.type(screen.getByPlaceholderText('Narrow by any word'), 'BLADE');
    expect(rows()).toHaveLength(1);
    await userEvent.type(screen.getByPlaceholderText('Narrow by any word'), ' of gold');
    expect(screen.getByText('Nothing in the log matches.')).toBeTruthy();
    expect(seen).toEqual([]);
  });

  it('asks for a kind, a machine and days, keeps them in the address and in the files, and lets go of them', async () => {
    const seen = stubServer({ 'GET /api/log': [all[0]] });
    show();
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Runs' }));
    await waitFor(() => expect(rows()).toHaveLength(1));
    expect(seen.at(-1)?.path).toBe('/api/log?kind=run');
    await user.selectOptions(screen.getByLabelText('Machine'), 'Gannet 600');
    await waitFor(() => expect(seen.at(-1)?.path).toBe('/api/log?machine=2&kind=run'));
    await user.type(screen.getByLabelText('From'), '2026-11-01');
    await waitFor(() => expect(location.search).toBe('?from=2026-11-01&machine=2&kind=run'));
    expect(screen.getByRole('link', { name: 'CSV' }).getAttribute('href')).toBe(
      '/api/log.csv?from=2026-11-01&machine=2&kind=run',
    );
    expect(screen.getByRole('link', { name: 'JSON' }).getAttribute('href')).toBe(
      '/api/log?from=2026-11-01&machine=2&kind=run&limit=1000',
    );
    await user.click(screen.getByRole('button', { name: 'Show all again' }));
    expect(location.search).toBe('?kind=run');
    await user.click(screen.getByRole('button', { name: 'Runs' }));
    expect(location.search).toBe('');
    await waitFor(() => expect(rows()).toHaveLength(3));
  });

  it('says what the server refuses, and keeps what was shown', async () => {
    stubServer({ 'GET /api/log': refusal(400, 'That cannot be', 'The first day is later than the last.') });
    show();
    await userEvent.selectOptions(screen.getByLabelText('Material'), 'Herringglass matt');
    expect((await screen.findByRole('alert')).textContent).toMatch(/later than the last/);
    expect(rows()).toHaveLength(3);
  });

  it('tells an empty log from a part with nothing in it, and where the newest end', async () => {
    stubServer({});
    show({ entries: [] });
    expect(screen.getByText('Nothing has happened yet.')).toBeTruthy();
    cleanup();
    show({ entries: [], scope: { ...whole, machine: '2' } });
    expect(screen.getByText('Nothing in the log matches.')).toBeTruthy();
    cleanup();
    show({ entries: Array.from({ length: 300 }, (_, at) => entry(`x${at}`, 'upkeep', `Entry ${at}`)) });
    expect(rows()).toHaveLength(60);
    await userEvent.click(screen.getByRole('button', { name: 'Show 240 older entries' }));
    expect(rows()).toHaveLength(300);
    expect(screen.getByText(/The newest 300 are shown/)).toBeTruthy();
  });
});
