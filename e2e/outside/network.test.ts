import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { X509Certificate } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findFreePort } from '#commands/ports/freePort.ts';
import { bareWorkshop, type BareWorkshop } from '#e2e/support/bareWorkshop.ts';
import { FarSpace } from '#e2e/support/farSpace.ts';

/** A workshop on its network, asked by a phone that stands in a network namespace of its own. */
let workshop: BareWorkshop;
let phone: FarSpace;
let port: number;

beforeAll(async () => {
  phone = FarSpace.open(78);
  port = await findFreePort();
  workshop = await bareWorkshop('network', null, { FEATHER_NETWORK_PORT: String(port) });
});
afterAll(async () => {
  await workshop.end();
  phone.close();
});

interface Heard {
  readonly status?: number;
  readonly location?: string;
  readonly cookies?: readonly string[];
  readonly body?: string;
  readonly error?: string;
}

/** What the phone hears: with TLS, trusting the workshop's authority unless told not to. */
function ask(
  path: string,
  {
    scheme = 'https',
    at = port,
    headers = {},
    method = 'GET',
    body = '',
    isTrusting = true,
  }: {
    scheme?: 'http' | 'https';
    at?: number;
    headers?: Record<string, string>;
    method?: string;
    body?: string;
    isTrusting?: boolean;
  } = {},
): Heard {
  const ca = isTrusting ? readFileSync(join(workshop.home, 'tls/authority.pem'), 'utf8') : undefined;
  const options = { host: phone.host, port: at, path, method, headers, ca, agent: false, timeout: 20_000 };
  return JSON.parse(
    phone.run(`
      const say = (heard) => { console.log(JSON.stringify(heard)); process.exit(0); };
      // Under another name the connection itself must stand, so that the server is what refuses.
      const check = ${'host' in headers} ? { checkServerIdentity: () => undefined } : {};
      const asked = require('node:${scheme}').request({ ...${JSON.stringify(options)}, ...check }, (reply) => {
        let body = '';
        reply.on('data', (part) => (body += part)).on('end', () => say({
          status: reply.statusCode, location: reply.headers.location,
          cookies: reply.headers['set-cookie'], body: body.slice(0, 20000),
        }));
      });
      asked.on('error', ({ code }) => say({ error: code })).on('timeout', () => say({ error: 'silent' }));
      asked.end(${JSON.stringify(body)});
    `),
  ) as Heard;
}

describe('a phone on the network of the workshop', () => {
  it('is led to the owner’s first page with TLS, once it trusts the workshop', () => {
    expect(ask('/')).toMatchObject({ status: 303, location: '/first-owner' });
    expect(ask('/', { isTrusting: false }).error).toMatch(/CERT|SIGNED|VERIFY|SIGNATURE/);
  });

  it('finds nothing without TLS, and not the port that stands on loopback', () => {
    expect(ask('/', { scheme: 'http' }).error).toBeDefined();
    const loopback = Number(new URL(workshop.address).port);
    expect(ask('/', { scheme: 'http', at: loopback })).toEqual({ error: 'ECONNREFUSED' });
    expect(ask('/', { at: loopback })).toEqual({ error: 'ECONNREFUSED' });
  });

  it('is refused under a name that is not the workshop’s', () => {
    for (const host of ['evil.example', `${phone.ownAddress}:${port}`, `x.${phone.host}`]) {
      expect(ask('/', { headers: { host } }), host).toMatchObject({ status: 421 });
    }
    expect(ask('/', { headers: { host: 'localhost' } }).status).toBe(303);
  });

  it('reads which certificate to trust, and gets just that one', () => {
    const page = ask('/on-a-phone');
    const authority = new X509Certificate(readFileSync(join(workshop.home, 'tls/authority.pem')));
    const print = authority.fingerprint256;
    expect(page.body).toContain(print.slice(0, 24));
    const got = ask('/api/network/authority');
    expect(new X509Certificate(got.body ?? '').fingerprint256).toBe(print);
    // Nothing of the keys can be had.
    for (const file of ['authority.key.pem', 'server.key.pem']) {
      for (const path of [`/tls/${file}`, `/../tls/${file}`, `/%2e%2e/tls/${file}`]) {
        expect(ask(path).body, path).not.toContain('PRIVATE KEY');
      }
    }
  });

  it('signs in with cookies that go with TLS alone, and is told the addresses then', () => {
    const headers = { 'content-type': 'application/json', origin: `https://${phone.host}:${port}` };
    const owner = JSON.stringify({ name: 'Runa', password: 'wet carton 7 gulls' });
    const made = ask('/api/owner', { method: 'POST', headers, body: owner });
    expect(made).toMatchObject({ status: 201 });
    const [cookie = ''] = made.cookies ?? [];
    expect(cookie).toMatch(/; HttpOnly.*; Secure|; Secure.*; HttpOnly/i);
    const known = { cookie: cookie.split(';')[0] ?? '' };
    const { addresses } = JSON.parse(ask('/api/network', { headers: known }).body ?? '') as {
      addresses: readonly string[];
    };
    expect(addresses).toContain(`https://${phone.host}:${port}`);
    expect(ask('/', { headers: known }).status).toBe(200);
    expect(ask('/api/network').status).toBe(401);
    // Another site that makes this phone's browser ask is refused.
    const forged = { ...known, 'content-type': 'application/json', origin: 'https://evil.example' };
    expect(ask('/api/operators', { method: 'POST', headers: forged, body: '{"name":"Eve"}' }).status).toBe(
      403,
    );
  });

  it('is counted by its own address, whatever it says of itself', () => {
    const headers = { 'content-type': 'application/json' };
    const body = JSON.stringify({ name: 'Runa', password: 'no such word' });
    const lie = (place: number) => ({ ...headers, 'x-forwarded-for': `198.51.100.${place}` });
    const answers = Array.from(
      { length: 10 },
      (_, place) => ask('/api/sessions', { method: 'POST', headers: lie(place), body }).status,
    );
    expect(answers.at(-1)).toBe(429);
  });
});
