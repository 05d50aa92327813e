import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  issueCertificate,
  makeAuthority,
  namesVouchedFor,
  type KeptCertificate,
} from '#server/network/makeCertificates.ts';
import type { OwnNames } from '#server/network/names.ts';

/** What the server shows to browsers, and what vouches for it. */
export interface ShownCertificate extends KeptCertificate {
  /** PEM of what phones are to trust; `null` where the owner brought a certificate of their own. */
  readonly authority: string | null;
}

/** A certificate that ends sooner is made anew, ms. */
const RENEW_MS = 30 * 86_400_000;

/**
 * The certificate made here: the one in the folder, or a new one when it ends soon or a name is missing. The authority
 * stays, so phones that trust it need nothing done.
 */
export async function madeCertificate(folder: string, names: OwnNames, now: Date): Promise<ShownCertificate> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const { authority, madeFor } = await openAuthority(folder, names, now);
  const vouched = namesVouchedFor(madeFor, names);
  const kept = readKept(folder, 'server');
  if (kept && isGood(kept.certificate, authority.certificate, vouched, now)) {
    return { ...kept, authority: authority.certificate };
  }
  const made = await issueCertificate(authority, vouched, now);
  writeKept(folder, 'server', made);
  return { ...made, authority: authority.certificate };
}

/** The workshop's authority and the names it was made with; made where there is none. */
async function openAuthority(folder: string, names: OwnNames, now: Date) {
  const kept = readKept(folder, 'authority');
  const note = join(folder, 'authority.json');
  if (kept && existsSync(note)) {
    return { authority: kept, madeFor: JSON.parse(readFileSync(note, 'utf8')) as OwnNames };
  }
  const authority = await makeAuthority(names, now);
  writeFileSync(note, JSON.stringify(names), { mode: 0o600 });
  writeKept(folder, 'authority', authority);
  return { authority, madeFor: names };
}

/** A certificate of the owner's own, with all between it and its root. @throws Error that says what is wrong with it */
export function ownCertificate(certificateFile: string, keyFile: string, now: Date): ShownCertificate {
  const certificate = readFileSync(certificateFile, 'utf8');
  const parsed = new X509Certificate(certificate);
  if (new Date(parsed.validTo) <= now) {
    throw new Error(`The certificate ${certificateFile} ended on ${parsed.validTo}: put a new one there.`);
  }
  return { certificate, key: readFileSync(keyFile, 'utf8'), authority: null };
}

/** The SHA-256 of a certificate as browsers show it: pairs with colons. */
export function fingerprintOf(certificate: string): string {
  return new X509Certificate(certificate).fingerprint256;
}

/** Whether a certificate still serves: of this authority, for every name, for a month at least. */
function isGood(certificate: string, authority: string, { names, addresses }: OwnNames, now: Date): boolean {
  const shown = new X509Certificate(certificate);
  return (
    shown.checkIssued(new X509Certificate(authority)) &&
    new Date(shown.validTo).getTime() - now.getTime() > RENEW_MS &&
    names.every((name) => shown.checkHost(name) !== undefined) &&
    addresses.every((address) => shown.checkIP(address) !== undefined)
  );
}

function filesOf(folder: string, name: string) {
  return { certificate: join(folder, `${name}.pem`), key: join(folder, `${name}.key.pem`) };
}

function readKept(folder: string, name: string): KeptCertificate | null {
  const { certificate, key } = filesOf(folder, name);
  if (!existsSync(certificate) || !existsSync(key)) return null;
  return { certificate: readFileSync(certificate, 'utf8'), key: readFileSync(key, 'utf8') };
}

/** Each file takes its name when it is whole; the certificate last, so that a key is never missing beside it. */
function writeKept(folder: string, name: string, kept: KeptCertificate): void {
  const files = filesOf(folder, name);
  for (const part of ['key', 'certificate'] as const) {
    writeFileSync(`${files[part]}.half`, kept[part], { mode: 0o600 });
    renameSync(`${files[part]}.half`, files[part]);
  }
}
