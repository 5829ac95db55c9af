/**
 * The web server: what every request must pass before the application sees it. The client's address is taken from the line, or from a
 * proxy that the configuration names; every page gets a policy of its own with a nonce; what cannot be read as a request is refused here.
 */
import { randomBytes } from 'node:crypto';
import http from 'node:http';
import next from 'next';
import { readConfig } from '../config';
import { clientAddress, ENTRY_LIMITS, malformed, pageHeaders, plainProblem, proxyList } from '../http/entry';
import { formHosts } from '../intake/forms';
import { webWorld } from './web';

const config = readConfig();
const world = webWorld();
const proxies = proxyList(config.proxies);
const app = next({ dev: false, hostname: config.host, port: config.port, dir: process.cwd() });
await app.prepare();
const handle = app.getRequestHandler();

const server = http.createServer(
  {
    maxHeaderSize: ENTRY_LIMITS.headerBytes,
    requestTimeout: ENTRY_LIMITS.requestMs,
    headersTimeout: ENTRY_LIMITS.headersMs,
    keepAliveTimeout: 8_000,
  },
  (request, response) => {
    void (async () => {
      const address = clientAddress(request, proxies);
      // What a client says of its own address is not passed on.
      for (const name of ['x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'x-forwarded-port', 'x-real-ip', 'forwarded'])
        Reflect.deleteProperty(request.headers, name);
      request.headers['x-millrace-client'] = address;
      const wrong = malformed(request);
      if (wrong) {
        plainProblem(response, wrong);
        return;
      }
      const nonce = randomBytes(16).toString('base64');
      const slug = /^\/f\/([a-z0-9-]{1,100})(?:[/?]|$)/.exec(request.url ?? '')?.[1];
      const headers = pageHeaders({
        nonce,
        secure: config.publicUrl.startsWith('https:'),
        frames: slug === undefined ? [] : await formHosts(world, slug),
      });
      for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
      // The application reads the nonce from the request, as it would from a proxy's.
      request.headers['content-security-policy'] = headers['content-security-policy'];
      request.headers['x-nonce'] = nonce;
      await handle(request, response);
    })().catch((error: unknown) => {
      world.log.error('a request broke', {
        url: request.url,
        error: error instanceof Error ? (error.stack ?? error.message) : String(error),
      });
      if (!response.headersSent)
        plainProblem(response, { status: 503, says: 'Something broke on our side. Please try again in a moment.' });
      else response.destroy();
    });
  },
);
server.on('clientError', (_error, socket) => {
  if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n');
});
server.maxConnections = ENTRY_LIMITS.connections;
await new Promise<void>((resolve) => server.listen(config.port, config.host, resolve));
process.stdout.write(`Ready ${config.host}:${config.port}\n`);

let stopping = false;
const stop = async (): Promise<void> => {
  if (stopping) return;
  stopping = true;
  server.close();
  server.closeAllConnections();
  await world.box.close();
  await world.db.end({ timeout: 2 }).catch(() => undefined);
  process.exit(0);
};
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
