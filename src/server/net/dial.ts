import dns from 'node:dns/promises';
import net from 'node:net';
import { Agent, buildConnector } from 'undici';

/** Addresses that no public host has (RFC 6890, RFC 8190 and those behind them): loopback, private, link-local, metadata, reserved. */
const PRIVATE_4 = new net.BlockList();
for (const [address, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.0.2.0', 24],
  ['192.88.99.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['198.51.100.0', 24],
  ['203.0.113.0', 24],
  ['224.0.0.0', 3],
] as const)
  PRIVATE_4.addSubnet(address, bits, 'ipv4');
/** All of IPv6 but the global unicast space, and what of that is no host: documentation, tunnels, benchmarking. A list of its own: IPv4 numbers would be found in it. */
const PRIVATE_6 = new net.BlockList();
for (const [address, bits] of [
  ['::', 3],
  ['4000::', 2],
  ['8000::', 1],
  ['2001::', 23],
  ['2001:db8::', 32],
  ['2002::', 16],
  ['3fff::', 20],
] as const)
  PRIVATE_6.addSubnet(address, bits, 'ipv6');

/** Whether an address, as numbers, is one that no public host has. What is no address is none either. */
export function isPrivateAddress(address: string): boolean {
  const bare = address.replace(/^\[|\]$/g, '').split('%')[0] ?? '';
  const kind = net.isIP(bare);
  if (kind === 0) return true;
  if (kind === 4) return PRIVATE_4.check(bare, 'ipv4');
  // IPv4 inside IPv6 (RFC 4291 2.5.5.2) lies below ::/3: it is private as such, whichever way its numbers are written.
  return PRIVATE_6.check(bare, 'ipv6');
}

export interface DialRules {
  /** `host:port` of the stand-in that serves hosts ending in `.example`; null: there are none */
  readonly standin: string | null;
  /** the owner has let this connection go into our own networks */
  readonly privateNetwork?: boolean;
}

/** A host that nothing is connected to. It says the same of a host that is not let and of one that does not answer. */
export class NotConnected extends Error {
  constructor(
    readonly code: 'ENOTFOUND' | 'EREFUSED',
    host: string,
  ) {
    super(code === 'ENOTFOUND' ? `there is no host ${host}` : `${host} is not a public host`);
    this.name = 'NotConnected';
  }
}

/** A host as it is written: a name in lower case without its last point, or an address in its usual spelling (`0x7f.1` is 127.0.0.1). */
function plainHost(host: string): string {
  const bare = host.trim().replace(/^\[|\]$/g, '');
  if (net.isIP(bare) !== 0) return bare;
  // The URL standard reads every spelling of IPv4 numbers; names come back in ASCII.
  return URL.canParse(`http://${bare}/`) ? new URL(`http://${bare}/`).hostname.replace(/^\[|\]$/g, '').replace(/\.$/, '') : '';
}

/** The address that a connection to a host goes to, looked at. Throws `NotConnected`. */
export async function dialTo(
  host: string,
  port: number,
  rules: DialRules,
): Promise<{ readonly address: string; readonly port: number; readonly isStandin: boolean }> {
  const name = plainHost(host);
  if (name === '') throw new NotConnected('ENOTFOUND', host);
  if (name === 'example' || name.endsWith('.example')) {
    if (rules.standin === null) throw new NotConnected('ENOTFOUND', host);
    const [address = '127.0.0.1', at = String(port)] = rules.standin.split(':');
    return { address, port: Number(at), isStandin: true };
  }
  const found = net.isIP(name) === 0 ? await dns.lookup(name, { all: true }).catch(() => []) : [{ address: name }];
  if (found.length === 0) throw new NotConnected('ENOTFOUND', host);
  const open = found.filter((entry) => rules.privateNetwork === true || !isPrivateAddress(entry.address));
  // A name that leads to a public and a private address is somebody's trick: it leads nowhere.
  const [first] = open.length === found.length ? open : [];
  if (!first) throw new NotConnected('EREFUSED', host);
  return { address: first.address, port, isStandin: false };
}

/** An agent whose every connection goes through `dialTo`, numbers in addresses included. */
export function dialAgent(
  rules: DialRules,
  options: { readonly connectMs: number; readonly answerMs: number; readonly maxBytes?: number },
): Agent {
  const connect = buildConnector({ timeout: options.connectMs });
  return new Agent({
    connect: (to, callback) => {
      dialTo(to.hostname, Number(to.port || (to.protocol === 'https:' ? 443 : 80)), rules).then(
        ({ address, port }) => {
          const servername = net.isIP(to.hostname) === 0 ? (to.servername ?? to.hostname) : to.servername;
          connect(
            { ...to, hostname: address, host: address, port: String(port), ...(servername !== undefined && { servername }) },
            callback,
          );
        },
        (error: unknown) => {
          callback(error instanceof Error ? error : new Error(String(error)), null);
        },
      );
    },
    headersTimeout: options.answerMs,
    bodyTimeout: options.answerMs,
    ...(options.maxBytes !== undefined && { maxResponseSize: options.maxBytes }),
  });
}

/** The address that is asked for a URL: stand-ins speak plain HTTP. */
export function onTheWire(target: URL, standin: string | null): string {
  return standin !== null && target.hostname.endsWith('.example')
    ? `http://${target.hostname}:${standin.split(':')[1] ?? '80'}${target.pathname}${target.search}`
    : target.href;
}
