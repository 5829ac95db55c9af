import fs from 'node:fs/promises';
import http from 'node:http';
import path from 'node:path';
import { z } from 'zod';
import { listen, type StandIn } from './server';

/** How a host misbehaves, from `_faults.json` in its folder. */
const faultsSchema = z.object({
  slowMs: z.number().optional(),
  status: z.number().optional(),
  /** seconds, sent as Retry-After with `status` */
  retryAfter: z.number().optional(),
  redirectTo: z.string().optional(),
  /** every page leads to itself, for ever */
  endless: z.boolean().optional(),
  /** size of a senseless page in bytes */
  bytes: z.number().optional(),
  /** closes the line in the middle of the answer */
  cut: z.boolean().optional(),
});

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.htm': 'text/html',
  '.txt': 'text/plain',
  '.json': 'application/json',
  '.xml': 'application/xml',
  '.pdf': 'application/pdf',
};

/** The stand-in web: serves `DIR/HOST/PATH` for the host asked for, from the first folder that has the host. Loopback only. */
export async function startWeb(directories: readonly string[], port = 0): Promise<StandIn> {
  const server = http.createServer((request, response) => {
    answer(directories, request, response).catch(() => {
      response.destroy();
    });
  });
  return listen(server, port);
}

async function hostFolder(directories: readonly string[], host: string): Promise<string | undefined> {
  if (!/^[\p{L}\p{N}.-]+$/u.test(host) || host.includes('..')) return undefined;
  for (const directory of directories) {
    for (const name of [host, host.startsWith('www.') ? host.slice(4) : `www.${host}`]) {
      const folder = path.join(directory, name);
      if (
        await fs.stat(folder).then(
          (entry) => entry.isDirectory(),
          () => false,
        )
      )
        return folder;
    }
  }
  return undefined;
}

async function answer(directories: readonly string[], request: http.IncomingMessage, response: http.ServerResponse): Promise<void> {
  const host = (request.headers.host ?? '').split(':')[0]?.toLowerCase() ?? '';
  const url = new URL(request.url ?? '/', `http://${host}`);
  const folder = await hostFolder(directories, host);
  if (!folder) {
    response.writeHead(404, { 'content-type': 'text/plain' }).end('no such site\n');
    return;
  }
  if (await misbehave(folder, host, url, response)) return;
  const wanted = path.normalize(decodeURIComponent(url.pathname)).replace(/^(\.\.(\/|$))+/, '');
  const file = path.join(folder, wanted.endsWith('/') ? `${wanted}index.html` : wanted);
  if (!file.startsWith(folder) || path.basename(file).startsWith('_')) {
    response.writeHead(404).end();
    return;
  }
  const body = await fs.readFile(file).catch(() => undefined);
  if (!body) {
    response.writeHead(404, { 'content-type': 'text/html' }).end('<p>There is nothing here.</p>');
    return;
  }
  response.writeHead(200, { 'content-type': TYPES[path.extname(file)] ?? 'text/html' }).end(body);
}

/** Does what the host's faults say; true when the request is answered by that. */
async function misbehave(folder: string, host: string, url: URL, response: http.ServerResponse): Promise<boolean> {
  const raw = await fs.readFile(path.join(folder, '_faults.json'), 'utf8').catch(() => undefined);
  if (raw === undefined) return false;
  const faults = faultsSchema.parse(JSON.parse(raw));
  if (faults.slowMs)
    await new Promise((resolve) => {
      setTimeout(resolve, faults.slowMs);
    });
  if (faults.cut) {
    response.writeHead(200, { 'content-type': 'text/html', 'content-length': '5000' });
    response.write('<html><body>half a page');
    response.destroy();
    return true;
  }
  if (faults.endless) {
    response.writeHead(302, { location: `${url.pathname}?n=${Date.now()}` }).end();
    return true;
  }
  if (faults.bytes) {
    response.writeHead(200, { 'content-type': 'text/html' }).end('x'.repeat(faults.bytes));
    return true;
  }
  if (faults.status) {
    response.writeHead(faults.status, faults.retryAfter ? { 'retry-after': String(faults.retryAfter) } : {}).end('fault\n');
    return true;
  }
  if (faults.redirectTo && new URL(faults.redirectTo).hostname !== host) {
    response.writeHead(301, { location: `${faults.redirectTo}${url.pathname}` }).end();
    return true;
  }
  return false;
}
