import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Run } from '#core/run/run.ts';
import { acceptAll, ADDRESS, api, follow, go, settle, visit, type Visitor, setUp } from '#e2e/support/app.ts';

let ines: Visitor;
beforeAll(async () => {
  ines = await visit('Ines', 2);
});
afterAll(() => ines.leave());

/** A job of many long strokes, so that there is time to act, on the desk cutter's card. */
function longJob(): string {
  const lines = Array.from({ length: 120 }, (_, row) => `<path d="M5 ${5 + row * 1.3}H195"/>`).join('');
  return `<svg width="200mm" height="170mm" viewBox="0 0 200 170" fill="none" stroke="#000">${lines}</svg>`;
}

async function startRun(name: string): Promise<number> {
  const job = await setUp<{ id: number }>('/api/jobs', 'POST', {
    name,
    source: longJob(),
    machineId: 2,
  });
  const started = await api<{ id: number }>(`/api/jobs/${job.id}/runs`, 'POST', {
    requestKey: crypto.randomUUID(),
  });
  expect(started.status).toBe(201);
  return started.reply.id;
}

const stateOf = async (id: number) => (await api<Run>(`/api/runs/${id}`)).reply.state;

describe('a run at the machine', () => {
  it('survives a reloaded page, refuses a second job meanwhile, and stops when told', async () => {
    const id = await startRun('long one');
    const { page } = ines;
    await go(page, `/runs/${id}`);
    await page.getByText('Cutting', { exact: true }).waitFor();
    await expect
      .poll(() => page.getByRole('progressbar').getAttribute('value').then(Number))
      .toBeGreaterThan(0);
    await page.reload();
    await settle(page);
    await page.getByText('Cutting', { exact: true }).waitFor();
    await page.getByRole('link', { name: /Cutting now/ }).waitFor();
    const early = await api<{ error: { code: string } }>(`/api/runs/${id}/note`, 'PUT', {
      verdict: 'clean',
      piecesGood: 1,
      piecesSpoiled: 0,
    });
    expect(early.reply.error.code).toBe('conflict');
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByText('Stopped', { exact: true }).waitFor();
    const { reply: run } = await api<Run>(`/api/runs/${id}`);
    expect(run.outcomes.length).toBeGreaterThan(0);
    expect(run.outcomes.length).toBeLessThan(run.strokes.length);
    expect(ines.errors).toEqual([]);
  });

  it('cuts nothing but what its sender saw', async () => {
    const job = await setUp<{ id: number }>('/api/jobs', 'POST', {
      name: 'changed meanwhile',
      source: longJob(),
      machineId: 2,
    });
    const asked = { requestKey: crypto.randomUUID(), version: 99 };
    const refused = await api<{ error: { code: string; message: string } }>(
      `/api/jobs/${job.id}/runs`,
      'POST',
      asked,
    );
    expect(refused.status).toBe(409);
    expect(refused.reply.error.message).toMatch(/changed since you looked at it/);
  });

  it('refuses a second run while a sheet is in the machine, in words, and the first goes on', async () => {
    const first = await startRun('first');
    await expect.poll(() => stateOf(first)).toBe('cutting');
    const job = await setUp<{ id: number }>('/api/jobs', 'POST', {
      name: 'second',
      source: longJob(),
      machineId: 2,
    });
    const refused = await api<{ error: { code: string; message: string } }>(
      `/api/jobs/${job.id}/runs`,
      'POST',
      {
        requestKey: crypto.randomUUID(),
      },
    );
    expect(refused.status).toBe(409);
    expect(refused.reply.error.message).toMatch(/The sheet of "first" is still in this machine/);
    expect(await stateOf(first)).toBe('cutting');
    const { page } = ines;
    await go(page, `/runs/${first}`);
    await page.getByRole('button', { name: 'Pause' }).click();
    await page.getByText('Paused', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Go on' }).click();
    await page.getByText('Cutting', { exact: true }).waitFor();
    await api(`/api/runs/${first}/stop`, 'POST');
    await expect.poll(() => stateOf(first)).toBe('stopped');
  });

  it('is not thrown back by an answer that comes late', async () => {
    const id = await startRun('late answer');
    await expect.poll(() => stateOf(id)).toBe('cutting');
    const { page } = ines;
    let letGo = () => {};
    const held = new Promise<void>((resolve) => (letGo = resolve));
    let holding = 0;
    await page.route(`**/api/runs/${id}`, async (route) => {
      const response = await route.fetch();
      holding += 1;
      await held;
      await route.fulfill({ response });
    });
    await go(page, `/runs/${id}`);
    await expect.poll(() => holding).toBe(1);
    await api(`/api/runs/${id}/pause`, 'POST', { isPaused: true });
    await page.getByText('Paused', { exact: true }).waitFor();
    const answered = page.waitForResponse(`**/api/runs/${id}`);
    letGo();
    await (await answered).finished();
    await settle(page);
    await new Promise((resolve) => setTimeout(resolve, 200));
    await page.getByText('Paused', { exact: true }).waitFor();
    await page.unroute(`**/api/runs/${id}`);
    await api(`/api/runs/${id}/stop`, 'POST');
    await page.getByText('Stopped', { exact: true }).waitFor();
  });

  it('streams its events to a script', async () => {
    const id = await startRun('streamed');
    const response = await fetch(`${ADDRESS}/api/runs/${id}/events`);
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    const reader = response.body!.getReader();
    let text = '';
    while (!/"kind":"stroke"/.test(text)) text += new TextDecoder().decode((await reader.read()).value);
    await reader.cancel();
    expect(text).toMatch(/"kind":"state"/);
    await api(`/api/runs/${id}/stop`, 'POST');
    await expect.poll(() => stateOf(id)).toBe('stopped');
    expect((await api(`/api/runs/${id}/stop`, 'POST')).status).toBe(409);
  });

  it('waits for hands where the exposure changes, and goes on when they are done', async () => {
    await api('/api/stations/1', 'PATCH', { conditionId: (await herringglass()).id });
    const { reply: answer } = await api<{
      answer: { values: object; suggestion: { sources: object } };
      revision: { revision: number };
    }>('/api/stations/1/answers/through');
    const kept = await api('/api/stations/1/settings', 'POST', {
      operation: 'through',
      values: { ...answer.answer.values, exposureMm: 0.5 },
      sources: answer.answer.suggestion.sources,
      reason: 'deeper for this test',
      basedOn: answer.revision.revision,
    });
    expect(kept.status).toBe(201);
    const source =
      '<svg width="30mm" height="30mm" viewBox="0 0 30 30" fill="none"><g id="kiss" stroke="#00f"><circle cx="15" cy="15" r="8"/></g><g id="outline" stroke="#f00"><circle cx="15" cy="15" r="13"/></g></svg>';
    const job = await setUp<{ id: number }>('/api/jobs', 'POST', {
      name: 'two depths',
      source,
      machineId: 1,
    });
    // On a roll the outline is guessed to be perforated; here it is to be cut through.
    const roles = { 'kiss|#0000ff': 'kiss', 'outline|#ff0000': 'through' };
    await api(`/api/jobs/${job.id}`, 'PATCH', { version: 1, roles });
    const { page } = ines;
    await go(page, `/jobs/${job.id}`);
    await page.getByRole('tab', { name: '4 Passes' }).click();
    await page.getByText(/Set the exposure to 0.50 mm/).waitFor();
    await page.getByRole('tab', { name: '6 Cut' }).click();
    expect(await page.getByRole('link', { name: /part \d of 2/ }).count()).toBe(2);
    await acceptAll(page);
    await follow(page, page.getByRole('button', { name: /Send to/ }), /^\/runs\//);
    const progress = page.getByRole('region', { name: 'Progress' });
    await progress.getByText('Waiting for hands', { exact: true }).waitFor();
    await page.getByRole('button', { name: /Done by hand/ }).click();
    await page.getByText('2 of 2').waitFor();
    // Not quite through: the same path once more, then out.
    await page.getByRole('button', { name: 'Again: cut the Through path once more' }).click();
    await page.getByText('3 of 3').waitFor();
    await page.getByText('2 passes').waitFor();
    await page.getByRole('button', { name: /unload/ }).click();
    await progress.getByText('Done', { exact: true }).waitFor();
  });
});

async function herringglass(): Promise<{ id: number }> {
  const { reply } =
    await api<{ name: string; conditions: { id: number; kind: string }[] }[]>('/api/materials');
  return reply
    .find(({ name }) => name.startsWith('Herringglass'))!
    .conditions.find(({ kind }) => kind === 'laminated')!;
}
