import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, go, hearNothing, visit, type Visitor, setUp } from '#e2e/support/app.ts';

let ines: Visitor;
let tove: Visitor;
beforeAll(async () => {
  [ines, tove] = await Promise.all([visit('Ines', 1), visit('Tove', 1)]);
});
afterAll(() => Promise.all([ines.leave(), tove.leave()]));

interface Refused {
  readonly error: { readonly code: string; readonly message: string };
}

describe('bad drawings', () => {
  it.each([
    ['no XML', 'hello', /not well-formed XML/],
    [
      'nothing to cut',
      '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm"/>',
      /no lines to cut/,
    ],
    ['an unknown unit', '<svg width="9ell" height="9ell"><path d="M0 0H9"/></svg>', /unknown unit/],
    [
      'entities',
      '<!DOCTYPE svg [<!ENTITY a "b">]><svg width="9mm" height="9mm"><path d="M0 0H9"/></svg>',
      /entities/,
    ],
  ])('with %s are refused in words, and no job is made', async (_, content, words) => {
    const { page } = ines;
    await go(page, '/jobs');
    const before = (await api<unknown[]>('/api/jobs')).reply.length;
    const file = { name: 'bad.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(content) };
    await page.locator('input[type=file]').setInputFiles(file);
    await expect.poll(() => page.getByRole('alert').textContent()).toMatch(words);
    expect((await api<unknown[]>('/api/jobs')).reply).toHaveLength(before);
  });
});

describe('two people at once', () => {
  it('keep the same setting: the second is told, sees the first, and loses nothing', async () => {
    for (const { page } of [ines, tove]) await go(page, '/test-cuts?operation=kiss');
    const keep = (visitor: Visitor) => visitor.page.getByRole('button', { name: /^Keep \d+/ }).click();
    await ines.page.getByLabel('A word for later').fill('by Ines');
    await tove.page.getByLabel('A word for later').fill('by Tove');
    // An earlier revision is by Ines too: only the answer tells that hers is kept.
    const kept = ines.page.waitForResponse((response) => response.url().endsWith('/keep'));
    await keep(ines);
    expect((await kept).status()).toBe(201);
    await ines.page.getByText(/revision \d+ by Ines/).waitFor();
    await keep(tove);
    await expect.poll(() => tove.page.getByRole('alert').textContent()).toMatch(/Ines kept revision/);
    expect(await tove.page.getByLabel('A word for later').inputValue()).toBe('by Tove');
    await tove.page.getByText(/revision \d+ by Ines/).waitFor();
    await keep(tove);
    await tove.page.getByText(/revision \d+ by Tove/).waitFor();
  });

  it('give roles in the same job: the slower change is refused and the other one shown', async () => {
    await hearNothing(tove);
    const source =
      '<svg width="40mm" height="40mm" viewBox="0 0 40 40"><path fill="none" stroke="#f00" d="M4 4h32v32h-32z"/></svg>';
    const job = await setUp<{ id: number }>('/api/jobs', 'POST', { name: 'shared', source, machineId: 1 });
    for (const { page } of [ines, tove]) {
      await go(page, `/jobs/${job.id}`);
      await page.getByRole('tab', { name: '2 Roles' }).click();
    }
    const first = (visitor: Visitor, role: string) =>
      visitor.page.getByRole('radiogroup').first().getByRole('radio', { name: role });
    // Hers shows before it is kept: only the answer tells that she was first.
    const kept = ines.page.waitForResponse(
      (response) =>
        response.url().includes(`/api/jobs/${job.id}`) &&
        response.request().method() !== 'GET' &&
        response.ok(),
    );
    await first(ines, 'Art').click();
    await kept;
    await expect.poll(() => first(ines, 'Art').getAttribute('aria-checked')).toBe('true');
    await first(tove, 'Through').click();
    await expect
      .poll(() => tove.page.getByRole('alert').first().textContent())
      .toMatch(/Somebody else changed/);
    await expect.poll(() => first(tove, 'Art').getAttribute('aria-checked')).toBe('true');
    await first(tove, 'Through').click();
    await expect.poll(() => first(tove, 'Through').getAttribute('aria-checked')).toBe('true');
  });
});

describe('a page made on the server', () => {
  it('shows what stands now, never what it showed to somebody before', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    const shown = async () => {
      const html = await (await fetch(`${ADDRESS}/test-cuts?operation=kiss`)).text();
      return (html.match(/figure w-16 text-right/g) ?? []).length;
    };
    const before = await shown();
    const cut = { operation: 'kiss', force: 90, passes: 1, speed: 200, exposureMm: 0.3, grade: 3 };
    expect((await api('/api/stations/1/test-cuts', 'POST', cut)).status).toBe(201);
    expect(await shown()).toBe(before + 1);
    await go(page, '/test-cuts?operation=kiss');
    expect(ines.errors).toEqual([]);
  });
});

describe('what is not ready', () => {
  it('says which setting is missing and where to find it', async () => {
    const { reply: materials } =
      await api<{ name: string; conditions: { id: number }[] }[]>('/api/materials');
    const clear = materials.find(({ name }) => name.startsWith('Spindrift'))!.conditions[0]!.id;
    await api('/api/stations/1', 'PATCH', { conditionId: clear });
    const source = '<svg width="20mm" height="20mm" viewBox="0 0 20 20"><circle cx="9" cy="9" r="5"/></svg>';
    const { reply } = await api<{ id: number }>('/api/jobs', 'POST', { name: 'round', source, machineId: 1 });
    const { page } = ines;
    await go(page, `/jobs/${reply.id}`);
    await page.getByRole('tab', { name: '6 Cut' }).click();
    await page.getByText('There is no kiss setting').waitFor();
    await page.getByRole('link', { name: 'Find it with test cuts' }).click();
    await page.getByRole('heading', { name: 'Test cuts' }).waitFor();
    const sent = await api<Refused>(`/api/jobs/${reply.id}/runs`, 'POST', {
      requestKey: crypto.randomUUID(),
    });
    expect(sent.reply.error.code).toBe('cannotPlan');
  });

  it('shows a page for what does not exist', async () => {
    const { page } = ines;
    const response = await page.goto(`${ADDRESS}/jobs/99999`);
    expect(response?.status()).toBe(404);
    await page.getByRole('heading', { name: 'There is no such job' }).waitFor();
    expect((await page.goto(`${ADDRESS}/nowhere`))?.status()).toBe(404);
  });

  it('says so when the server does not answer, and keeps what was typed', async () => {
    const { page } = ines;
    await go(page, '/materials/new');
    await page.getByLabel('Name on the pack').fill('Petrel film');
    await page.getByLabel('Maker').fill('Oldstrand');
    await ines.context.setOffline(true);
    await page.getByRole('button', { name: 'Keep it and load it here' }).click();
    await page.getByText('The server does not answer.').waitFor();
    expect(await page.getByLabel('Name on the pack').inputValue()).toBe('Petrel film');
    await ines.context.setOffline(false);
  });
});

describe('the HTTP interface', () => {
  it('takes changes only from the application itself', async () => {
    const send = (headers: Record<string, string>) =>
      fetch(`${ADDRESS}/api/stations/1`, { method: 'PATCH', headers, body: '{"lot":"stolen"}' });
    expect((await send({ origin: 'http://elsewhere.example' })).status).toBe(403);
    expect((await send({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
    expect((await send({ origin: ADDRESS })).status).toBe(200);
  });

  it('limits what it reads and says what is wrong with it', async () => {
    const large = await api<Refused>('/api/machines', 'POST', { name: 'x'.repeat(100_000) });
    expect(large).toMatchObject({ status: 413, reply: { error: { code: 'tooLarge' } } });
    const none = await fetch(`${ADDRESS}/api/materials`, { method: 'POST', body: 'no json' });
    expect(none.status).toBe(400);
    const wrong = await api<Refused>('/api/stations/1/test-cuts', 'POST', {
      operation: 'kiss',
      force: 9000,
      passes: 1,
      speed: 100,
      exposureMm: 0.3,
      grade: 3,
    });
    expect(wrong).toMatchObject({ status: 422, reply: { error: { code: 'outOfRange' } } });
    expect(wrong.reply.error.message).toMatch(/10 to 500 gf/);
    const grade = await api<Refused>('/api/stations/1/test-cuts', 'POST', {
      operation: 'kiss',
      force: 90,
      passes: 1,
      speed: 100,
      exposureMm: 0.3,
      grade: 11,
    });
    expect(grade.status).toBe(400);
    expect((await api<Refused>('/api/nothing')).status).toBe(404);
  });

  it('describes itself as OpenAPI with every endpoint, and on a page', async () => {
    const { reply } = await api<{
      openapi: string;
      paths: Record<string, Record<string, { responses: object }>>;
    }>('/api/openapi.json');
    expect(reply.openapi).toMatch(/^3\.1/);
    expect(Object.keys(reply.paths)).toEqual(
      expect.arrayContaining(['/api/jobs/{id}', '/api/runs/{id}/events']),
    );
    expect(reply.paths['/api/materials']?.['post']?.responses).toHaveProperty('201');
    await ines.page.goto(`${ADDRESS}/api`);
    await ines.page.getByText('/api/stations/{machineId}/answers/{operation}').waitFor();
    expect((await api<{ isHealthy: boolean }>('/api/health')).reply.isHealthy).toBe(true);
  });

  it('serves nobody who asks for it under another name, pages, files and interface alike', async () => {
    const ask = (host: string, path: string, method = 'GET') =>
      new Promise<number | undefined>((resolve, reject) => {
        const { hostname, port } = new URL(ADDRESS);
        const asked = request(
          { hostname, port, path, method, headers: { host, origin: `http://${host}` } },
          (reply) => {
            reply.resume();
            resolve(reply.statusCode);
          },
        );
        asked.on('error', reject);
        asked.end();
      });
    for (const path of ['/', '/api/materials', '/favicon.svg']) {
      expect(await ask('evil.example', path), path).toBe(421);
    }
    expect(await ask('evil.example:80', '/api/materials', 'POST')).toBe(421);
    expect(await ask(`localhost:${new URL(ADDRESS).port}`, '/api/health')).toBe(200);
  });
});
