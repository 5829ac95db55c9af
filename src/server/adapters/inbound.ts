import { SMTPServer } from 'smtp-server';
import type { Log } from '../ports';

const MAX_BYTES = 10 * 1024 * 1024;

/** Listens on loopback for mail to our mailboxes. A mail is accepted only after `take` has kept its bytes, as an answer or set aside. */
export function listenForMail(options: {
  readonly port: number;
  readonly take: (raw: Uint8Array) => Promise<void>;
  readonly log: Log;
}): Promise<{ readonly port: number; close(): Promise<void> }> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    disableReverseLookup: true,
    closeTimeout: 500,
    size: MAX_BYTES,
    logger: false,
    onData(stream, _session, callback) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => {
        if (!stream.sizeExceeded) chunks.push(chunk);
      });
      stream.on('end', () => {
        if (stream.sizeExceeded) {
          callback(Object.assign(new Error('the mail is too large'), { responseCode: 552 }));
          return;
        }
        options.take(Buffer.concat(chunks)).then(
          () => {
            callback();
          },
          (error: unknown) => {
            options.log.error('mail could not be kept', { error: String(error) });
            callback(Object.assign(new Error('try again later'), { responseCode: 451 }));
          },
        );
      });
    },
  });
  server.on('error', (error) => {
    options.log.warn('inbound mail', { error: error.message });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(options.port, '127.0.0.1', () => {
      const address = server.server.address();
      resolve({
        port: typeof address === 'object' && address ? address.port : options.port,
        close: () =>
          new Promise((done) => {
            server.close(() => {
              done();
            });
          }),
      });
    });
  });
}
