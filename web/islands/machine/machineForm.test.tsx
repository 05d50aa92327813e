// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MachineForm } from '#web/islands/machine/MachineForm.tsx';
import { sampleMachine } from '#web/tests/sampleBook.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const assign = vi.fn();
const reload = vi.fn();
beforeEach(() => {
  assign.mockClear();
  reload.mockClear();
  vi.spyOn(location, 'assign').mockImplementation(assign);
  vi.spyOn(location, 'reload').mockImplementation(reload);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});
const keep = (name: RegExp) => userEvent.click(screen.getByRole('button', { name }));

describe('a new machine', () => {
  it('asks for what it is called before anything is sent', async () => {
    const seen = stubServer({});
    render(<MachineForm machine={null} />);
    await keep(/Keep it and work at it/);
    await waitFor(() =>
      expect(screen.getByLabelText('What you call it').getAttribute('aria-invalid')).toBe('true'),
    );
    expect(seen).toEqual([]);
  });

  it('is kept with what was typed, and one stands there from then on', async () => {
    const seen = stubServer({ 'POST /api/machines': { id: 12 } });
    render(<MachineForm machine={null} />);
    const user = userEvent.setup();
    await user.type(screen.getByLabelText('What you call it'), 'Turnstone');
    await user.selectOptions(screen.getByLabelText('Whose force and speed count'), 'panel');
    await keep(/Keep it and work at it/);
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/'));
    expect(seen[0]?.body).toMatchObject({
      name: 'Turnstone',
      numbersOwner: 'panel',
      forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1 },
      link: { kind: 'none' },
    });
    expect(document.cookie).toContain('feather_station=12');
  });

  it('keeps what was typed when the server refuses', async () => {
    stubServer({
      'POST /api/machines': refusal(409, 'Changed meanwhile', 'There is a machine of this name.'),
    });
    render(<MachineForm machine={null} />);
    await userEvent.type(screen.getByLabelText('What you call it'), 'Gannet 600');
    await keep(/Keep it and work at it/);
    expect((await screen.findByRole('alert')).textContent).toMatch(/There is a machine of this name/);
    expect(screen.getByLabelText<HTMLInputElement>('What you call it').value).toBe('Gannet 600');
    expect(assign).not.toHaveBeenCalled();
  });
});

describe('a machine that is there', () => {
  it('is changed on the version that was seen, and read anew', async () => {
    const seen = stubServer({ 'PUT /api/machines/2': {} });
    render(<MachineForm machine={sampleMachine} />);
    const rim = screen.getByLabelText<HTMLInputElement>('Rim it cannot reach, mm');
    expect(rim.value).toBe('10');
    await userEvent.clear(rim);
    await userEvent.type(rim, '12.5');
    await keep(/Keep the changes/);
    await waitFor(() => expect(reload).toHaveBeenCalled());
    expect(seen[0]?.body).toMatchObject({ version: 1, marginMm: 12.5, name: 'Gannet 600' });
  });

  it('does not send a rim below nothing', async () => {
    const seen = stubServer({});
    render(<MachineForm machine={sampleMachine} />);
    const rim = screen.getByLabelText('Rim it cannot reach, mm');
    await userEvent.clear(rim);
    await userEvent.type(rim, '-3');
    await keep(/Keep the changes/);
    await waitFor(() => expect(rim.getAttribute('aria-invalid')).toBe('true'));
    expect(seen).toEqual([]);
  });
});
