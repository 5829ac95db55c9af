import { randomUUID } from 'node:crypto';
import { httpCalendars } from '../adapters/calendars';
import { movableClock } from '../adapters/clock';
import { documentReader } from '../adapters/documents';
import { pinoLog } from '../adapters/log';
import { smtpMail } from '../adapters/mail';
import { imapMailboxes } from '../adapters/mailboxes';
import { pdfPapers } from '../adapters/papers';
import { argonPasswords } from '../adapters/passwords';
import { demoWorld, httpProviders } from '../adapters/providers';
import { httpSources } from '../adapters/sources';
import { webReader } from '../adapters/web';
import { signedWebhooks } from '../adapters/webhooks';
import type { Config } from '../config';
import { connect } from '../db';
import { clockOffset } from '../store/settings';
import type { World } from '../usecases/world';

/** The real world, as the configuration says. */
export function makeWorld(config: Config, name: string): World {
  const db = connect(config.databaseUrl, { max: 10, name });
  return {
    db,
    clock: movableClock(() => clockOffset(db)),
    mail: smtpMail({ ...config.smtp, statusUrl: config.standinMail }),
    web: webReader(config.standinWeb),
    providers: httpProviders(config.providers),
    sources: httpSources(config.sources),
    mailboxes: imapMailboxes(config.standinImap),
    calendars: httpCalendars(config.standinCalendar),
    webhooks: signedWebhooks(config.standinHooks),
    demo: demoWorld(config.demo ? config.standinMail : null),
    documents: documentReader(),
    papers: pdfPapers(),
    passwords: argonPasswords,
    log: pinoLog(config.logLevel, name),
    newId: randomUUID,
    publicUrl: config.publicUrl,
    secret: config.secret,
    isDemo: config.demo,
  };
}
