// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import type { Wait } from '#core/prep/waits.ts';
import { WaitsPanel } from '#web/islands/materialPage/WaitsPanel.tsx';
import type { WaitRouteReply } from '#web/schemas/day.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const ink = (minutes: number, source: Wait['source']): Wait => ({
  kind: 'inkDry',
  minutes,
  source,
  reason: 'wet ink drags',
});
const route = (kinds: WaitRouteReply['kinds'], isOwn = false) =>
  ({ conditionId: 11, condition: 'printed', kinds, isOwn }) as WaitRouteReply;
const show = (waits: readonly Wait[], routes: readonly WaitRouteReply[] = []) =>
  render(<WaitsPanel materialId={4} waits={waits} routes={routes} />);
const minutes = () => screen.getByLabelText('ink dries to the touch, minutes');
afterEach(cleanup);

describe('how long a material waits', () => {
  it('is what is usual until the maker says, and the maker’s word can be taken back', async () => {
    const seen = stubServer({
      'PUT /api/materials/4/waits': ({ body }: { body: { minutes: number | null } }) => [
        body.minutes === null ? ink(30, 'usual') : ink(body.minutes, 'maker'),
      ],
    });
    show([ink(30, 'usual')]);
    expect(screen.getByText('usual: wet ink drags')).toBeTruthy();
    fireEvent.change(minutes(), { target: { value: '75' } });
    fireEvent.blur(minutes());
    expect(await screen.findByText(/as said here/)).toBeTruthy();
    expect(seen[0]?.body).toEqual({ kind: 'inkDry', minutes: 75 });
    await userEvent.click(screen.getByRole('button', { name: 'back to usual' }));
    expect(await screen.findByText('usual: wet ink drags')).toBeTruthy();
    expect(seen[1]?.body).toEqual({ kind: 'inkDry', minutes: null });
  });

  it('says why a length was refused', async () => {
    stubServer({
      'PUT /api/materials/4/waits': refusal(400, 'That cannot be taken', 'minutes: at most 4320'),
    });
    show([ink(30, 'usual')]);
    fireEvent.change(minutes(), { target: { value: '9999' } });
    fireEvent.blur(minutes());
    expect((await screen.findByRole('alert')).textContent).toMatch(/at most 4320/);
  });
});

describe('the way to the blade', () => {
  it('gets waits at its end, loses them anywhere, and goes back to the usual one', async () => {
    const seen = stubServer({
      'PUT /api/materials/4/wait-routes/11': ({
        body,
      }: {
        body: { kinds: WaitRouteReply['kinds'] | null };
      }) => [body.kinds ? route(body.kinds, true) : route(['inkDry'])],
    });
    show([], [route(['inkDry'])]);
    const user = userEvent.setup();
    await user.selectOptions(screen.getByLabelText('Add a wait to printed'), 'sealerCoat');
    await screen.findByRole('button', { name: 'Take out: between coats of sealer' });
    await user.selectOptions(screen.getByLabelText('Add a wait to printed'), 'sealerCoat');
    await user.click(screen.getByRole('button', { name: 'Take out: ink dries to the touch' }));
    await user.click(await screen.findByRole('button', { name: 'back to usual' }));
    expect(seen.map(({ body }) => (body as { kinds: unknown }).kinds)).toEqual([
      ['inkDry', 'sealerCoat'],
      ['inkDry', 'sealerCoat', 'sealerCoat'],
      ['sealerCoat', 'sealerCoat'],
      null,
    ]);
    expect(screen.queryByRole('button', { name: 'back to usual' })).toBeNull();
  });

  it('says that a state waits for nothing', () => {
    show([], [route([])]);
    expect(within(screen.getAllByRole('list').at(-1)!).getByText('waits for nothing')).toBeTruthy();
  });
});
