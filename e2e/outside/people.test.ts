import type { BrowserContext, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openBrowser } from '#commands/openBrowser.ts';
import { bareWorkshop, type BareWorkshop } from '#e2e/support/bareWorkshop.ts';
import { settle } from '#e2e/support/settle.ts';
import { connectStore } from '#store/connection/connectStore.ts';

/** A workshop of its own, which lets nobody in without signing in; and what somebody would try who wants in. */
let workshop: BareWorkshop;
let address: string;
let databaseUrl: string;
let context: BrowserContext;
let page: Page;
const errors: string[] = [];
const OWNER = { name: 'Runa', password: 'wet carton 7 gulls' };

beforeAll(async () => {
  workshop = await bareWorkshop('people', null);
  address = workshop.address;
  databaseUrl = workshop.databaseUrl;
  context = await openBrowser({ width: 1280, height: 800 });
  page = await context.newPage();
  page.setDefaultTimeout(45_000);
  page.on('pageerror', (error) => errors.push(error.message));
});
afterAll(async () => {
  await context.close();
  await workshop.end();
});

interface Answer {
  readonly status: number;
  readonly code: string;
  readonly message: string;
  readonly body: Record<string, unknown>;
  /** What a browser would show from now on. */
  readonly cookie: string;
  readonly setCookie: string;
}

/** Asks as a script would, with what it shows. */
async function ask(
  method: string,
  path: string,
  {
    body,
    cookie = '',
    headers = {},
  }: { body?: unknown; cookie?: string; headers?: Record<string, string> } = {},
): Promise<Answer> {
  const reply = await fetch(address + path, {
    method,
    redirect: 'manual',
    headers: { cookie, ...headers, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const text = await reply.text();
  const parsed = (text.startsWith('{') ? JSON.parse(text) : {}) as Record<string, unknown>;
  const error = (parsed['error'] ?? {}) as { code?: string; message?: string };
  const setCookie = reply.headers.getSetCookie().join('\n');
  return {
    status: reply.status,
    code: error.code ?? '',
    message: error.message ?? '',
    body: parsed,
    cookie: /feather_session=[\w-]+/.exec(setCookie)?.[0] ?? '',
    setCookie,
  };
}
const signIn = (who: object, cookie = '') => ask('POST', '/api/sessions', { body: who, cookie });

async function open(path: string): Promise<void> {
  await page.goto(address + path);
  await settle(page);
}

describe('the first start', () => {
  it('shows nothing and answers nothing before there is an owner', async () => {
    for (const path of ['/', '/jobs', '/wall', '/book', '/api']) {
      const reply = await fetch(address + path, { redirect: 'manual' });
      expect([path, reply.status, reply.headers.get('location')?.split('?')[0]]).toEqual([
        path,
        303,
        '/first-owner',
      ]);
    }
    expect(await ask('GET', '/api/materials')).toMatchObject({ status: 401, code: 'notSignedIn' });
    expect((await ask('GET', '/api/health')).status).toBe(200);
  });

  it('makes the owner by hand, and leads to the bench', async () => {
    await open('/');
    await page.getByRole('heading', { name: 'Whose workshop is this?' }).waitFor();
    await page.getByLabel('Name').fill(OWNER.name);
    await page.getByLabel('Password', { exact: true }).fill('runa runa');
    await page.getByRole('button', { name: 'This is my workshop' }).click();
    await page.getByText(/easily guessed/).waitFor();
    await page.getByLabel('Password', { exact: true }).fill(OWNER.password);
    await page.getByRole('button', { name: 'This is my workshop' }).click();
    await page.getByRole('heading', { name: 'Set up your bench' }).waitFor();
    await page.getByRole('complementary', { name: 'Station' }).getByText('Runa').waitFor();
  });

  it('makes no second owner', async () => {
    const body = { name: 'Odd', password: 'another long word 9' };
    expect(await ask('POST', '/api/owner', { body })).toMatchObject({ status: 409 });
    expect((await fetch(`${address}/first-owner`, { redirect: 'manual' })).headers.get('location')).toBe(
      '/sign-in',
    );
  });
});

describe('people', () => {
  it('are added with a role, a password and a PIN by the owner', async () => {
    await open('/workshop');
    for (const name of ['Odd', 'Gast']) {
      await page.getByLabel('Name', { exact: true }).fill(name);
      await page.getByRole('button', { name: 'Add', exact: true }).click();
      await page.getByRole('button', { name: `Put ${name} away` }).waitFor();
    }
    await open('/workshop');
    await page.getByLabel('What Gast may do').selectOption('guest');
    await page.getByText(/looks, starts nothing/).waitFor();
    for (const [name, password] of [
      ['Odd', 'seven herring boats'],
      ['Gast', 'only looking today'],
    ] as const) {
      await page.getByRole('button', { name: `New password for ${name}` }).click();
      await page.getByLabel('New password', { exact: true }).fill(password);
      await page.getByRole('button', { name: 'Keep', exact: true }).click();
      await page.getByLabel('New password', { exact: true }).waitFor({ state: 'hidden' });
    }
    await page.getByRole('button', { name: 'New PIN for Odd' }).click();
    await page.getByLabel(/^New PIN,/).fill('1234');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.getByText(/repeats or counts/).waitFor();
    await page.getByLabel(/^New PIN,/).fill('4719');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.getByText(/has a password, has a PIN/).waitFor();
    expect(errors.splice(0)).toEqual([]);
  });

  it('change hands by PIN at a bench that is trusted, and nowhere else', async () => {
    expect(await signIn({ name: 'Odd', pin: '4719' })).toMatchObject({ status: 403, message: /not trusted/ });
    await page.getByRole('button', { name: 'Trust this bench' }).click();
    await page.getByText('Hands change here by a PIN.').waitFor();
    await settle(page);
    await page.getByRole('button', { name: 'I am Odd' }).click();
    await page.getByLabel('PIN of Odd').fill('4719');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    await page.waitForURL((url) => url.pathname === '/workshop');
    await page.getByRole('complementary', { name: 'Station' }).getByText('Odd').waitFor();
    await page.getByText('cuts, grades, keeps').waitFor();
    expect(await page.getByLabel('What Odd may do').count()).toBe(0);
  });

  it('sign what they do with their own name, whatever a browser calls itself', async () => {
    const { cookie } = await signIn({ name: 'Odd', password: 'seven herring boats' });
    const blade = { number: 9, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, lifeMetres: 360 };
    const made = await ask('POST', '/api/blades', {
      body: blade,
      cookie: `${cookie}; feather_operator=Runa`,
    });
    expect(made.status).toBe(201);
    const reply = await fetch(`${address}/api/audit`, { headers: { cookie } });
    const changes = (await reply.json()) as { entity: string; author: string }[];
    expect(changes.find(({ entity }) => entity === 'blade')?.author).toBe('Odd');
  });

  it('are let in as far as their role', async () => {
    const { cookie } = await signIn({ name: 'Gast', password: 'only looking today' });
    expect((await ask('GET', '/api/materials', { cookie })).status).toBe(200);
    expect(await ask('POST', '/api/timers', { body: { kind: 'inkDry' }, cookie })).toMatchObject({
      status: 403,
      code: 'notAllowed',
    });
    expect((await fetch(address, { headers: { cookie } })).status).toBe(200);
    const odd = await signIn({ name: 'Odd', password: 'seven herring boats' });
    expect(await ask('POST', '/api/operators', { body: { name: 'X' }, cookie: odd.cookie })).toMatchObject({
      status: 403,
    });
    const { body } = await ask('GET', '/api/sessions/current', { cookie });
    expect(body).toEqual({ name: 'Gast', role: 'guest', by: 'session' });
  });

  it('sign out here, and everywhere with one tap', async () => {
    const one = await signIn({ name: 'Odd', password: 'seven herring boats' });
    const other = await signIn({ name: 'Odd', password: 'seven herring boats' });
    await ask('DELETE', '/api/sessions/current', { cookie: one.cookie });
    expect((await ask('GET', '/api/materials', { cookie: one.cookie })).status).toBe(401);
    expect((await ask('GET', '/api/materials', { cookie: other.cookie })).status).toBe(200);
    const third = await signIn({ name: 'Odd', password: 'seven herring boats' });
    await ask('DELETE', '/api/sessions', { cookie: third.cookie });
    for (const { cookie } of [other, third])
      expect((await ask('GET', '/api/materials', { cookie })).status).toBe(401);
  });

  it('give scripts a token that is shown once and can be taken back', async () => {
    const { cookie } = await signIn(OWNER);
    const { body } = await ask('POST', '/api/tokens', {
      body: { name: 'stock list', role: 'guest' },
      cookie,
    });
    const headers = { authorization: `Bearer ${String(body['token'])}` };
    expect((await ask('GET', '/api/materials', { headers })).status).toBe(200);
    expect((await ask('POST', '/api/timers', { headers, body: { kind: 'inkDry' } })).status).toBe(403);
    const list = await (await fetch(`${address}/api/tokens`, { headers: { cookie } })).text();
    expect(list).not.toContain(String(body['token']).slice(8));
    await ask('DELETE', `/api/tokens/${String(body['id'])}`, { cookie });
    expect((await ask('GET', '/api/materials', { headers })).status).toBe(401);
  });
});

describe('who wants in', () => {
  it('learns from no answer whether somebody has that name', async () => {
    const wrong = await signIn({ name: 'Odd', password: 'not this one at all' });
    const nobody = await signIn({ name: 'Nobody here', password: 'not this one at all' });
    expect(wrong.status).toBe(401);
    expect({ ...nobody, setCookie: '' }).toEqual({ ...wrong, setCookie: '' });
  });

  it('finds its key changed at sign-in, unread by scripts of a page, and not sent from elsewhere', async () => {
    const planted = 'feather_session=planted-by-somebody-else';
    const { cookie, setCookie } = await signIn(OWNER, planted);
    expect(cookie).not.toBe(planted);
    expect(setCookie).toMatch(/feather_session=[\w-]{43}; Max-Age=\d+; Path=\/; HttpOnly; SameSite=Lax/);
    expect((await ask('GET', '/api/materials', { cookie: planted })).status).toBe(401);
  });

  it('finds a key that is a day old changed at the next page, and no page that was made for somebody else', async () => {
    const owner = await signIn(OWNER);
    const guest = await signIn({ name: 'Gast', password: 'only looking today' });
    const store = connectStore(databaseUrl);
    await store('sessions').update({ rotated_at: new Date(Date.now() - 25 * 3_600_000) });
    await store.destroy();
    const see = async (cookie: string) => {
      const reply = await fetch(`${address}/workshop`, { headers: { cookie } });
      const fresh = /feather_session=[\w-]{43}/.exec(reply.headers.getSetCookie().join())?.[0];
      return { fresh, text: await reply.text() };
    };
    const [first, second] = [await see(owner.cookie), await see(guest.cookie)];
    expect(first.fresh).not.toBe(second.fresh);
    for (const { fresh } of [first, second])
      expect((await ask('GET', '/api/materials', { cookie: fresh! })).status).toBe(200);
    expect(first.text).toContain('Tokens of scripts');
    expect(second.text).not.toContain('Tokens of scripts');
    expect((await see(first.fresh!)).fresh).toBe(undefined);
  });

  it('is told nothing more over a stream that was open when the session was ended', async () => {
    const { cookie } = await signIn(OWNER);
    const stream = await fetch(`${address}/api/events?topic=jobs/1`, { headers: { cookie } });
    expect(stream.status).toBe(200);
    await ask('DELETE', '/api/sessions/current', { cookie });
    // Read to its end: a stream that went on would hold this up until the test is.
    const told = await stream.text();
    expect(told).toContain('retry: 1000');
    expect((await fetch(`${address}/api/events?topic=jobs/1`, { headers: { cookie } })).status).toBe(401);
  });

  it('rides on nobody’s session from another site', async () => {
    const { cookie } = await signIn(OWNER);
    for (const headers of [{ origin: 'http://evil.example' }, { 'sec-fetch-site': 'cross-site' }]) {
      expect(await ask('POST', '/api/operators', { cookie, headers, body: { name: 'Evil' } })).toMatchObject({
        status: 403,
        code: 'wrongOrigin',
      });
      expect((await ask('POST', '/api/sessions', { headers, body: OWNER })).code).toBe('wrongOrigin');
    }
  });

  it('is led nowhere but into the application after signing in', async () => {
    for (const to of ['//evil.example', 'https://evil.example', '/\\evil.example', 'javascript:alert(1)']) {
      const html = await (await fetch(`${address}/sign-in?to=${encodeURIComponent(to)}`)).text();
      expect(html).not.toMatch(/evil\.example|javascript:alert/);
    }
  });

  it('makes itself no owner: not with a role, not with another’s number, not without the old password', async () => {
    const { cookie } = await signIn({ name: 'Odd', password: 'seven herring boats' });
    const owner = await signIn(OWNER);
    const reply = await fetch(`${address}/api/accounts`, { headers: { cookie: owner.cookie } });
    const accounts = (await reply.json()) as { id: number; name: string }[];
    const id = (name: string) => accounts.find((one) => one.name === name)?.id;
    const change = (name: string, body: object) =>
      ask('PATCH', `/api/accounts/${id(name)}`, { body, cookie });
    expect(await change('Odd', { role: 'owner' })).toMatchObject({ status: 403 });
    expect(await change('Runa', { password: 'mine from now on' })).toMatchObject({ status: 403 });
    expect(await change('Odd', { password: 'another word for me' })).toMatchObject({ status: 400 });
    const right = await change('Odd', {
      password: 'another word for me',
      oldPassword: 'seven herring boats',
    });
    expect(right.status).toBe(200);
    expect((await ask('GET', '/api/materials', { cookie })).status).toBe(401);
  });

  it('waits after eight wrong tries, also with what is right', async () => {
    for (let tries = 0; tries < 8; tries++) await signIn({ name: 'Gast', password: `guess ${tries}` });
    expect(await signIn({ name: 'Gast', password: 'only looking today' })).toMatchObject({
      status: 429,
      code: 'tooManyTries',
    });
    expect((await signIn(OWNER)).status).toBe(201);
  });

  it('comes from one address, whatever it says of where it comes from', async () => {
    const codes: string[] = [];
    for (let tries = 0; tries < 70 && !codes.includes('tooManyTries'); tries++) {
      const headers = { 'x-forwarded-for': `10.0.${tries}.1`, forwarded: `for=10.1.${tries}.1` };
      codes.push(
        (await ask('POST', '/api/sessions', { headers, body: { name: `n${tries}`, password: 'x y z 1 2' } }))
          .code,
      );
    }
    expect(codes.at(-1)).toBe('tooManyTries');
  });
});
