import 'reflect-metadata';
import { AsnConvert } from '@peculiar/asn1-schema';
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';
import { randomBytes, webcrypto } from 'node:crypto';
import { BlockList, isIP } from 'node:net';
import { LOOPBACK, type OwnNames } from '#server/network/names.ts';

/** A certificate and its private key, as PEM. */
export interface KeptCertificate {
  readonly certificate: string;
  readonly key: string;
}

const P256 = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;
const DAY_MS = 86_400_000;
const AUTHORITY_DAYS = 3650;
/** Some browsers take none that is valid for longer than 398 days. */
const CERTIFICATE_DAYS = 397;
/** Clocks of phones and small computers differ. */
const EARLIER_MS = DAY_MS;

/** Addresses that are never anybody's in the open network. Sources: RFC 1918, RFC 3927, RFC 4193, RFC 6890. */
const PRIVATE = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '169.254.0.0/16',
  '127.0.0.0/8',
  'fc00::/7',
  '::1/128',
];
/** Names that are never anybody's in the open network. Sources: RFC 6761, RFC 6762, RFC 8375. */
const PRIVATE_NAMES = ['localhost', 'local', 'home.arpa', 'lan', 'internal'];

x509.cryptoProvider.set(webcrypto as unknown as Crypto);

/**
 * What phones are asked to trust. It can vouch for this workshop's names and for private addresses alone, so whoever
 * takes its key away cannot use it against other sites. Sources: RFC 5280, sections 4.2.1.9 and 4.2.1.10.
 */
export async function makeAuthority(names: OwnNames, now: Date): Promise<KeptCertificate> {
  const keys = await makeKeys();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Pale Feather workshop ${randomBytes(3).toString('hex')}`,
    ...validFor(now, AUTHORITY_DAYS),
    signingAlgorithm: P256,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      onlyFor(names),
    ],
  });
  return keep(certificate, keys);
}

/**
 * What the server shows, for all names it has now.
 *
 * @throws Error when the authority is not one
 */
export async function issueCertificate(
  authority: KeptCertificate,
  { names, addresses }: OwnNames,
  now: Date,
): Promise<KeptCertificate> {
  const issuer = new x509.X509Certificate(authority.certificate);
  const signingKey = await readKey(authority.key);
  const keys = await makeKeys();
  const all = [...names, ...addresses, ...LOOPBACK];
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=Pale Feather`,
    issuer: issuer.subject,
    ...validFor(now, CERTIFICATE_DAYS),
    signingAlgorithm: P256,
    publicKey: keys.publicKey,
    signingKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        all.map((value) => ({ type: isIP(value) ? ('ip' as const) : ('dns' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
    ],
  });
  return keep(certificate, keys);
}

/**
 * Which of its names an authority may vouch for that was made when it had `known`: one name too many, and browsers
 * refuse the whole certificate.
 */
export function namesVouchedFor(known: OwnNames, { names, addresses }: OwnNames): OwnNames {
  const ranges = new BlockList();
  for (const range of PRIVATE) {
    const [address = '', bits] = range.split('/');
    ranges.addSubnet(address, Number(bits), isIP(address) === 6 ? 'ipv6' : 'ipv4');
  }
  const endings = [...PRIVATE_NAMES, ...known.names];
  return {
    names: names.filter((name) => endings.some((end) => name === end || name.endsWith(`.${end}`))),
    addresses: addresses.filter(
      (address) =>
        known.addresses.includes(address) || ranges.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4'),
    ),
  };
}

/** Which names and addresses the authority may vouch for: a critical extension, which browsers obey. */
function onlyFor({ names, addresses }: OwnNames): x509.Extension {
  const allowed = [
    ...PRIVATE.map((range) => new GeneralName({ iPAddress: range })),
    ...addresses.map(
      (address) => new GeneralName({ iPAddress: `${address}/${isIP(address) === 6 ? 128 : 32}` }),
    ),
    ...[...new Set([...PRIVATE_NAMES, ...names])].map((name) => new GeneralName({ dNSName: name })),
  ];
  const constraints = new NameConstraints({
    permittedSubtrees: new GeneralSubtrees(allowed.map((base) => new GeneralSubtree({ base }))),
  });
  return new x509.Extension(id_ce_nameConstraints, true, AsnConvert.serialize(constraints));
}

function makeKeys(): Promise<CryptoKeyPair> {
  return webcrypto.subtle.generateKey(P256, true, ['sign', 'verify']) as Promise<CryptoKeyPair>;
}

function readKey(pem: string): Promise<CryptoKey> {
  const [der] = x509.PemConverter.decode(pem);
  if (!der) throw new Error('The key of the workshop’s own certificates is no key.');
  return webcrypto.subtle.importKey('pkcs8', der, P256, false, ['sign']) as Promise<CryptoKey>;
}

async function keep(certificate: x509.X509Certificate, keys: CryptoKeyPair): Promise<KeptCertificate> {
  const key = await webcrypto.subtle.exportKey('pkcs8', keys.privateKey as webcrypto.CryptoKey);
  return { certificate: certificate.toString('pem'), key: x509.PemConverter.encode(key, 'PRIVATE KEY') };
}

function validFor(now: Date, days: number) {
  return {
    notBefore: new Date(now.getTime() - EARLIER_MS),
    notAfter: new Date(now.getTime() - EARLIER_MS + days * DAY_MS),
  };
}

/** A positive number of 127 random bits: RFC 5280 asks for at most 20 bytes, browsers for at least 64 random bits. */
function serial(): string {
  const bytes = randomBytes(16);
  bytes[0] = ((bytes[0] ?? 0) & 0x7f) | 0x40;
  return bytes.toString('hex');
}
