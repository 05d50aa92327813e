// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Layer } from '#core/stack/layer.ts';
import { LayerEditor } from '#web/islands/material/LayerEditor.tsx';
import { MaterialForm } from '#web/islands/material/MaterialForm.tsx';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const layers: readonly Layer[] = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: false },
  { role: 'liner', caliperUm: 140, isMeasured: false },
];
const assign = vi.fn();
beforeEach(() => {
  assign.mockClear();
  vi.spyOn(location, 'assign').mockImplementation(assign);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe('the layers of a sheet', () => {
  const show = (shown = layers, stackProblem?: string) => {
    const onChange = vi.fn();
    render(
      <LayerEditor
        layers={shown}
        densityKgPerM3={800}
        system="metric"
        problems={[]}
        stackProblem={stackProblem}
        onChange={onChange}
      />,
    );
    return onChange;
  };
  const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));
  const rolesOf = (onChange: ReturnType<typeof vi.fn>) =>
    (onChange.mock.lastCall![0] as readonly Layer[]).map(({ role }) => role);

  it('are moved, taken out and added on top, never off the ends and never all', async () => {
    const onChange = show();
    await press('Layer 2 up');
    expect(rolesOf(onChange)).toEqual(['adhesive', 'face', 'liner']);
    await press('Layer 2 down');
    expect(rolesOf(onChange)).toEqual(['face', 'liner', 'adhesive']);
    await press('Remove layer 1');
    expect(rolesOf(onChange)).toEqual(['adhesive', 'liner']);
    await press('Layer on top');
    expect(rolesOf(onChange)).toEqual(['laminate', 'face', 'adhesive', 'liner']);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Layer 1 up' }).disabled).toBe(true);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Layer 3 down' }).disabled).toBe(true);
    cleanup();
    show(layers.slice(0, 1));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove layer 1' }).disabled).toBe(true);
  });

  it('change one at a time: its role, and whether it was measured', async () => {
    const onChange = show();
    await userEvent.selectOptions(screen.getByLabelText('Layer 1 role'), 'ink or toner');
    expect(onChange.mock.lastCall![0]).toEqual([{ ...layers[0], role: 'ink' }, layers[1], layers[2]]);
    await userEvent.click(screen.getAllByLabelText('measured')[1]!);
    expect(onChange.mock.lastCall![0]).toEqual([layers[0], { ...layers[1], isMeasured: true }, layers[2]]);
  });

  it.each([
    ['90', 90, true],
    ['90 µm', 90, true],
    ['4 mil', 101.6, true],
    ['0.1 mm', 100, true],
  ])('take a caliper as people say it: %s', (typed, caliperUm, isMeasured) => {
    const onChange = show();
    const field = screen.getByLabelText('Layer 1 caliper');
    fireEvent.change(field, { target: { value: typed } });
    fireEvent.blur(field);
    const [first] = onChange.mock.lastCall![0] as readonly Layer[];
    expect(first!.caliperUm).toBeCloseTo(caliperUm, 6);
    expect(first!.isMeasured).toBe(isMeasured);
  });

  it('say what is wrong with them together', () => {
    show(layers, 'a liner lies below everything');
    expect(screen.getByText('a liner lies below everything')).toBeTruthy();
  });
});

describe('a new material', () => {
  const fill = async () => {
    const user = userEvent.setup();
    await user.type(screen.getByLabelText('Name on the pack'), 'Puffin matt');
    await user.type(screen.getByLabelText('Maker'), 'Oldstrand');
    await user.type(screen.getByLabelText('Finish'), 'matt');
    await user.type(screen.getByLabelText('Colour'), 'white');
    return user;
  };

  it('begins with the layers of its family, and with the name that was looked for', async () => {
    render(<MaterialForm name="Puffin" machineId={1} system="metric" />);
    expect(screen.getByLabelText<HTMLInputElement>('Name on the pack').value).toBe('Puffin');
    expect(screen.getAllByLabelText(/^Layer \d role$/)).toHaveLength(3);
    await userEvent.selectOptions(screen.getByLabelText('Family'), 'cardstock');
    expect(screen.getAllByLabelText(/^Layer \d role$/)).toHaveLength(1);
  });

  it('is kept, and laid on the machine one stands at', async () => {
    const seen = stubServer({
      'POST /api/materials': { id: 40 },
      'GET /api/materials': [{ id: 40, conditions: [{ id: 400 }] }],
      'PATCH /api/stations/1': {},
    });
    render(<MaterialForm name="" machineId={1} system="metric" />);
    await fill();
    await userEvent.click(screen.getByRole('button', { name: 'Keep it and load it here' }));
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/'));
    expect(seen[0]?.body).toMatchObject({ name: 'Puffin matt', maker: 'Oldstrand', finish: 'matt' });
    expect((seen[0]!.body as { stack: readonly Layer[] }).stack.map(({ role }) => role)).toEqual([
      'face',
      'adhesive',
      'liner',
    ]);
    expect(seen.at(-1)?.body).toEqual({ conditionId: 400, lot: '' });
  });

  it('is only kept where one stands nowhere', async () => {
    const seen = stubServer({ 'POST /api/materials': { id: 40 } });
    render(<MaterialForm name="" machineId={null} system="metric" />);
    await fill();
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(assign).toHaveBeenCalledWith('/'));
    expect(seen).toHaveLength(1);
  });

  it('keeps what was typed when it is refused, and sends nothing without a name', async () => {
    const seen = stubServer({
      'POST /api/materials': refusal(409, 'Changed meanwhile', 'There is a Puffin matt of Oldstrand.'),
    });
    render(<MaterialForm name="" machineId={null} system="metric" />);
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() =>
      expect(screen.getByLabelText('Name on the pack').getAttribute('aria-invalid')).toBe('true'),
    );
    expect(seen).toEqual([]);
    await fill();
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/There is a Puffin matt/);
    expect(screen.getByLabelText<HTMLInputElement>('Maker').value).toBe('Oldstrand');
  });
});
