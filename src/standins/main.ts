/**
 * The simulated outside as one process: web, lookup providers, other systems and mail recipients, each a server of its own on loopback.
 * Ports come from the command line as `web=4001 providers=4002 …`, where none is given a free one is taken; `journal=FILE` keeps what mails were taken.
 * Mailboxes and calendars are real servers of Debian's; where one is not installed, it is left out and that is said. With `relay=PORT` a
 * real mail server stands before the mailboxes.
 */
import { z } from 'zod';
import { startCalendars } from './calendars';
import { isInstalled } from './daemon';
import { startHooks } from './hooks';
import { startMail } from './mail';
import { deliverAll, startMailboxes } from './mailboxes';
import { startNames } from './names';
import { startProviders } from './providers';
import { startRelay } from './relay';
import type { StandIn } from './server';
import { startSignIns } from './sign-ins';
import { startSources } from './sources';
import { startWeb } from './web';
import { outsideOf } from './outside';

const given = new Map(process.argv.slice(2).map((entry) => [entry.slice(0, entry.indexOf('=')), entry.slice(entry.indexOf('=') + 1)]));
const port = (name: string): number => Number(given.get(name) ?? 0);
const journalFile = given.get('journal');
/** Accounts besides those of the world: addresses with their passwords. */
const more = z.record(z.string(), z.string()).parse(JSON.parse(process.env.MILLRACE_ACCOUNTS ?? '{}'));
/** The folder of the world whose outside this is. */
const world = process.env.MILLRACE_WORLD ?? 'demo';
const outside = outsideOf(world);
const accounts = { ...outside.mailboxes, ...more };
const folders = [`${world}/web`, ...(process.env.MILLRACE_WEB_DIRS ?? '').split(':').filter((folder) => folder !== '')];
const signIns = outside.signIn && (await startSignIns(outside.signIn, port('signIn')));
const running: StandIn[] = [
  ...(signIns ? [signIns] : []),
  await startNames(outside.names, port('names')),
  await startWeb(folders, port('web')),
  await startProviders(port('providers')),
  await startHooks(`${world}/sources`, port('hooks')),
  await startSources(`${world}/sources`, port('sources')),
  await startMail({
    smtpPort: port('smtp'),
    controlPort: port('mail'),
    inboundPort: port('inbound'),
    answers: outside.answers,
    opens: (user, proof) =>
      proof.token === undefined ? proof.password !== undefined && accounts[user] === proof.password : signIns?.whose(proof.token) === user,
    ...(journalFile ? { journalFile } : {}),
  }),
];
if (isInstalled('dovecot')) {
  const mailboxes = await startMailboxes({
    imapPort: port('imap'),
    lmtpPort: port('lmtp'),
    accounts,
    ...(signIns && { tokensAt: `http://127.0.0.1:${signIns.port}/whose?token=` }),
  });
  await deliverAll(`${world}/mails`, (to, raw) => mailboxes.deliver(to, raw));
  running.push(mailboxes);
  if (given.has('relay')) running.push(await startRelay({ port: port('relay'), lmtpPort: port('lmtp'), accounts }));
} else process.stderr.write('no mailboxes: the package dovecot-imapd is not installed\n');
if (isInstalled('radicale'))
  running.push(await startCalendars({ port: port('calendar'), ...outside.calendar, folder: `${world}/calendars` }));
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
