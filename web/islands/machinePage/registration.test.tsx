// @vitest-environment happy-dom
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { CARD_CORNERS } from '#core/sheet/marks/registrationCard.ts';
import { CardReadingForm } from '#web/islands/machinePage/CardReadingForm.tsx';
import { RegistrationPanel } from '#web/islands/machinePage/RegistrationPanel.tsx';
import type { RegistrationReply } from '#web/schemas/registration.ts';
import { sampleMachine } from '#web/tests/sampleBook.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const marked = { ...sampleMachine, marks: { ...sampleMachine.marks, scheme: 'fourCorners' as const } };
const habit: RegistrationReply = {
  sheets: [],
  isCorrected: false,
  error: { meanXMm: 0, meanYMm: 0, sdMm: 0.8, source: 'habit' },
};
const measured: RegistrationReply = {
  sheets: [
    {
      id: 31,
      shift: { x: 0.42, y: -0.27 },
      rotationRad: 0.00175,
      scale: 1.0008,
      restMm: 0.05,
      author: 'Ines',
      at: '2026-11-20T10:00:00.000Z',
    },
  ],
  isCorrected: false,
  error: { meanXMm: 0.42, meanYMm: -0.27, sdMm: 0.14, source: 'measured' },
};
const field = (corner: string, way: 'sideways' | 'up or down') =>
  screen.getByLabelText(`${corner}, ${way}, counted in ticks`);
const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep this reading' });
afterEach(cleanup);

describe('the reading of a card', () => {
  const type = async (last: string) => {
    const user = userEvent.setup();
    for (const corner of CARD_CORNERS) {
      await user.type(field(corner, 'sideways'), '4');
      await user.type(field(corner, 'up or down'), corner === CARD_CORNERS.at(-1) ? last : '-3');
    }
    return user;
  };

  it('is kept once every corner is read, in mm, with either sign of a minus and either point', async () => {
    const onKeep = vi.fn().mockResolvedValue(true);
    render(<CardReadingForm onKeep={onKeep} />);
    expect(keep().disabled).toBe(true);
    const user = await type('−2,5');
    await user.click(keep());
    const reading = onKeep.mock.calls[0]![0] as Record<string, { x: number; y: number }>;
    expect(Object.keys(reading)).toEqual([...CARD_CORNERS]);
    expect(reading[CARD_CORNERS[0]!]).toEqual({ x: 0.4, y: -0.3 });
    expect(reading[CARD_CORNERS.at(-1)!]).toEqual({ x: 0.4, y: -0.25 });
    await waitFor(() => expect((field(CARD_CORNERS[0]!, 'sideways') as HTMLInputElement).value).toBe(''));
  });

  it('waits while one is no number, and keeps what was typed when it was refused', async () => {
    const onKeep = vi.fn().mockResolvedValue(false);
    render(<CardReadingForm onKeep={onKeep} />);
    const user = await type('x');
    expect(keep().disabled).toBe(true);
    const last = field(CARD_CORNERS.at(-1)!, 'up or down');
    await user.clear(last);
    await user.type(last, '0');
    await user.click(keep());
    await waitFor(() => expect(keep().disabled).toBe(false));
    expect((last as HTMLInputElement).value).toBe('0');
  });
});

describe('where the cut lands on the print', () => {
  it('goes by the habit until a card is read, and is nothing for a machine without marks', () => {
    render(<RegistrationPanel machine={marked} registration={habit} />);
    expect(screen.getByText(/1\/16 inch on 19 sheets of 20/)).toBeTruthy();
    expect(screen.getByText('No sheet was read yet.')).toBeTruthy();
    expect(screen.queryByRole('checkbox')).toBeNull();
    cleanup();
    const bare = { ...marked, marks: { ...marked.marks, scheme: 'none' as const } };
    render(<RegistrationPanel machine={bare} registration={habit} />);
    expect(screen.getByText(/no registration marks/)).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('says the steady part with its side, what varies, and each sheet with its fit', () => {
    render(<RegistrationPanel machine={marked} registration={measured} />);
    expect(screen.getByRole('status').textContent).toBe(
      'Steady part 0.50 mm (0.4 mm to the right, 0.3 mm up); from sheet to sheet ± 0.14 mm.',
    );
    const cells = within(screen.getByRole('table'))
      .getAllByRole('cell')
      .map((cell) => cell.textContent);
    expect(cells.slice(1, 5)).toEqual(['+0.42 / −0.27', '0.10°', '0.08 %', '0.05']);
  });

  it('lets files correct the shift, and takes a sheet back', async () => {
    const corrected = {
      ...measured,
      isCorrected: true,
      error: { ...measured.error, meanXMm: 0.02, meanYMm: 0 },
    };
    const seen = stubServer({
      'PUT /api/machines/2/registration-correction': corrected,
      'DELETE /api/machines/2/registration-sheets/31': habit,
    });
    render(<RegistrationPanel machine={marked} registration={measured} />);
    const user = userEvent.setup();
    await user.click(screen.getByLabelText(/Files of this machine correct the shift/));
    expect(await screen.findByText(/after the correction/)).toBeTruthy();
    expect(seen[0]?.body).toEqual({ isOn: true });
    await user.click(screen.getByRole('button', { name: 'take back' }));
    expect(await screen.findByText('No sheet was read yet.')).toBeTruthy();
  });

  it('says why nothing was changed', async () => {
    stubServer({
      'POST /api/machines/2/registration-card': refusal(
        409,
        'Nothing loaded',
        'Load a printable sheet first.',
      ),
    });
    render(<RegistrationPanel machine={marked} registration={habit} />);
    await userEvent.click(screen.getByRole('button', { name: 'Make a card to print and cut' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/Load a printable sheet first/);
  });
});
