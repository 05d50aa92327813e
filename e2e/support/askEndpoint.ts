import type { APIContext } from 'astro';
import type { Role } from '#core/people/roles.ts';
import type { Endpoint } from '#web/http/defineEndpoint.ts';
import { findEndpoint } from '#web/http/serveApi.ts';

/** What a request is made of besides its endpoint. */
export interface Asked {
  readonly params?: Readonly<Record<string, string | number>>;
  readonly query?: string;
  readonly body?: unknown;
  readonly author?: string;
  readonly role?: Role;
  readonly key?: string;
}

/** Only for tests: asks an endpoint as the web server would, without one. */
export async function askEndpoint<Reply = unknown>(
  endpoint: Endpoint,
  { params = {}, query = '', body, author = 'Ines', role = 'owner', key }: Asked = {},
): Promise<{ readonly status: number; readonly reply: Reply }> {
  const path = endpoint.path.replace(/\{(\w+)\}/g, (_, name: string) => String(params[name]));
  const url = new URL(`http://127.0.0.1${path}${query}`);
  const request = new Request(url, {
    method: endpoint.method,
    headers: { host: url.host, ...(key === undefined ? {} : { 'idempotency-key': key }) },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const texts = Object.fromEntries(Object.entries(params).map(([name, value]) => [name, String(value)]));
  const cookies = { get: () => ({ value: author }) };
  const who = { name: author, role, by: 'demo', operatorId: null, sessionId: null };
  const api = { request, url, cookies, locals: { who }, clientAddress: '127.0.0.1' } as unknown as APIContext;
  const response = await endpoint.serve(api, texts);
  const text = await response.text();
  const isJson = response.headers.get('content-type')?.includes('json') ?? false;
  return { status: response.status, reply: (isJson ? JSON.parse(text) : text) as Reply };
}

/** Asks whichever endpoint answers an address. */
export async function askPath(
  method: string,
  path: string,
  asked: Omit<Asked, 'params'>,
): Promise<{ readonly status: number; readonly reply: unknown }> {
  const { endpoint, named } = findEndpoint(method, path);
  return askEndpoint(endpoint, { ...asked, params: named });
}
