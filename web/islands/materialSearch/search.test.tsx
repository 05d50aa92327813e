// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MaterialSearch } from '#web/islands/materialSearch/MaterialSearch.tsx';
import { offersOf } from '#web/islands/materialSearch/offersOf.ts';
import type { LookupHit } from '#web/schemas/lookup.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const hit = (materialId: number, name: string, change: Partial<LookupHit> = {}): LookupHit => ({
  materialId,
  name,
  maker: 'Oldstrand',
  family: 'printableVinyl',
  colourHex: '#ffffff',
  met: [],
  missed: [],
  isStateAsked: false,
  states: [
    { conditionId: materialId * 10, kind: 'bare', answers: [] },
    { conditionId: materialId * 10 + 1, kind: 'laminated', answers: [] },
  ],
  ...change,
});
const met = (field: LookupHit['met'][number]['field'], term: string) => [{ typed: term, term, field }];

describe('what was found, as things to load', () => {
  it('is one for a material, or one for each state where that changes the answer', () => {
    expect(offersOf([hit(1, 'Gullpaper')]).map(({ conditionId, name }) => [conditionId, name])).toEqual([
      [10, 'Gullpaper'],
    ]);
    expect(offersOf([hit(1, 'Gullpaper', { isStateAsked: true })]).map(({ name }) => name)).toEqual([
      'Gullpaper',
      'Gullpaper, laminated',
    ]);
  });

  it('takes a state that was typed at its word', () => {
    const typed = hit(1, 'Gullpaper', { isStateAsked: true, met: met('state', 'laminated') });
    expect(offersOf([typed]).map(({ conditionId }) => conditionId)).toEqual([11]);
  });

  it('says where the words were found', () => {
    expect(offersOf([hit(1, 'Gullpaper', { met: met('lot', '26-B') })])[0]?.why).toBe('lot “26-B”');
    expect(offersOf([hit(1, 'Gullpaper', { missed: ['90'] })])[0]?.why).toBe('without “90”');
  });
});

describe('the search field', () => {
  const assign = vi.fn();
  beforeEach(() => {
    assign.mockClear();
    vi.spyOn(location, 'assign').mockImplementation(assign);
  });
  afterEach(() => {
    cleanup();
    vi.restoreAllMocks();
  });
  const box = () => screen.getByRole('combobox');
  const chosen = () =>
    screen.getAllByRole('option').findIndex((one) => one.getAttribute('aria-selected') === 'true');

  it('is reached with a slash from anywhere but a field', () => {
    stubServer({ 'GET /api/lookup': { hits: [] } });
    render(
      <>
        <input aria-label="other" />
        <MaterialSearch machineId={1} />
      </>,
    );
    screen.getByLabelText('other').focus();
    fireEvent.keyDown(screen.getByLabelText('other'), { key: '/' });
    expect(document.activeElement).toBe(screen.getByLabelText('other'));
    fireEvent.keyDown(document.body, { key: '/' });
    expect(document.activeElement).toBe(box());
  });

  it('walks the list with the arrows, never off its ends, and loads with Enter', async () => {
    const seen = stubServer({
      'GET /api/lookup': { hits: [hit(1, 'Gullpaper'), hit(2, 'Herringglass', { met: met('lot', '26-B') })] },
      'PATCH /api/stations/1': {},
    });
    render(<MaterialSearch machineId={1} />);
    const user = userEvent.setup();
    await user.type(box(), '26');
    await waitFor(() => expect(screen.getAllByRole('option')).toHaveLength(2));
    expect(chosen()).toBe(0);
    await user.keyboard('{ArrowUp}');
    expect(chosen()).toBe(0);
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(chosen()).toBe(1);
    expect(box().getAttribute('aria-activedescendant')).toBe('found-1');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/'));
    expect(seen.at(-1)).toEqual({
      method: 'PATCH',
      path: '/api/stations/1',
      body: { conditionId: 20, lotNamed: '26-B' },
    });
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('listbox')).toBeNull();
  });

  it('never shows the answer to an older text for a newer one', async () => {
    const waiting = new Map<string, (reply: unknown) => void>();
    stubServer({
      'GET /api/lookup': ({ path }: { path: string }) =>
        new Promise((resolve) =>
          waiting.set(new URL(path, 'http://x').searchParams.get('text') ?? '', resolve),
        ),
    });
    render(<MaterialSearch machineId={1} />);
    const user = userEvent.setup();
    await user.type(box(), 'gu');
    await waitFor(() => expect(waiting.has('gu')).toBe(true));
    await user.type(box(), 'll');
    await waitFor(() => expect(waiting.has('gull')).toBe(true));
    waiting.get('gull')!({ hits: [hit(1, 'Gullpaper')] });
    await screen.findByText('Gullpaper');
    waiting.get('gu')!({ hits: [hit(2, 'Guillemot card')] });
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(screen.queryByText('Guillemot card')).toBeNull();
  });

  it('loads with an Enter that came before the answer, once the answer is there', async () => {
    const waiting = new Map<string, (reply: unknown) => void>();
    const seen = stubServer({
      'GET /api/lookup': ({ path }: { path: string }) =>
        new Promise((resolve) =>
          waiting.set(new URL(path, 'http://x').searchParams.get('text') ?? '', resolve),
        ),
      'PATCH /api/stations/1': {},
    });
    render(<MaterialSearch machineId={1} />);
    const user = userEvent.setup();
    await user.type(box(), 'g');
    await waitFor(() => expect(waiting.has('g')).toBe(true));
    waiting.get('g')!({ hits: [hit(2, 'Guillemot card'), hit(1, 'Gullpaper')] });
    await screen.findByText('Gullpaper');
    await user.type(box(), 'ull{ArrowDown}{Enter}');
    await waitFor(() => expect(waiting.has('gull')).toBe(true));
    expect(seen.some(({ method }) => method === 'PATCH')).toBe(false);
    waiting.get('gull')!({ hits: [hit(1, 'Gullpaper')] });
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/'));
    expect(seen.at(-1)).toMatchObject({ method: 'PATCH', body: { conditionId: 10 } });
  });

  it('says that nothing has that name, offers to add it, and says why when it cannot look', async () => {
    stubServer({ 'GET /api/lookup': { hits: [] } });
    render(<MaterialSearch machineId={null} />);
    await userEvent.type(box(), 'puffin & co');
    expect(await screen.findByText('Nothing here has that name.')).toBeTruthy();
    expect(screen.getByRole('link', { name: /Add a new material/ }).getAttribute('href')).toBe(
      '/materials/new?name=puffin%20%26%20co',
    );
    cleanup();
    stubServer({ 'GET /api/lookup': refusal(503, 'No answer', 'The store is away.') });
    render(<MaterialSearch machineId={null} />);
    await userEvent.type(box(), 'x');
    expect((await screen.findByRole('alert')).textContent).toMatch(/The store is away/);
  });
});
