/**
 * Contracts for the world: clock, mail, web, lookup providers, the demo's movable parts. Promises: a failure is a
 * `WorldFailure` that says whether trying again makes sense. Refuses: knowing who fulfils them.
 */
import type { Instant, JsonObject } from '../../core/base';
import type { Dossier } from '../../core/dossier';
import type { PageText } from '../../core/formats';
import type { DirectoryHit } from '../../core/intake';
import type { ProviderCall } from '../../core/lookup';
import type { Lexicon } from '../../core/reader';
import type { DomainFacts } from '../../core/sending';
import type { FetchedPage, IncomingMail } from './read';

export type { Box, BoxKind, BoxWork, ReadList } from './box';
export type { DocumentText, HiddenText, FetchedPage, IncomingMail } from './read';

/** Words of other languages, and the words a language has, from dictionaries at hand. */
export interface Dictionary extends Lexicon {
  /** By word (folded): what it may be called in the other languages of the reader; words nobody knows are left out. */
  glosses(words: readonly string[], from: string): Readonly<Record<string, readonly string[]>>;
}

export interface Clock {
  now(): Promise<Instant>;
}

/** What the outside did to us. Thrown by adapters, turned into an outcome by use cases. */
export class WorldFailure extends Error {
  constructor(
    readonly code: 'refused' | 'timeout' | 'unreachable' | 'too large' | 'not found' | 'busy' | 'broken',
    message: string,
    readonly retryable: boolean,
    readonly retryAfterMs: number | null = null,
  ) {
    super(message);
    this.name = 'WorldFailure';
  }

  /** Known by its name: a web process may hold this module twice, and adapters and use cases each their own copy of the class. */
  static override [Symbol.hasInstance](value: unknown): boolean {
    return value instanceof Error && value.name === 'WorldFailure';
  }
}

/** What is said on every page and to every caller while the database cannot be reached. */
export const DATABASE_AWAY = 'The database cannot be reached. Nothing was lost: Millrace goes on by itself as soon as it is back.';

/** Whether an error of that code means that the database is away, and not that what was asked is wrong. */
export const isAway = (code: string): boolean => /^(?:CONNECT|ECONN|ENOENT|EPIPE|ETIMEDOUT|57P0[123]|53300|08)|^CONNECTION_/.test(code);

/** What signs a mail (RFC 6376). */
export interface Signer {
  readonly domain: string;
  readonly selector: string;
  /** PEM */
  readonly privateKey: string;
}

export interface OutgoingMail {
  readonly from: { readonly name: string; readonly address: string };
  readonly to: { readonly name: string; readonly address: string };
  /** where answers go, when not to `from` */
  readonly replyTo?: string | null;
  readonly subject: string;
  readonly text: string;
  /** with angle brackets */
  readonly messageId: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  /** null or left out: nobody signs it here */
  readonly signer?: Signer | null;
  /** null: a notice to a colleague */
  readonly unsubscribeUrl: string | null;
  readonly attachments?: readonly { readonly name: string; readonly type: string; readonly content: Uint8Array }[];
  readonly date: Instant;
}

export type SendOutcome =
  | { readonly kind: 'accepted'; readonly says: string }
  /** the server said no for now (4xx), or could not be reached before the body began: safe to try again */
  | { readonly kind: 'deferred'; readonly says: string }
  /** the relay could not be reached at all: it says nothing about this mail, and the mail waits as long as it takes */
  | { readonly kind: 'away'; readonly says: string }
  | { readonly kind: 'rejected'; readonly says: string }
  /** the line broke after the body began: it may or may not have been taken */
  | { readonly kind: 'in doubt'; readonly says: string };

export interface Deadline {
  passed(): boolean;
}

/** What one signs in with. A token is a sign-in service's word (XOAUTH2); `nothing`: there is none for now, and why. */
export type Proof =
  | { readonly by: 'password'; readonly password: string }
  | { readonly by: 'token'; readonly token: string }
  | { readonly by: 'nothing'; readonly why: string };

/** How a mailbox's mails leave by a server of its own (RFC 6409). */
export interface MailRoute {
  readonly host: string;
  readonly port: number;
  /** TLS from the start (RFC 8314), by STARTTLS after a greeting, or never */
  readonly tls: 'from the start' | 'after a greeting' | 'never';
  /** empty: nobody signs in */
  readonly user: string;
  readonly proof: Proof;
}
export interface RouteCheck {
  readonly ok: boolean;
  /** in the order in which they were tried; what comes after one that failed was not */
  readonly steps: readonly { readonly what: string; readonly ok: boolean; readonly says: string }[];
}

export interface Mail {
  /** The exact bytes, kept before anything is handed over. */
  compose(mail: OutgoingMail): Promise<Uint8Array>;
  /**
   * A moment after which nothing may be handed over any more. Taken before the send is written down as begun, so that a
   * worker that stalls anywhere behind that hands nothing over once its lease may have gone to another.
   */
  deadline(withinMs: number): Deadline;
  /** Hands the bytes over once. When that could not begin before the deadline, it is not begun at all (`deferred`). */
  deliver(
    raw: Uint8Array,
    envelope: { readonly from: string; readonly to: string },
    before: Deadline,
    route: MailRoute | null,
  ): Promise<SendOutcome>;
  /** Goes the way of a mailbox step by step: reached, encrypted, signed in, a letter from it to itself taken. */
  check(raw: Uint8Array, address: string, route: MailRoute | null): Promise<RouteCheck>;
  /** Looks at a mail as the server of a reader would that gets it from `host`; null: from the relay, whose address outside nobody here knows. */
  prove(raw: Uint8Array, address: string, host: string | null): Promise<DomainFacts>;
  /** Whether the relay has taken a message of that id, where it can be asked. */
  find(messageId: string): Promise<'taken' | 'absent' | 'cannot tell'>;
}

/** How to get at a mailbox by IMAP (RFC 9051). */
export interface MailboxAccount {
  readonly host: string;
  readonly port: number;
  readonly secure: boolean;
  readonly user: string;
  readonly proof: Proof;
  /** the owner has let it stand in our own network */
  readonly privateNetwork: boolean;
}
/** How far a folder has been read; void when its `uidValidity` changes. */
export interface MailboxCursor {
  readonly uidValidity: string;
  readonly uidNext: number;
}
export interface FoundMail extends IncomingMail {
  /** a person has answered it in their mail program */
  readonly answered: boolean;
  /** why it could not be read; its words and files are missing then */
  readonly unread: string | null;
  /** its bytes; null where they were not brought */
  readonly raw: Uint8Array | null;
}
export interface Mailboxes {
  /**
   * Mails of a folder that have come since the cursor, oldest first, at most `limit`; without a cursor the newest. A `limit` of
   * 0 brings none and gives the cursor behind all that lies there. Nothing in the mailbox is changed, marks neither. Mails that are too large come without their words. Throws `WorldFailure`.
   */
  look(
    account: MailboxAccount,
    ask: { readonly folder: string; readonly cursor: MailboxCursor | null; readonly unreadOnly: boolean; readonly limit: number },
  ): Promise<{ readonly mails: readonly FoundMail[]; readonly cursor: MailboxCursor; readonly more: boolean }>;
}

/** A calendar by CalDAV (RFC 4791), or as an iCalendar file that is fetched. */
export interface CalendarAccount {
  readonly kind: 'caldav' | 'feed';
  readonly url: string;
  readonly user: string;
  readonly password: string;
  /** the owner has let it stand in our own network */
  readonly privateNetwork: boolean;
}
export interface Calendars {
  /** iCalendar texts with the events that touch these times. Throws `WorldFailure`. */
  read(account: CalendarAccount, from: Instant, until: Instant): Promise<readonly string[]>;
}

/** Reads public pages politely: robots.txt, redirects, size and time limits. Throws `WorldFailure`. */
export interface Web {
  page(url: string): Promise<FetchedPage>;
}

export interface ProviderQuestion {
  readonly provider: string;
  readonly field: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly host: string | null;
  /** the same key is never charged twice */
  readonly key: string;
}
export interface ProviderAnswer {
  readonly value: string | null;
  readonly confidence: number;
  readonly tookMs: number;
}
export interface Providers {
  /** A service this installation was started with, by its name. Throws `WorldFailure`. */
  ask(question: ProviderQuestion): Promise<ProviderAnswer>;
  /** A call of a described service, and the JSON it answers; undefined when that was none. Throws `WorldFailure`. */
  call(name: string, call: ProviderCall): Promise<unknown>;
}

/** Where research looks beside a company's own site. */
export const SOURCE_NAMES = ['news', 'register', 'people', 'jobs'] as const;
export type SourceName = (typeof SOURCE_NAMES)[number];

export interface SourceQuestion {
  readonly source: SourceName;
  readonly companyName: string | null;
  readonly host: string | null;
  /** set: this person, else everything about the company */
  readonly personName: string | null;
  /** the same key is the same search and is charged once */
  readonly key: string;
}
export interface SourceDocument extends PageText {
  readonly url: string;
}
export type SourceState =
  | { readonly kind: 'done'; readonly documents: readonly SourceDocument[]; readonly costMicro: number }
  /** the search goes on there: ask for it by its number after that time */
  | { readonly kind: 'working'; readonly job: string; readonly askAgainMs: number }
  | { readonly kind: 'failed'; readonly why: string };

/** What people or companies are looked for by; empty texts and nulls ask nothing. */
export interface DirectoryCriteria {
  readonly what: 'people' | 'companies';
  readonly title: string;
  readonly words: string;
  readonly place: string;
  /** ISO 3166-1 alpha-2 */
  readonly country: string;
  /** of the company's own fields: the least that a figure may be, or what a text holds */
  readonly fields: readonly { readonly key: string; readonly least: number | null; readonly says: string }[];
  readonly minEmployees: number | null;
  /** `name`, `newest`, or a field whose largest come first */
  readonly order: string;
}

/** Searches that may take their time: started, asked after, collected. Throws `WorldFailure`. */
export interface Sources {
  start(question: SourceQuestion): Promise<SourceState>;
  collect(source: SourceName, job: string): Promise<SourceState>;
  directory(
    criteria: DirectoryCriteria,
    from: number,
    count: number,
  ): Promise<{ readonly count: number; readonly hits: readonly DirectoryHit[] }>;
}

export interface WebhookCall {
  readonly url: string;
  readonly secret: string;
  /** the same id is the same call, however often it is made */
  readonly id: string;
  readonly at: Instant;
  readonly body: JsonObject;
}
export interface Webhooks {
  /** Posts signed JSON and gives what came back with it; null when that was no JSON object. Throws `WorldFailure`. */
  post(call: WebhookCall): Promise<{ readonly status: number; readonly body: JsonObject | null }>;
}

/** Parts of the demo that move with its clock: the stand-in recipients who answer. */
export interface DemoWorld {
  /** Tells them what time it is; they send what is due and say when the next is. */
  tick(now: Instant): Promise<Instant | null>;
}

/** Makes documents to hand around. */
/** A letter as it is printed: lines as they stand. */
export interface Letter {
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly date: string;
  readonly subject: string;
  readonly body: string;
}
export interface Papers {
  /** A4, as PDF */
  dossier(dossier: Dossier): Promise<Uint8Array>;
  /** A4, as PDF; the address stands where the window of an envelope is (DIN 5008 B) */
  letter(letter: Letter): Promise<Uint8Array>;
}

/** A sign-in service as it is asked. */
export interface SignInServer {
  readonly issuer: string;
  readonly clientId: string;
  /** null: this installation proves itself by the exchange alone (RFC 7636) */
  readonly secret: string | null;
  /** the owner has let it stand in our own network */
  readonly privateNetwork: boolean;
}
/** What is kept while somebody signs in there, and compared when they come back. */
export interface Underway {
  readonly state: string;
  readonly nonce: string;
  readonly verifier: string;
}
export interface Tokens {
  readonly access: string;
  /** null: the one of before stays */
  readonly refresh: string | null;
  /** null: it does not say */
  readonly seconds: number | null;
}
/** Sign-in services (OpenID Connect Core 1.0, RFC 6749, RFC 7636). Throws `WorldFailure`; `refused`: they said no. */
export interface SignIns {
  /** Reads its description. */
  look(server: SignInServer): Promise<void>;
  /** Where somebody is sent to sign in. */
  begin(
    server: SignInServer,
    ask: { readonly backTo: string; readonly scopes: readonly string[]; readonly account: string | null },
  ): Promise<{ readonly url: string; readonly underway: Underway }>;
  /** Who came back, and what was given along; `url` is the whole address they came back by. */
  end(
    server: SignInServer,
    ask: { readonly url: string; readonly underway: Underway },
  ): Promise<{ readonly subject: string; readonly email: string | null; readonly emailVerified: boolean; readonly tokens: Tokens }>;
  renew(server: SignInServer, refresh: string): Promise<Tokens>;
}

/** A made-up workspace that ships with Millrace, as its files say it. */
export interface ExampleFiles {
  /** as it is described; not looked at yet */
  readonly workspace: unknown;
  /** the flow that shows it */
  readonly flow: string;
  readonly companies: readonly Readonly<Record<string, string>>[];
  readonly people: readonly Readonly<Record<string, string>>[];
}
export interface Examples {
  /** their names; none where they were not installed */
  list(): Promise<readonly string[]>;
  read(name: string): Promise<ExampleFiles>;
}

export interface Passwords {
  hash(password: string): Promise<string>;
  verify(hash: string, password: string): Promise<boolean>;
}

export interface Log {
  info(what: string, detail?: Readonly<Record<string, unknown>>): void;
  warn(what: string, detail?: Readonly<Record<string, unknown>>): void;
  error(what: string, detail?: Readonly<Record<string, unknown>>): void;
}
