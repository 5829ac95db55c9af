import { SMTPServer } from 'smtp-server';
import { readMail } from '../net';
import type { IncomingMail, Log } from '../ports';

const MAX_BYTES = 10 * 1024 * 1024;

/** Listens on loopback for mail to our mailboxes. A mail is accepted only after `take` has kept it. */
export function listenForMail(options: {
  readonly port: number;
  readonly take: (mail: IncomingMail) => Promise<void>;
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
        chunks.push(chunk);
      });
      stream.on('end', () => {
        if (stream.sizeExceeded) {
          callback(Object.assign(new Error('the mail is too large'), { responseCode: 552 }));
          return;
        }
        readMail(Buffer.concat(chunks))
          .then(options.take)
          .then(
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
