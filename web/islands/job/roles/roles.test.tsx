// @vitest-environment happy-dom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ShownGroup } from '#core/job/describeLayout.ts';
import { RolesPanel } from '#web/islands/job/roles/RolesPanel.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobReply } from '#web/schemas/job.ts';
import { stubServer } from '#web/tests/stubServer.ts';

const group = (key: string, change: Partial<ShownGroup> = {}) =>
  ({
    key,
    layer: 'outline',
    colour: '#ff0000',
    dash: null,
    count: 3,
    guess: { role: 'kiss', reason: 'the layer is called so', isSure: true },
    ...change,
  }) as unknown as ShownGroup;
const facts = { canKiss: true, isRollFed: true, canCrease: false };
const setRules = vi.fn();
const show = (change: Partial<Parameters<typeof RolesPanel>[0]> = {}, rules: Design['rules'] = []) => {
  const calls = { onChange: vi.fn(), onChoose: vi.fn() };
  const job = { roles: { a: 'kiss' }, lineRoles: {}, areRolesGuessed: true } as unknown as JobReply;
  const groups = [group('a'), group('b', { layer: null, colour: '#0000ff', dash: '2 2', count: 1 })];
  const design = {
    rules,
    setRules,
    layout: { drawing: { groups, lines: Array.from({ length: 9 }, (_, id) => ({ id })) } },
  } as unknown as Design;
  render(
    <RolesPanel job={job} design={design} facts={facts} isBusy={false} chosen={[]} {...calls} {...change} />,
  );
  return calls;
};
const roles = (name: string) => within(screen.getByRole('radiogroup', { name }));
afterEach(cleanup);

describe('roles of lines', () => {
  it('are shown as guesses with their reason until somebody takes them', async () => {
    const { onChange } = show();
    expect(screen.getByText(/These are guesses/)).toBeTruthy();
    expect(screen.getAllByText(/Guessed: the layer is called so/)).toHaveLength(2);
    await userEvent.click(screen.getByRole('button', { name: 'take them as they are' }));
    expect(onChange).toHaveBeenCalledWith({ roles: { a: 'kiss' } });
  });

  it('are given to a layer or a colour, beside what others have, and not where the machine cannot', async () => {
    const { onChange } = show();
    const blue = roles('Role of no layer #0000ff');
    expect(blue.queryAllByRole('radio', { checked: true })).toEqual([]);
    await userEvent.click(blue.getByRole('radio', { name: /perforated/i }));
    expect(onChange).toHaveBeenCalledWith({ roles: { a: 'kiss', b: 'perforated' } });
    expect(blue.getByRole<HTMLButtonElement>('radio', { name: /crease/i }).disabled).toBe(true);
    expect(roles('Role of outline #ff0000').getByRole('radio', { checked: true }).textContent).toMatch(
      /kiss/i,
    );
  });

  it('are made a rule of the workshop by their layer, else by their colour', async () => {
    const seen = stubServer({ 'POST /api/role-rules': [] });
    show();
    await userEvent.click(screen.getByRole('button', { name: /Make it a rule/ }));
    expect(seen[0]?.body).toEqual({ layer: 'outline', colour: null, isDashed: null, role: 'kiss' });
    expect(setRules).toHaveBeenCalledWith([]);
  });

  it('say where a rule gave them, and offer it no second time', () => {
    const rule = { id: 1, layer: 'outline', colour: null, isDashed: null, role: 'kiss' };
    show({}, [rule] as unknown as Design['rules']);
    expect(screen.getByText(/A rule of this workshop/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Make it a rule/ })).toBeNull();
  });

  it.each([
    ['3', [2]],
    ['3, 7-9', [2, 6, 7, 8]],
    ['2;4 1', [1, 3, 0]],
    ['9-7', null],
    ['0', null],
    ['12', null],
    ['x', null],
  ])('are chosen without a pointer: "%s"', async (typed, lines) => {
    const { onChoose } = show();
    await userEvent.type(screen.getByLabelText('Choose lines by number'), `${typed}{Enter}`);
    if (lines) expect(onChoose).toHaveBeenCalledWith(lines);
    else expect(onChoose).not.toHaveBeenCalled();
  });

  it('cannot be kissed on a single layer, and says so', () => {
    show({ facts: { ...facts, canKiss: false } });
    expect(screen.getByText(/A single layer has nothing to kiss down to/)).toBeTruthy();
    expect(
      roles('Role of outline #ff0000').getByRole<HTMLButtonElement>('radio', { name: /kiss/i }).disabled,
    ).toBe(true);
  });

  it('wait while something is under way', () => {
    show({ isBusy: true });
    expect(screen.getAllByRole<HTMLButtonElement>('radio').every(({ disabled }) => disabled)).toBe(true);
  });
});
