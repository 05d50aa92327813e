// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Station } from '#core/station/station.ts';
import type { GoingRun } from '#store/repositories/runs/goingRuns.ts';
import { StationRail } from '#web/islands/stationRail/StationRail.tsx';
import { sampleBlade, sampleMachine, sampleMaterial, sampleStation } from '#web/tests/sampleBook.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const other = { ...sampleMachine, id: 5, name: 'Dunlin desk', kind: 'matFed' as const };
const blades = [
  sampleBlade,
  { ...sampleBlade, id: 4, number: 8, fittedTo: 5, travelMetres: 12 },
  { ...sampleBlade, id: 6, number: 9, retiredAt: '2026-11-01T09:00:00.000Z' },
];
const reload = vi.fn();
beforeEach(() => {
  reload.mockClear();
  vi.spyOn(location, 'reload').mockImplementation(reload);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});
const show = (station: Station | null = sampleStation(), running: readonly Partial<GoingRun>[] = []) =>
  render(
    <StationRail
      machines={[sampleMachine, other]}
      station={station}
      shelf={{ blades, mats: [] }}
      operator="Ines"
      by="demo"
      people={['Ines', 'Tove']}
      running={running as readonly GoingRun[]}
      timers={[]}
    />,
  );
const open = (label: RegExp) => userEvent.click(screen.getByRole('button', { name: label }));

describe('the station rail', () => {
  it('shows machine, blade, what lies there and who stands there', () => {
    show();
    const said = screen.getByRole('complementary', { name: 'Station' }).textContent;
    expect(said).toMatch(/Gannet 600.*No\. 7, 45° fine.*none on a roll.*Herringglass matt.*Ines/);
  });

  it('says what is missing where nothing is', () => {
    show(null);
    const said = screen.getByRole('complementary', { name: 'Station' }).textContent;
    expect(said).toMatch(/none.*add a machine.*none set.*nothing: search for it/);
  });

  it('offers the blades that are not retired with where they are, and fits the one that is tapped', async () => {
    const seen = stubServer({ 'PATCH /api/stations/2': {} });
    show();
    await open(/^Blade/);
    const items = (await screen.findAllByRole('menuitem')).map((item) => item.textContent);
    expect(items).toEqual([
      'No. 7, 45° fine205 of about 360 m · in it now',
      'No. 8, 45° fine12 of about 360 m · in Dunlin desk',
    ]);
    await userEvent.click(screen.getByRole('menuitem', { name: /No\. 8/ }));
    await waitFor(() => expect(reload).toHaveBeenCalled());
    expect(seen).toEqual([{ method: 'PATCH', path: '/api/stations/2', body: { bladeId: 4 } }]);
  });

  it('says why a change was refused, and reads nothing anew', async () => {
    stubServer({ 'PATCH /api/stations/2': refusal(409, 'Not now', 'A run is going on this machine.') });
    show();
    await open(/^Blade/);
    await userEvent.click(await screen.findByRole('menuitem', { name: /No\. 8/ }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/A run is going/);
    expect(reload).not.toHaveBeenCalled();
  });

  it('offers the colours of a make, its own first', async () => {
    const seen = stubServer({ 'PATCH /api/stations/2': {} });
    show(sampleStation({ material: sampleMaterial }));
    await open(/^Colour|^Lot, colour/);
    expect((await screen.findAllByRole('menuitem')).map((item) => item.textContent)).toEqual([
      'white',
      'navy',
    ]);
    await userEvent.click(screen.getByRole('menuitem', { name: 'navy' }));
    await waitFor(() => expect(seen[0]?.body).toEqual({ colour: 'navy' }));
  });

  it('moves to another machine, and remembers who signs', async () => {
    show();
    await open(/^Station/);
    await userEvent.click(await screen.findByRole('menuitem', { name: /Dunlin desk/ }));
    expect(document.cookie).toContain('feather_station=5');
    await open(/^At the bench/);
    await userEvent.click(await screen.findByRole('menuitem', { name: 'Tove' }));
    expect(document.cookie).toContain('feather_operator=Tove');
  });

  it.each([
    ['cutting', 'Cutting now'],
    ['waiting', 'Waiting for hands'],
    ['held', 'Held: look at it'],
    ['looking', 'Cut: look at it'],
  ] as const)('leads to a run that is %s', (state, words) => {
    show(sampleStation(), [{ id: 77, jobName: 'Gulls', state }]);
    const link = screen.getByRole('link', { name: /Gulls$/ });
    expect(link.textContent).toBe(`${words}Gulls`);
    expect(link.getAttribute('href')).toBe('/runs/77');
  });

  it('leads to the search for another sheet', () => {
    render(<input id="material-search" aria-label="search" />);
    show();
    fireEvent.click(screen.getByRole('link', { name: /Loaded · change/ }));
    expect(document.activeElement).toBe(screen.getByLabelText('search'));
  });
});
