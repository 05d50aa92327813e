import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fingerprintOf } from '#server/network/certificateFolder.ts';
import { hostName, listOwnNames, LOOPBACK } from '#server/network/names.ts';
import type { NetworkSettings } from '#server/network/networkSettings.ts';
import { addressesOf } from '#server/network/whereAsked.ts';

/** How other computers and phones reach the workshop. */
export interface NetworkDescription {
  /** The best first; none where it listens on loopback alone. */
  readonly addresses: readonly string[];
  /** SHA-256 of what the server shows; `null` without TLS of its own. */
  readonly fingerprint: string | null;
  /** What a phone may be told to trust; `null` where the owner brought a certificate, which phones trust already. */
  readonly authority: { readonly pem: string; readonly fingerprint: string } | null;
}

export function describeNetwork({
  networkPort,
  tlsFolder,
  own,
  names,
  publicUrl,
}: NetworkSettings): NetworkDescription {
  const outside = publicUrl === null ? [] : [publicUrl];
  if (networkPort === null) return { addresses: outside, fingerprint: null, authority: null };
  const pem = own || !tlsFolder ? null : readIfThere(join(tlsFolder, 'authority.pem'));
  const shown = own ? readIfThere(own.certificate) : tlsFolder && readIfThere(join(tlsFolder, 'server.pem'));
  return {
    addresses: [...outside, ...addressesOf(listOwnNames(names), networkPort)],
    fingerprint: shown ? fingerprintOf(shown) : null,
    authority: pem === null ? null : { pem, fingerprint: fingerprintOf(pem) },
  };
}

/**
 * Where a code on paper leads: a phone cannot follow one that names the loopback of another computer.
 *
 * @param origin by which whoever prints it reached the application
 */
export function lastingOrigin(origin: string, network: NetworkSettings): string {
  const isHere = (LOOPBACK as readonly string[]).includes(hostName(new URL(origin).host));
  return (isHere && describeNetwork(network).addresses[0]) || origin;
}

function readIfThere(file: string): string | null {
  return existsSync(file) ? readFileSync(file, 'utf8') : null;
}
