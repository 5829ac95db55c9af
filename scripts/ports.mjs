// Free loopback ports, chosen where the system does not take its own.
import fs from 'node:fs';
import net from 'node:net';

export const portIsFree = (port) =>
  new Promise((resolve) => {
    const server = net.createServer().once('error', () => resolve(false));
    server.listen({ port, host: '127.0.0.1' }, () => server.close(() => resolve(true)));
  });

/**
 * Where to look. A port the system hands out (`listen(0)`) lies in the range it also takes outgoing connections from: between
 * choosing and listening, any connection of any process may take it. Ports below that range stay ours.
 */
function range() {
  const low = (() => {
    try {
      return Number(fs.readFileSync('/proc/sys/net/ipv4/ip_local_port_range', 'utf8').split(/\s+/)[0]);
    } catch {
      return 32768;
    }
  })();
  return low > 21000 ? [20000, low - 1] : [20000, 65000];
}

const given = new Set();
/** A port that nobody listens on and that this process has not given away before. */
export async function freePort() {
  const [low, high] = range();
  for (let tries = 0; tries < 200; tries++) {
    const port = low + Math.floor(Math.random() * (high - low + 1));
    if (given.has(port) || !(await portIsFree(port))) continue;
    given.add(port);
    return port;
  }
  throw new Error('no free loopback port found');
}
