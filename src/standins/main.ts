/**
 * The simulated outside as one process: web, lookup providers, other systems and mail recipients, each a server of its own on loopback.
 * Ports come from the command line: `main.ts WEB PROVIDERS SMTP MAIL_CONTROL INBOUND HOOKS SOURCES [JOURNAL]`.
 */
import { startHooks } from './hooks';
import { startMail } from './mail';
import { startProviders } from './providers';
import { startSources } from './sources';
import { startWeb } from './web';

const [web = 0, providers = 0, smtp = 0, control = 0, inbound = 0, hooks = 0, sources = 0] = process.argv.slice(2, 9).map(Number);
const journalFile = process.argv[9];
const folders = ['demo/web', ...(process.env.MILLRACE_WEB_DIRS ?? '').split(':').filter((folder) => folder !== '')];
const running = [
  await startWeb(folders, web),
  await startProviders(providers),
  await startHooks(hooks),
  await startSources('demo/sources', sources),
  await startMail({ smtpPort: smtp, controlPort: control, inboundPort: inbound, ...(journalFile ? { journalFile } : {}) }),
];
process.stdout.write(`stand-ins ready ${process.pid}\n`);
const stop = (): void => {
  void Promise.all(running.map((server) => server.close())).then(() => {
    process.exit(0);
  });
  setTimeout(() => {
    process.exit(0);
  }, 2_000).unref();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
