/**
 * Which hosts Millrace speaks to. Promises: names are resolved first and private addresses refused; hosts ending in
 * `.example` exist only where a stand-in serves them. Refuses: knowing what is said to a host.
 */
import dns from 'node:dns';
import net from 'node:net';

/** Loopback, private, link-local and other addresses that no public site has (RFC 6890). */
export function isPrivateAddress(address: string): boolean {
  if (net.isIPv6(address))
    return /^(?:::1?$|f[cd]|fe[89ab]|::ffff:(?:127|10|192\.168|172\.(?:1[6-9]|2\d|3[01])|169\.254|0)\.)/i.test(address);
  const [a = 0, b = 0] = address.split('.').map(Number);
  return (
    a === 0 ||
    a === 10 ||
    a === 127 ||
    (a === 169 && b === 254) ||
    (a === 172 && b >= 16 && b <= 31) ||
    (a === 192 && b === 168) ||
    (a === 100 && b >= 64 && b <= 127) ||
    a >= 224
  );
}

/** Resolves names as the system does, without private addresses; `.example` hosts lead to the stand-in (`host:port`) or nowhere. */
export function guardedLookup(standin: string | null): net.LookupFunction {
  return (hostname, options, callback) => {
    if (hostname.endsWith('.example')) {
      if (standin === null) {
        callback(Object.assign(new Error(`${hostname} does not exist`), { code: 'ENOTFOUND' }), '', 4);
        return;
      }
      const address = standin.split(':')[0] ?? '127.0.0.1';
      if (options.all) callback(null, [{ address, family: 4 }]);
      else callback(null, address, 4);
      return;
    }
    dns.lookup(hostname, { all: true }, (error, found) => {
      const open = (found ?? []).filter((entry) => !isPrivateAddress(entry.address));
      const [first] = open;
      if (error || first === undefined) {
        callback(error ?? Object.assign(new Error(`${hostname} is not a public site`), { code: 'ENOTFOUND' }), '', 4);
        return;
      }
      if (options.all) callback(null, open);
      else callback(null, first.address, first.family);
    });
  };
}

/** The address that is called for a URL: a stand-in listens on a port of its own. */
export function onTheWire(target: URL, standin: string | null): string {
  return standin !== null && target.hostname.endsWith('.example')
    ? `http://${target.hostname}:${standin.split(':')[1] ?? '80'}${target.pathname}${target.search}`
    : target.href;
}
export { callJson, unreadable } from './json';
export { isSigned, signature } from './signature';
