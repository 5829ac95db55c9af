/**
 * The simulated outside as one process: web, lookup providers, other systems and mail recipients, each a server of its own on loopback.
 * Ports come from the command line: `main.ts WEB PROVIDERS SMTP MAIL_CONTROL INBOUND HOOKS SOURCES IMAP LMTP CALENDAR SIGN_IN [JOURNAL]`.
 * Mailboxes and calendars are real servers of Debian's; where one is not installed, it is left out and that is said.
 */
import { startCalendars } from './calendars';
import { isInstalled } from './daemon';
import { startHooks } from './hooks';
import { startMail } from './mail';
import { deliverAll, startMailboxes } from './mailboxes';
import { startProviders } from './providers';
import type { StandIn } from './server';
import { startSignIns } from './sign-ins';
import { startSources } from './sources';
import { startWeb } from './web';
import { outsideOf } from './outside';

const [web = 0, providers = 0, smtp = 0, control = 0, inbound = 0, hooks = 0, sources = 0, imap = 0, lmtp = 0, calendar = 0, signIn = 0] =
  process.argv.slice(2, 13).map(Number);
const journalFile = process.argv[13];
/** The folder of the world whose outside this is. */
const world = process.env.MILLRACE_WORLD ?? 'demo';
const outside = outsideOf(world);
const folders = [`${world}/web`, ...(process.env.MILLRACE_WEB_DIRS ?? '').split(':').filter((folder) => folder !== '')];
const signIns = outside.signIn && (await startSignIns(outside.signIn, signIn));
const running: StandIn[] = [
  ...(signIns ? [signIns] : []),
  await startWeb(folders, web),
  await startProviders(providers),
  await startHooks(hooks),
  await startSources(`${world}/sources`, sources),
  await startMail({
    smtpPort: smtp,
    controlPort: control,
    inboundPort: inbound,
    answers: outside.answers,
    opens: (user, proof) => (proof.token === undefined ? outside.mailboxes[user] === proof.password : signIns?.whose(proof.token) === user),
    ...(journalFile ? { journalFile } : {}),
  }),
];
if (isInstalled('dovecot')) {
  const mailboxes = await startMailboxes({
    imapPort: imap,
    lmtpPort: lmtp,
    accounts: outside.mailboxes,
    ...(signIns && { tokensAt: `http://127.0.0.1:${signIns.port}/whose?token=` }),
  });
  await deliverAll(`${world}/mails`, (to, raw) => mailboxes.deliver(to, raw));
  running.push(mailboxes);
} else process.stderr.write('no mailboxes: the package dovecot-imapd is not installed\n');
if (isInstalled('radicale')) running.push(await startCalendars({ port: calendar, ...outside.calendar, folder: `${world}/calendars` }));
else process.stderr.write('no calendars: the package radicale is not installed\n');
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
