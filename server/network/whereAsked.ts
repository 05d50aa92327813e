import type { IncomingMessage } from 'node:http';
import { hostName, inLink, LOOPBACK, type OwnNames } from '#server/network/names.ts';

/** Set by the server itself on every request, whatever was sent under these names. */
export const ORIGIN_HEADER = 'x-feather-origin';
export const ADDRESS_HEADER = 'x-feather-address';

/** Headers by which a proxy says for whom it asks. */
const FORWARDED = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-port',
  'x-forwarded-proto',
];

/** What decides whether a request is meant for this application. */
export interface Door {
  /** Whether it came with TLS, on the workshop's network. */
  readonly isNetwork: boolean;
  readonly own: OwnNames;
  /** Under which a proxy on this computer serves it. */
  readonly publicUrl: string | null;
}

/**
 * Writes on a request how it reached the application and from where. What proxies say counts only behind a proxy of our
 * own: on loopback, and under the name it serves.
 *
 * @returns false when it names a host that this application is not: a page of somebody else whose name was made to lead
 *   here
 */
export function stampRequest(request: IncomingMessage, { isNetwork, own, publicUrl }: Door): boolean {
  const { headers } = request;
  const forwarded = lastOf(headers['x-forwarded-for']);
  for (const name of FORWARDED) headers[name] = undefined;
  const host = headers.host;
  if (host === undefined) return false;
  const name = hostName(host);
  const isPublic = publicUrl !== null && !isNetwork && host.toLowerCase() === new URL(publicUrl).host;
  const known: readonly string[] = isNetwork ? [...LOOPBACK, ...own.names, ...own.addresses] : LOOPBACK;
  if (!isPublic && !known.includes(name)) return false;
  headers[ORIGIN_HEADER] = isPublic ? publicUrl : `${isNetwork ? 'https' : 'http'}://${host}`;
  headers[ADDRESS_HEADER] = (isPublic ? forwarded : undefined) ?? request.socket.remoteAddress ?? '';
  return true;
}

/** Our own proxy wrote the last of them; those before were sent by whoever asks. */
function lastOf(header: string | readonly string[] | undefined): string | undefined {
  const text = typeof header === 'string' ? header : header?.join(',');
  const last = text?.split(',').at(-1)?.trim();
  return last === '' ? undefined : last;
}

/**
 * The addresses that other computers and phones open.
 *
 * @example addressesOf({ names: ['desk.local'], addresses: ['192.0.2.7'] }, 4311)[0] // 'https://192.0.2.7:4311'
 */
export function addressesOf({ names, addresses }: OwnNames, port: number): readonly string[] {
  const end = port === 443 ? '' : `:${port}`;
  // Not every phone looks names up in its own network: a plain address always leads there.
  return [...addresses.map(inLink), ...names].map((name) => `https://${name}${end}`);
}
