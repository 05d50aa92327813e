import { hostname, networkInterfaces } from 'node:os';
import { isIP } from 'node:net';

/** Under what this computer may be reached. */
export interface OwnNames {
  /** Names, lower case. */
  readonly names: readonly string[];
  /** Addresses of its network cards, the loopback left out. */
  readonly addresses: readonly string[];
}

/** By which this computer knows itself. */
export const LOOPBACK = ['127.0.0.1', 'localhost', '::1'] as const;

/**
 * The names and addresses of this computer as they are now: an address may change whenever the router gives out others.
 *
 * @param more further names it is served under
 */
export function listOwnNames(
  more: readonly string[] = [],
  host = hostname(),
  interfaces: ReturnType<typeof networkInterfaces> = networkInterfaces(),
): OwnNames {
  const own = host.toLowerCase();
  const isShort = own !== '' && !own.includes('.');
  const addresses = Object.values(interfaces)
    .flatMap((cards) => cards ?? [])
    // One with a zone belongs to one cable alone: no browser takes it.
    .filter(({ internal, address }) => !internal && !address.toLowerCase().startsWith('fe80:'))
    .map(({ address }) => address.toLowerCase());
  return {
    names: [
      ...new Set([own, ...(isShort ? [`${own}.local`] : []), ...more.map((name) => name.toLowerCase())]),
    ].filter((name) => name !== '' && name !== 'localhost' && isIP(name) === 0),
    addresses: [...new Set(addresses)].sort((a, b) => isIP(a) - isIP(b)),
  };
}

/**
 * The name in a Host header, without its port and brackets.
 *
 * @example hostName('[::1]:4310') // '::1'
 */
export function hostName(header: string): string {
  return header
    .replace(/:\d+$/, '')
    .replace(/^\[(.*)\]$/, '$1')
    .toLowerCase();
}

/** An address as it stands in a link: a long one in brackets. */
export function inLink(address: string): string {
  return isIP(address) === 6 ? `[${address}]` : address;
}
