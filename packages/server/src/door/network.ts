import { createServer, type Server } from 'node:https';
import { BlockList, isIPv6, Socket } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';
import path from 'node:path';
import type { Express } from 'express';
import { certificatesFor } from './authority';
import type { Door } from './door';

/** Addresses that are never on the Internet: RFC 1918, loopback, link-local (RFC 3927, 4291), unique local (RFC 4193). */
const LOCAL = new BlockList();
for (const [address, bits] of [
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['169.254.0.0', 16],
  ['127.0.0.0', 8],
] as const)
  LOCAL.addSubnet(address, bits, 'ipv4');
LOCAL.addSubnet('fc00::', 7, 'ipv6');
LOCAL.addSubnet('fe80::', 10, 'ipv6');
LOCAL.addAddress('::1', 'ipv6');

/** Whether an address belongs to a local network. */
export const isLocalAddress = (address: string): boolean => {
  const plain = address.replace(/^::ffff:/, '').replace(/%.*$/, '');
  return LOCAL.check(plain, isIPv6(plain) ? 'ipv6' : 'ipv4');
};

/** IPv4 addresses of this computer in local networks. */
export const ownLocalAddresses = (): readonly string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal, address }) => family === 'IPv4' && !internal && isLocalAddress(address))
    .map(({ address }) => address);

/** The name by which zeroconf finds this computer, where it is one (RFC 6762). */
const zeroconfName = (): string | undefined => {
  const [name] = hostname().split('.');
  return /^[a-z0-9-]{1,63}$/i.test(name) ? `${name.toLowerCase()}.local` : undefined;
};

/** Closes what is too slow: a handshake, a head, a body, a pause. */
export function impatient(
  server: Pick<Server, 'headersTimeout' | 'requestTimeout' | 'keepAliveTimeout' | 'maxConnections'>,
): void {
  server.headersTimeout = 15_000;
  server.requestTimeout = 120_000;
  server.keepAliveTimeout = 10_000;
  server.maxConnections = 200;
}

/**
 * Listens on addresses of the local network, by TLS alone (1.2 and up), for peers of local networks alone.
 * @throws Error of the system when an address cannot be listened on.
 */
export async function openNetwork(
  door: Door,
  app: Express,
  {
    addresses,
    port,
    folder,
  }: { readonly addresses: readonly string[]; readonly port: number; readonly folder: string },
): Promise<readonly Server[]> {
  const name = zeroconfName();
  const certificates = await certificatesFor(
    path.join(folder, 'tls'),
    [...addresses, ...(name ? [name] : [])],
    door.now(),
  );
  const servers: Server[] = [];
  for (const address of addresses) {
    const server = createServer(
      { cert: certificates.certificatePem, key: certificates.keyPem, minVersion: 'TLSv1.2', handshakeTimeout: 10_000 },
      app,
    );
    impatient(server);
    server.on('connection', (socket) => {
      const from = socket instanceof Socket ? (socket.remoteAddress ?? '') : '';
      if (isLocalAddress(from)) return;
      door.events.note('NOT_LOCAL', from);
      socket.destroy();
    });
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(servers.length === 0 ? port : portOf(servers[0]), address, resolve);
    });
    servers.push(server);
  }
  door.network = {
    addresses: servers.map(
      (server, i) => `https://${isIPv6(addresses[i]) ? `[${addresses[i]}]` : addresses[i]}:${portOf(server)}`,
    ),
    hosts: [...addresses.map((one) => (isIPv6(one) ? `[${one}]` : one)), ...(name ? [name] : [])],
    ...{ fingerprint: certificates.fingerprint, authorityPem: certificates.authorityPem },
  };
  return servers;
}

/** The port that a server listens on. */
function portOf(server: Server): number {
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}
