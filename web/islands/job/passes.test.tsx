// @vitest-environment happy-dom
import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { PASS_ROUTES } from '#core/passes/routeSteps.ts';
import { CutPanel } from '#web/islands/job/CutPanel.tsx';
import { FreeingTable } from '#web/islands/job/FreeingTable.tsx';
import { PassList, RouteChoice } from '#web/islands/job/PassList.tsx';
import { PrintHere } from '#web/islands/job/PrintHere.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { sampleMachine, sampleRevision } from '#web/tests/sampleBook.ts';
import { refusal, stubServer } from '#web/tests/stubServer.ts';

const pass = (role: 'crease' | 'kiss' | 'perforated', change: object = {}) => ({
  role,
  values: sampleRevision.values,
  seatName: 'left',
  pauseBefore: null,
  perforation: role === 'perforated' ? { tabs: 24 } : null,
  strokes: 8,
  cutMm: 1250,
  travelMm: 640,
  seconds: 75,
  ...change,
});
const planOf = (change: object = {}) =>
  ({
    problem: null,
    passes: [pass('kiss'), pass('perforated')],
    printAfter: null,
    parts: 1,
    seconds: 150,
    checklist: [],
    ...change,
  }) as unknown as PlanReply;
afterEach(cleanup);

describe('the order of passes', () => {
  const onPauses = vi.fn();
  const show = (plan = planOf(), isBusy = false) => {
    const onOrder = vi.fn();
    render(
      <PassList
        plan={plan}
        machine={sampleMachine}
        isBusy={isBusy}
        pausesBefore={[]}
        onOrder={onOrder}
        onPauses={onPauses}
      />,
    );
    return onOrder;
  };

  it('shows each with its numbers, and tabs where there are some', () => {
    show();
    const [kiss, perforated] = screen.getAllByRole('listitem').map((item) => item.textContent);
    expect(kiss).toMatch(
      /^1.*106 gf200 mm\/s, 1 pass, exposure 0\.38 mm, left tool8 strokes · 1\.25 m cut · 0\.64 m travel/,
    );
    expect(perforated).toMatch(/24 tabs/);
  });

  it('has printing stand where the route has it, and hands called for before the pass that needs them', () => {
    show(
      planOf({
        printAfter: 1,
        passes: [pass('crease'), pass('kiss', { pauseBefore: 'Fit the fine blade' })],
      }),
    );
    const items = screen.getAllByRole('listitem').map((item) => item.textContent);
    expect(items[1]).toBe('2 Print');
    expect(items[2]).toMatch(/^First: Fit the fine blade\./);
    expect(items[0]).not.toMatch(/exposure/);
  });

  it('moves one earlier or later, never off the ends, and not while something is under way', async () => {
    const onOrder = show(planOf({ printAfter: 0 }));
    const buttons = screen.getAllByRole<HTMLButtonElement>('button');
    expect(buttons.map(({ disabled }) => disabled)).toEqual([true, false, false, false, false, true]);
    await userEvent.click(screen.getByRole('button', { name: 'print later' }));
    expect(onOrder).toHaveBeenLastCalledWith(['kiss', 'print', 'perforated']);
    await userEvent.click(
      within(screen.getAllByRole('listitem')[2]!).getByRole('button', { name: /earlier/ }),
    );
    expect(onOrder).toHaveBeenLastCalledWith(['print', 'perforated', 'kiss']);
    cleanup();
    show(planOf(), true);
    expect(screen.getAllByRole<HTMLButtonElement>('button').every(({ disabled }) => disabled)).toBe(true);
  });
});

describe('the route', () => {
  const printer = { ...sampleMachine, hasPrinter: true };

  it('is not asked where there is only one', () => {
    const { container } = render(<RouteChoice order={null} machine={sampleMachine} onOrder={vi.fn()} />);
    expect(container.textContent).toBe('');
  });

  it('is chosen on a machine that prints as well, and the usual one is no choice of its own', async () => {
    const onOrder = vi.fn();
    render(<RouteChoice order={PASS_ROUTES[1]!.steps} machine={printer} onOrder={onOrder} />);
    const select = screen.getByRole<HTMLSelectElement>('combobox');
    expect(select.value).toBe('1');
    await userEvent.selectOptions(select, '0');
    expect(onOrder).toHaveBeenCalledWith(null);
    await userEvent.selectOptions(select, '1');
    expect(onOrder).toHaveBeenLastCalledWith(PASS_ROUTES[1]!.steps);
  });

  it('is called the own one where it was put in order by hand', () => {
    render(<RouteChoice order={['kiss', 'crease']} machine={sampleMachine} onOrder={vi.fn()} />);
    expect(screen.getByRole('option', { name: /my own order/ })).toBeTruthy();
  });
});

describe('ways to free the pieces', () => {
  const freeing = {
    pick: 'perforated',
    reason: 'tabs keep every piece in the sheet',
    options: [
      { way: 'perforated', passes: 1, seconds: 70, wearMetres: 1.21, jamRisk: 0.004, edge: 0.75, bar: null },
      { way: 'severalLight', passes: 3, seconds: 190, wearMetres: 3.4, jamRisk: 0.21, edge: 0.95, bar: null },
      {
        way: 'oneHeavy',
        passes: 1,
        seconds: 60,
        wearMetres: 2,
        jamRisk: 0.3,
        edge: 0.6,
        bar: 'more force than the machine has',
      },
    ],
  } as unknown as NonNullable<PlanReply['freeing']>;
  const show = (roles: JobReply['roles']) => {
    const onChange = vi.fn();
    const passes = { order: null };
    const job = { roles, lineRoles: { 4: 'through' }, passes, layout: {} } as unknown as JobReply;
    render(
      <FreeingTable
        job={job}
        design={{ layout: null } as unknown as Design}
        freeing={freeing}
        onChange={onChange}
      />,
    );
    return onChange;
  };

  it('stand side by side with what they cost, and what bars one', () => {
    show({ a: 'perforated' });
    const rows = screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => row.textContent);
    expect(rows[0]).toMatch(/perforated, tabs hold1 min 10 s1\.2 m0\.4 %goodin use/);
    expect(rows[1]).toMatch(/× 3.*21 %clean/);
    expect(rows[2]).toMatch(/more force than the machine has$/);
    expect(screen.getByText(/because tabs keep every piece in the sheet/)).toBeTruthy();
  });

  it('are changed for all that frees with one tap, and for nothing else', async () => {
    const onChange = show({ a: 'perforated', b: 'kiss' });
    await userEvent.click(screen.getByRole('button', { name: 'Use several light passes' }));
    expect(onChange).toHaveBeenCalledWith({
      roles: { a: 'through', b: 'kiss' },
      lineRoles: { 4: 'through' },
      passes: { order: null, freeing: 'severalLight' },
    });
  });

  it('offer nothing where nothing is freed', () => {
    show({ b: 'kiss' });
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('to the machine', () => {
  const machine = { ...sampleMachine, link: { kind: 'standIn', model: 'roll' } as const };
  const onStep = vi.fn();
  const show = (
    plan: PlanReply | null,
    one: typeof machine | typeof sampleMachine = machine,
    isUnsettled = false,
  ) => {
    const shown = { plan, machine: one, onStep, isUnsettled };
    return render(<CutPanel jobId={3} version={5} sheetNumber={2} {...shown} />);
  };

  it('sends nothing while a change is still being kept', () => {
    show(planOf({}), machine, true);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Send to/ }).disabled).toBe(true);
    cleanup();
    show(planOf({}));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Send to/ }).disabled).toBe(false);
  });

  it('waits for the order, and says what is in the way of one', () => {
    show(null);
    expect(screen.getByRole('status').textContent).toBe('Working out the order …');
    cleanup();
    show(
      planOf({
        problem: 'line 3 has no role yet',
      }),
    );
    expect(screen.getByText(/line 3 has no role yet/i)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /Send to/ })).toBeNull();
  });

  it('has what is still open stand apart from what only has to be known', () => {
    const item = (words: string, state: 'open' | 'toDo') => ({ words, reason: `why ${words}`, state });
    show(planOf({ checklist: [item('The ink is wet', 'open'), item('The mat is rolled', 'toDo')] }));
    const [open, known] = screen.getAllByRole('listitem');
    expect(open!.className).toBe('note');
    expect(known!.className).not.toBe('note');
    expect(known!.textContent).toBe('The mat is rolledwhy The mat is rolled');
  });

  it('sends one run however often it is pressed, and says why one was refused', async () => {
    const seen = stubServer({
      'POST /api/jobs/3/runs': refusal(409, 'Not now', 'The sheet of "Gulls" is still in this machine.'),
    });
    show(planOf());
    const send = screen.getByRole('button', { name: /Send to Gannet 600/ });
    await userEvent.click(send);
    expect((await screen.findByRole('alert')).textContent).toMatch(/still in this machine/);
    await userEvent.click(send);
    const keys = seen.map(({ body }) => (body as { requestKey: string }).requestKey);
    expect(keys).toHaveLength(2);
    expect(keys[0]).toBe(keys[1]);
    expect(seen[0]?.path).toBe('/api/jobs/3/runs?sheet=2');
  });

  it('sends nothing while something stops it, until it is put right or said that it may go', async () => {
    const seen = stubServer({ 'POST /api/jobs/3/runs': refusal(409, 'Not now', 'stop here') });
    const stop = {
      id: 'trouble:island',
      state: 'stop',
      words: 'Not mended: 2 islands',
      reason: 'they fall out',
      way: { words: 'Mend it in the drawing', step: 'drawing' },
    };
    show(planOf({ checklist: [stop] }));
    const send = screen.getByRole<HTMLButtonElement>('button', { name: /Send to Gannet 600/ });
    expect(send.disabled).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Mend it in the drawing' }));
    expect(onStep).toHaveBeenCalledWith('drawing');
    await userEvent.click(screen.getByRole('checkbox', { name: /send it anyway/ }));
    await userEvent.click(send);
    await screen.findByRole('alert');
    expect(seen[0]?.body).toMatchObject({ accepted: ['trouble:island'] });
  });

  it('gives a file for every part where the machine has no link', () => {
    show(planOf({ parts: 2 }), sampleMachine);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Send to/ }).disabled).toBe(true);
    expect(screen.getAllByRole('link').map((link) => link.getAttribute('href'))).toEqual([
      '/api/jobs/3/machine-file?sheet=2&part=1',
      '/api/jobs/3/machine-file?sheet=2&part=2',
    ]);
  });
});

describe('printing here', () => {
  const print = async (reply: unknown) => {
    stubServer({ 'POST /api/jobs/3/prints': reply });
    render(
      <QueryClientProvider client={makeQueryClient()}>
        <PrintHere jobId={3} sheetNumber={1} />
      </QueryClientProvider>,
    );
    await userEvent.click(screen.getByRole('button', { name: /stand-in printer/ }));
  };

  it('says how long the ink is wet', async () => {
    await print({ trouble: '', inkMinutes: 30 });
    expect((await screen.findByRole('status')).textContent).toMatch(/Its ink is dry in 30 min/);
  });

  it('says when a sheet is spoiled, and when no printer answers', async () => {
    await print({ trouble: 'it was fitted to the page', inkMinutes: 30 });
    expect((await screen.findByRole('status')).textContent).toMatch(
      /spoiled: it was fitted to the page\. Print it again/,
    );
    cleanup();
    await print(refusal(502, 'No answer', 'The printer does not answer. Is it on?'));
    expect((await screen.findByRole('alert')).textContent).toMatch(/Is it on/);
    expect(screen.getByRole<HTMLButtonElement>('button').disabled).toBe(false);
  });
});
