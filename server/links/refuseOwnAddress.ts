import { lookup } from 'node:dns/promises';
import { isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { AppError } from '#core/errors/appError.ts';

/** A port of the application itself, and at which host it is. */
export interface OwnPort {
  readonly host: string;
  readonly port: number;
  readonly words: string;
}

/**
 * Refuses an address behind which no cutter is but the application: bytes sent there would do harm.
 *
 * @throws AppError `badInput` for its database or its own pages
 */
export async function refuseOwnAddress(
  { host, port }: { readonly host: string; readonly port: number },
  own: readonly OwnPort[],
): Promise<void> {
  const same = own.filter((one) => one.port === port);
  if (same.length === 0) return;
  const meant = await addressesOf(host);
  for (const one of same) {
    const taken = await addressesOf(one.host);
    if (![...meant].some((address) => taken.has(address))) continue;
    throw new AppError('badInput', `${host}, port ${port}, is ${one.words}: no cutter listens there.`);
  }
}

/** Where a name leads; all addresses of this computer are one. A name that leads nowhere is nobody's. */
async function addressesOf(name: string): Promise<ReadonlySet<string>> {
  const bare = name
    .trim()
    .replace(/^\[|\]$/g, '')
    .toLowerCase();
  const found = isIP(bare)
    ? [bare]
    : await lookup(bare, { all: true }).then(
        (all) => all.map(({ address }) => address),
        () => [],
      );
  return new Set(found.map((address) => (isOwn(address) ? 'here' : address)));
}

function isOwn(address: string): boolean {
  const plain = address.replace(/^::ffff:/, '');
  if (/^127\./.test(plain) || plain === '0.0.0.0' || plain === '::' || plain === '::1') return true;
  return Object.values(networkInterfaces()).some((all) => all?.some((one) => one.address === plain));
}
