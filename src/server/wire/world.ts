import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { httpCalendars } from '../adapters/calendars';
import { movableClock, realClock } from '../adapters/clock';
import { boxPool } from '../adapters/box';
import { Dictionaries } from '../adapters/dictionary';
import { pinoLog } from '../adapters/log';
import { smtpMail } from '../adapters/mail';
import { mailProof, nameServers } from '../adapters/mail-proof';
import { imapMailboxes } from '../adapters/mailboxes';
import { pdfPapers } from '../adapters/papers';
import { argonPasswords } from '../adapters/passwords';
import { exampleFiles } from '../adapters/examples';
import { demoWorld, httpProviders } from '../adapters/providers';
import { oidcSignIns } from '../adapters/sign-ins';
import { httpSources } from '../adapters/sources';
import { webReader } from '../adapters/web';
import { signedWebhooks } from '../adapters/webhooks';
import type { Config } from '../config';
import { connect } from '../db';
import { clockOffset } from '../platform/store/settings';
import type { World } from '../platform/world';

/** The real world, as the configuration says. */
export function makeWorld(config: Config, name: string, options: { readonly plansAnew?: boolean } = {}): World {
  const db = connect(config.databaseUrl, { max: 10, name, ...options });
  const log = pinoLog(config.logLevel, name);
  const box = boxPool({ file: path.resolve('dist/server/wire/box.mjs') }, log);
  return {
    db,
    clock: config.demo ? movableClock(() => clockOffset(db)) : realClock,
    mail: smtpMail({
      ...config.smtp,
      statusUrl: config.standinMail,
      prove: mailProof(nameServers(config.standinNames)),
      standin: config.demo ? `${config.smtp.host}:${config.smtp.port}` : null,
    }),
    web: webReader(config.standinWeb, box),
    providers: httpProviders(config.providers, config.standinHooks),
    sources: httpSources(config.sources),
    mailboxes: imapMailboxes(config.standinImap, box),
    calendars: httpCalendars(config.standinCalendar, box),
    webhooks: signedWebhooks(config.standinHooks),
    demo: demoWorld(config.demo ? config.standinMail : null),
    box,
    papers: pdfPapers(),
    dictionary: new Dictionaries(),
    examples: exampleFiles('demo'),
    passwords: argonPasswords,
    signIns: oidcSignIns(config.standinSignIn),
    log,
    newId: randomUUID,
    publicUrl: config.publicUrl,
    secret: config.secret,
    paceFactor: config.paceFactor,
    isDemo: config.demo,
  };
}
