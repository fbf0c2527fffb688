import 'reflect-metadata'; // the library below asks for it
import { randomBytes, webcrypto, X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { isIP } from 'node:net';
import path from 'node:path';
import * as x509 from '@peculiar/x509';
import { writeWhole } from './whole-file';

/** What a TLS listener needs, and what a phone may install. */
export interface Certificates {
  /** Certificate of the authority, PEM: public. */
  readonly authorityPem: string;
  /** SHA-256 of the authority's certificate, as browsers show it. */
  readonly fingerprint: string;
  readonly certificatePem: string;
  readonly keyPem: string;
}

const DAY_MS = 86_400_000;
const AUTHORITY_DAYS = 3650;
/** Browsers refuse certificates that live much longer than a year (common practice, no source). */
const CERTIFICATE_DAYS = 397;
/** Renewed when less than this is left. */
const RENEW_DAYS = 30;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };

/** Address and mask of the ranges that are never on the Internet: RFC 1918, loopback, link-local (RFC 3927, 4291), unique local (RFC 4193). */
const LOCAL_RANGES = [
  ...['0a000000ff000000', 'ac100000fff00000', 'c0a80000ffff0000', '7f000000ff000000', 'a9fe0000ffff0000'],
  `fc${'0'.repeat(30)}fe${'0'.repeat(30)}`,
  `fe80${'0'.repeat(28)}ffc0${'0'.repeat(28)}`,
];
const LOCAL_NAMES = ['local', 'localhost'];

/** One element of DER (ITU-T X.690): tag, length, value. */
function der(tag: number, value: Buffer): Buffer {
  const { length } = value;
  const size = length < 0x80 ? [length] : length < 0x100 ? [0x81, length] : [0x82, length >> 8, length & 0xff];
  return Buffer.concat([Buffer.from([tag, ...size]), value]);
}

/** Binds the authority to local addresses: a phone that trusts it trusts it for nothing on the Internet (RFC 5280, 4.2.1.10). */
function localOnly(): x509.Extension {
  const permitted = [
    ...LOCAL_NAMES.map((name) => der(0x82, Buffer.from(name, 'ascii'))),
    ...LOCAL_RANGES.map((range) => der(0x87, Buffer.from(range, 'hex'))),
  ].map((name) => der(0x30, name));
  const value = der(0x30, der(0xa0, Buffer.concat(permitted)));
  return new x509.Extension('2.5.29.30', true, Uint8Array.from(value).buffer);
}

const newKeys = (): Promise<webcrypto.CryptoKeyPair> =>
  webcrypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, true, ['sign', 'verify']);

async function privatePem({ privateKey }: webcrypto.CryptoKeyPair): Promise<string> {
  const bytes = await webcrypto.subtle.exportKey('pkcs8', privateKey);
  return x509.PemConverter.encode(bytes, 'PRIVATE KEY');
}

async function keysFrom(pem: string, certificate: x509.X509Certificate): Promise<webcrypto.CryptoKeyPair> {
  const pkcs8 = x509.PemConverter.decodeFirst(pem);
  return {
    privateKey: await webcrypto.subtle.importKey('pkcs8', pkcs8, ALGORITHM, true, ['sign']),
    publicKey: await webcrypto.subtle.importKey('spki', certificate.publicKey.rawData, ALGORITHM, true, ['verify']),
  };
}

/** A serial number: positive, 16 bytes (RFC 5280, 4.1.2.2). */
function serial(): string {
  const bytes = randomBytes(16);
  bytes[0] &= 0x7f;
  return bytes.toString('hex');
}

/** Reads a pair of files; undefined unless both are there. */
const pairOf = (folder: string, name: string): { readonly pem: string; readonly key: string } | undefined => {
  const [pem, key] = [path.join(folder, `${name}.pem`), path.join(folder, `${name}-key.pem`)];
  return existsSync(pem) && existsSync(key)
    ? { pem: readFileSync(pem, 'utf8'), key: readFileSync(key, 'utf8') }
    : undefined;
};
function keepPair(folder: string, name: string, { pem, key }: { readonly pem: string; readonly key: string }): void {
  writeWhole(path.join(folder, `${name}-key.pem`), key);
  writeWhole(path.join(folder, `${name}.pem`), pem);
}

async function authorityOf(
  folder: string,
  nowMs: number,
): Promise<{ certificate: x509.X509Certificate; keys: webcrypto.CryptoKeyPair; pem: string }> {
  const kept = pairOf(folder, 'authority');
  if (kept) {
    const certificate = new x509.X509Certificate(kept.pem);
    if (certificate.notAfter.getTime() > nowMs + RENEW_DAYS * DAY_MS)
      return { certificate, keys: await keysFrom(kept.key, certificate), pem: kept.pem };
  }
  const keys = await newKeys();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Velvet Reed of this computer (${randomBytes(3).toString('hex')})`,
    notBefore: new Date(nowMs - DAY_MS), // a phone whose clock runs behind
    notAfter: new Date(nowMs + AUTHORITY_DAYS * DAY_MS),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      localOnly(),
    ],
  });
  const pem = certificate.toString('pem');
  keepPair(folder, 'authority', { pem, key: await privatePem(keys) });
  return { certificate, keys, pem };
}

/** Whether a certificate is for just these addresses, of this authority, and good for a while. */
function stillGood(pem: string, authorityPem: string, addresses: readonly string[], nowMs: number): boolean {
  const certificate = new X509Certificate(pem);
  return (
    certificate.checkIssued(new X509Certificate(authorityPem)) &&
    Date.parse(certificate.validTo) > nowMs + RENEW_DAYS * DAY_MS &&
    addresses.every((one) => (isIP(one) ? certificate.checkIP(one) : certificate.checkHost(one)) !== undefined)
  );
}

/**
 * The authority of this computer and a certificate for its addresses in the local network; both are made at first use and kept in the folder, the keys
 * readable by their owner alone. The authority can vouch for local addresses only.
 * @param addresses IPv4 or IPv6 addresses and names under `.local` that the listener is reached at.
 */
export async function certificatesFor(
  folder: string,
  addresses: readonly string[],
  nowMs: number,
): Promise<Certificates> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const authority = await authorityOf(folder, nowMs);
  const fingerprint = new X509Certificate(authority.pem).fingerprint256;
  const kept = pairOf(folder, 'listener');
  if (kept && stillGood(kept.pem, authority.pem, addresses, nowMs))
    return { authorityPem: authority.pem, fingerprint, certificatePem: kept.pem, keyPem: kept.key };
  const keys = await newKeys();
  const certificate = await x509.X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: 'CN=Velvet Reed',
    issuer: authority.certificate.subject,
    notBefore: new Date(nowMs - DAY_MS),
    notAfter: new Date(nowMs + CERTIFICATE_DAYS * DAY_MS),
    signingAlgorithm: ALGORITHM,
    publicKey: keys.publicKey,
    signingKey: authority.keys.privateKey,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        addresses.map((value): x509.JsonGeneralName => ({ type: isIP(value) ? 'ip' : 'dns', value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(authority.keys.publicKey),
    ],
  });
  const listener = { pem: certificate.toString('pem'), key: await privatePem(keys) };
  keepPair(folder, 'listener', listener);
  return { authorityPem: authority.pem, fingerprint, certificatePem: listener.pem, keyPem: listener.key };
}
