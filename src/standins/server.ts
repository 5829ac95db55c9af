import type http from 'node:http';

export interface StandIn {
  readonly port: number;
  close(): Promise<void>;
}

/** Listens on loopback; port 0 takes a free one. */
export function listen(server: http.Server, port: number, onClose: () => Promise<void> = () => Promise.resolve()): Promise<StandIn> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve({
        port: typeof address === 'object' && address ? address.port : port,
        close: async () => {
          await onClose();
          server.closeAllConnections();
          await new Promise<void>((done) => {
            server.close(() => {
              done();
            });
          });
        },
      });
    });
  });
}

export async function readJson(request: http.IncomingMessage): Promise<unknown> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return JSON.parse(Buffer.concat(chunks).toString('utf8') || '{}');
}

export function sendJson(response: http.ServerResponse, body: unknown, status = 200, headers: Readonly<Record<string, string>> = {}): void {
  response.writeHead(status, { 'content-type': 'application/json', ...headers }).end(JSON.stringify(body));
}
