/** Before the application sees a request: whose it is, whether it can be read at all, and what every page may do. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import net from 'node:net';

export const ENTRY_LIMITS = {
  headerBytes: 24 * 1024,
  headersMs: 15_000,
  requestMs: 300_000,
  connections: 2_000,
  urlLength: 8_000,
} as const;

/** Whether an address is one of the proxies that are named, each an address or a range (`10.0.0.0/8`). */
export function proxyList(named: readonly string[]): net.BlockList {
  const list = new net.BlockList();
  for (const entry of named) {
    const [address = '', bits] = entry.split('/');
    const kind = net.isIPv6(address) ? 'ipv6' : 'ipv4';
    if (net.isIP(address) === 0) throw new Error(`MILLRACE_PROXIES: “${entry}” is no address and no range of addresses`);
    if (bits === undefined) list.addAddress(address, kind);
    else list.addSubnet(address, Number(bits), kind);
  }
  return list;
}

const plain = (address: string): string => address.replace(/^::ffff:(?=\d+\.)/i, '');
const within = (list: net.BlockList, address: string): boolean =>
  net.isIP(address) !== 0 && list.check(address, net.isIPv6(address) ? 'ipv6' : 'ipv4');

/**
 * The address of whoever asks: the other end of the line; where that is a named proxy, the last address in `X-Forwarded-For` that is
 * not a named proxy's. What stands before that can be written by anybody.
 */
export function clientAddress(request: Pick<IncomingMessage, 'headers' | 'socket'>, proxies: net.BlockList): string {
  let address = plain(request.socket.remoteAddress ?? 'unknown');
  const said = request.headers['x-forwarded-for'];
  const hops = (Array.isArray(said) ? said.join(',') : (said ?? '')).slice(0, 2_000).split(',');
  while (within(proxies, address)) {
    const before = plain(hops.pop()?.trim() ?? '');
    if (net.isIP(before) === 0) break;
    address = before;
  }
  return address;
}

/** What is wrong with a request that nothing can be made of. */
export function malformed(
  request: Pick<IncomingMessage, 'url' | 'headers'>,
): { readonly status: number; readonly says: string } | undefined {
  const url = request.url ?? '/';
  if (url.length > ENTRY_LIMITS.urlLength) return { status: 414, says: 'This address is too long.' };
  try {
    decodeURIComponent(url.split('?')[0] ?? '');
    const address = new URL(url, 'http://millrace.example');
    if (/%00|\0/.test(url) || !url.startsWith('/') || address.host !== 'millrace.example')
      return { status: 400, says: 'This address cannot be read.' };
  } catch {
    return { status: 400, says: 'This address cannot be read.' };
  }
  const length = request.headers['content-length'];
  if (length !== undefined && !/^\d{1,15}$/.test(length)) return { status: 400, says: 'The length of what is sent cannot be read.' };
  return undefined;
}

export function plainProblem(response: ServerResponse, { status, says }: { readonly status: number; readonly says: string }): void {
  response.writeHead(status, { 'content-type': 'application/problem+json', connection: 'close' });
  response.end(JSON.stringify({ type: 'about:blank', title: 'Not taken', status, detail: says }));
}

/**
 * What a page may do (Content Security Policy 3): scripts and style sheets only with the nonce of this answer, no handler and no style
 * in an attribute (sizes are rules of a sheet: `src/ui/kit/placed.ts`). `frames`: who may show it inside a page of theirs.
 */
export function pageHeaders(page: { readonly nonce: string; readonly secure: boolean; readonly frames: readonly string[] }) {
  const { nonce, secure, frames } = page;
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "script-src-attr 'none'",
    `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'none'",
    "img-src 'self' data:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "object-src 'none'",
    `frame-ancestors ${frames.length === 0 ? "'none'" : frames.join(' ')}`,
    "base-uri 'none'",
    "form-action 'self'",
  ].join('; ');
  return {
    'content-security-policy': policy,
    'referrer-policy': 'same-origin',
    'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
    'x-content-type-options': 'nosniff',
    'cross-origin-opener-policy': 'same-origin',
    ...(frames.length === 0 ? { 'x-frame-options': 'DENY' } : {}),
    ...(secure ? { 'strict-transport-security': 'max-age=31536000' } : {}),
  };
}
