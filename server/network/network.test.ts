import { X509Certificate } from 'node:crypto';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { createServer, request } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { fingerprintOf, madeCertificate } from '#server/network/certificateFolder.ts';
import { lastingOrigin } from '#server/network/describeNetwork.ts';
import { issueCertificate, makeAuthority, type KeptCertificate } from '#server/network/makeCertificates.ts';
import { listOwnNames, type OwnNames } from '#server/network/names.ts';
import { readNetworkSettings } from '#server/network/networkSettings.ts';
import { addressesOf, stampRequest, type Door } from '#server/network/whereAsked.ts';

const NOW = new Date('2026-11-29T08:00:00Z');
const OWN: OwnNames = { names: ['loft', 'loft.local'], addresses: ['192.168.7.20', 'fd12::7'] };
const NONE: OwnNames = { names: [], addresses: [] };
const ALONE: Door = { isNetwork: false, own: OWN, publicUrl: null };
const OUT: Door = { ...ALONE, isNetwork: true };
const DAY_MS = 86_400_000;

function asked(headers: Record<string, string | undefined>): IncomingMessage {
  return { headers: { ...headers }, socket: { remoteAddress: '192.168.7.33' } } as unknown as IncomingMessage;
}

describe('the Host a request names', () => {
  it.each([
    ['127.0.0.1:4310', true],
    ['localhost', true],
    ['LOCALHOST:80', true],
    ['[::1]:4310', true],
    ['evil.example', false],
    ['evil.example:4310', false],
    ['127.0.0.1.evil.example', false],
    ['localhost:4310.evil.example', false],
    ['loft.local', false],
    ['', false],
    [undefined, false],
  ])('on loopback: %s is taken: %s', (host, isKnown) => {
    expect(stampRequest(asked({ host }), ALONE)).toBe(isKnown);
  });

  it.each([
    ['loft.local:4311', true],
    ['LOFT:4311', true],
    ['192.168.7.20:4311', true],
    ['[fd12::7]:4311', true],
    ['localhost:4311', true],
    ['192.168.7.21:4311', false],
    ['attic.local:4311', false],
    ['cutter.example', false],
  ])('on the network: %s is taken: %s', (host, isKnown) => {
    expect(stampRequest(asked({ host }), { ...OUT, publicUrl: 'https://cutter.example' })).toBe(isKnown);
  });
});

describe('what a request says of itself', () => {
  const lies = {
    'x-forwarded-for': '203.0.113.9',
    'x-forwarded-proto': 'https',
    'x-forwarded-host': 'bank.example',
    forwarded: 'for=203.0.113.9',
    'x-feather-origin': 'https://bank.example',
    'x-feather-address': '203.0.113.9',
  };

  it.each([ALONE, OUT])('is written by the server itself, whatever was sent (%#)', (door) => {
    const request = asked({ host: 'localhost:4310', ...lies });
    stampRequest(request, door);
    expect(request.headers).toMatchObject({
      'x-feather-origin': `${door.isNetwork ? 'https' : 'http'}://localhost:4310`,
      'x-feather-address': '192.168.7.33',
    });
    expect(Object.entries(request.headers).filter(([, value]) => value === '203.0.113.9')).toEqual([]);
    expect(request.headers['x-forwarded-host']).toBeUndefined();
  });

  it('counts behind a proxy of this computer: what the proxy itself wrote, the last', () => {
    const door = { ...ALONE, publicUrl: 'https://cutter.example' };
    const through = asked({ host: 'cutter.example', 'x-forwarded-for': '10.9.9.9, 198.51.100.4' });
    expect(stampRequest(through, door)).toBe(true);
    expect(through.headers).toMatchObject({
      'x-feather-origin': 'https://cutter.example',
      'x-feather-address': '198.51.100.4',
    });
    const beside = asked({ host: '127.0.0.1:4310', 'x-forwarded-for': '198.51.100.4' });
    expect(stampRequest(beside, door)).toBe(true);
    expect(beside.headers).toMatchObject({
      'x-feather-origin': 'http://127.0.0.1:4310',
      'x-feather-address': '192.168.7.33',
    });
  });
});

describe('settings', () => {
  it('take nothing for not set, and refuse a public address without TLS', () => {
    expect(readNetworkSettings({ FEATHER_NETWORK_PORT: '', FEATHER_PUBLIC_URL: '' })).toMatchObject({
      port: 4310,
      networkPort: null,
      publicUrl: null,
    });
    expect(readNetworkSettings({ FEATHER_NAMES: 'bench.lan, cutter.lan' }).names).toEqual([
      'bench.lan',
      'cutter.lan',
    ]);
    expect(() => readNetworkSettings({ FEATHER_PUBLIC_URL: 'http://cutter.example' })).toThrow(/https/);
  });
});

describe('names of this computer', () => {
  it('are its own, and the addresses of its cards without loopback and without those of one cable', () => {
    const card = { netmask: '', mac: '', cidr: null };
    const own = listOwnNames(['Bench.lan', '192.0.2.1'], 'Loft', {
      lo: [{ ...card, address: '127.0.0.1', family: 'IPv4', internal: true }],
      eth0: [
        { ...card, address: 'fe80::1', family: 'IPv6', internal: false, scopeid: 2 },
        { ...card, address: 'fd12::7', family: 'IPv6', internal: false, scopeid: 0 },
        { ...card, address: '192.168.7.20', family: 'IPv4', internal: false },
      ],
    });
    expect(own).toEqual({
      names: ['loft', 'loft.local', 'bench.lan'],
      addresses: ['192.168.7.20', 'fd12::7'],
    });
    expect(addressesOf(own, 4311)).toEqual([
      'https://192.168.7.20:4311',
      'https://[fd12::7]:4311',
      'https://loft:4311',
      'https://loft.local:4311',
      'https://bench.lan:4311',
    ]);
  });

  it('a code on paper never leads to the loopback where the network knows another way', () => {
    const off = readNetworkSettings({});
    expect(lastingOrigin('http://127.0.0.1:4310', off)).toBe('http://127.0.0.1:4310');
    const behind = readNetworkSettings({ FEATHER_PUBLIC_URL: 'https://cutter.example/' });
    expect(lastingOrigin('http://localhost:4310', behind)).toBe('https://cutter.example');
    expect(lastingOrigin('https://192.168.7.20:4311', behind)).toBe('https://192.168.7.20:4311');
  });
});

/** Has OpenSSL, through Node's own client, decide whether a browser that trusts `authority` goes to `name`. */
async function isTrusted(shown: KeptCertificate, authority: string, name: string): Promise<string> {
  const server = createServer({ cert: shown.certificate, key: shown.key }, (_, response) =>
    response.end('in'),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  try {
    return await new Promise((resolve) => {
      request({ host: '127.0.0.1', port, servername: name, ca: authority, agent: false }, (response) => {
        response.resume().on('end', () => resolve('in'));
      })
        .on('error', (error: NodeJS.ErrnoException) => resolve(`${error.code ?? ''} ${error.message}`))
        .end();
    });
  } finally {
    server.close();
    server.closeAllConnections();
  }
}

describe('certificates that are made here (judged by OpenSSL)', () => {
  it('are taken for the names of the computer, by whoever trusts the authority, and by nobody else', async () => {
    const now = new Date();
    const [authority, other] = await Promise.all([makeAuthority(OWN, now), makeAuthority(OWN, now)]);
    const shown = await issueCertificate(authority, OWN, now);
    expect(await isTrusted(shown, authority.certificate, 'loft.local')).toBe('in');
    expect(await isTrusted(shown, authority.certificate, 'attic.local')).toMatch(
      /ERR_TLS_CERT_ALTNAME_INVALID/,
    );
    expect(await isTrusted(shown, other.certificate, 'loft.local')).toMatch(/VERIFY|SIGNATURE|SIGNED/);
  });

  it('cannot be made for a bank by whoever takes the key away', async () => {
    const now = new Date();
    const authority = await makeAuthority(OWN, now);
    const forged = await issueCertificate(authority, { names: ['bank.example'], addresses: [] }, now);
    expect(await isTrusted(forged, authority.certificate, 'bank.example')).toMatch(
      /permitted subtree violation/,
    );
    const abroad = await issueCertificate(authority, { names: [], addresses: ['203.0.113.5'] }, now);
    expect(await isTrusted(abroad, authority.certificate, 'localhost')).toMatch(
      /permitted subtree violation/,
    );
  });

  describe('in a folder', () => {
    let folder: string;
    beforeEach(() => {
      folder = mkdtempSync(join(tmpdir(), 'feather-tls-'));
    });
    afterEach(() => rmSync(folder, { recursive: true }));

    it('stay as they are while they serve, readable by their owner alone', async () => {
      const first = await madeCertificate(folder, OWN, NOW);
      const again = await madeCertificate(folder, OWN, new Date(NOW.getTime() + 300 * DAY_MS));
      expect(again).toEqual(first);
      expect(fingerprintOf(first.certificate)).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
      expect(statSync(join(folder, 'authority.key.pem')).mode & 0o077).toBe(0);
    });

    it('are made anew a month before their end and for another address, under the same authority', async () => {
      const first = await madeCertificate(folder, OWN, NOW);
      const late = await madeCertificate(folder, OWN, new Date(NOW.getTime() + 370 * DAY_MS));
      expect(late.certificate).not.toBe(first.certificate);
      const moved = { ...OWN, addresses: ['192.168.7.99'] };
      const next = await madeCertificate(folder, moved, new Date(NOW.getTime() + 371 * DAY_MS));
      expect(next.authority).toBe(first.authority);
      expect(new X509Certificate(next.certificate).checkIP('192.168.7.99')).toBe('192.168.7.99');
    });

    it('leave out what the authority may not vouch for, rather than be refused whole', async () => {
      const now = new Date();
      await madeCertificate(folder, OWN, now);
      const wider = {
        names: [...OWN.names, 'cutter.example', 'bench.lan'],
        addresses: ['203.0.113.5', '10.1.2.3'],
      };
      const shown = await madeCertificate(folder, wider, now);
      expect(await isTrusted(shown, shown.authority ?? '', 'bench.lan')).toBe('in');
      const names = new X509Certificate(shown.certificate).subjectAltName;
      expect(names).not.toMatch(/cutter\.example|203\.0\.113\.5/);
      expect(await madeCertificate(folder, wider, now)).toEqual(shown);
    });

    it('are made with an address of the open network where the computer had one from the start', async () => {
      const now = new Date();
      const shown = await madeCertificate(folder, { ...NONE, addresses: ['203.0.113.5'] }, now);
      expect(new X509Certificate(shown.certificate).checkIP('203.0.113.5')).toBe('203.0.113.5');
      expect(await isTrusted(shown, shown.authority ?? '', 'localhost')).toBe('in');
    });
  });
});
