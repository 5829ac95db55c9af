/**
 * Contracts for the world: clock, mail, web, lookup providers, the demo's movable parts. Promises: a failure is a
 * `WorldFailure` that says whether trying again makes sense. Refuses: knowing who fulfils them.
 */
import type { Instant, JsonObject } from '../../core/base';

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
}

export interface OutgoingMail {
  readonly from: { readonly name: string; readonly address: string };
  readonly to: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
  /** with angle brackets */
  readonly messageId: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  /** null: a notice to a colleague */
  readonly unsubscribeUrl: string | null;
  readonly date: Instant;
}

export type SendOutcome =
  | { readonly kind: 'accepted'; readonly says: string }
  /** the server said no for now (4xx), or could not be reached before the body began: safe to try again */
  | { readonly kind: 'deferred'; readonly says: string }
  | { readonly kind: 'rejected'; readonly says: string }
  /** the line broke after the body began: it may or may not have been taken */
  | { readonly kind: 'in doubt'; readonly says: string };

export interface Deadline {
  passed(): boolean;
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
  deliver(raw: Uint8Array, envelope: { readonly from: string; readonly to: string }, before: Deadline): Promise<SendOutcome>;
  /** Whether the relay has taken a message of that id, where it can be asked. */
  find(messageId: string): Promise<'taken' | 'absent' | 'cannot tell'>;
}

export interface IncomingMail {
  readonly messageId: string;
  readonly from: string;
  readonly fromName: string;
  readonly subject: string;
  readonly text: string;
  readonly inReplyTo: string | null;
  readonly references: readonly string[];
  readonly autoSubmitted: boolean;
  /** the parts of a delivery status report, when it is one */
  readonly deliveryStatus: { readonly status: string; readonly original: string } | null;
}

export interface FetchedPage {
  readonly url: string;
  readonly status: number;
  /** visible text, blocks parted by line breaks */
  readonly text: string;
  readonly links: readonly { readonly url: string; readonly text: string }[];
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
  ask(question: ProviderQuestion): Promise<ProviderAnswer>;
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

export interface Passwords {
  hash(password: string): Promise<string>;
  verify(hash: string, password: string): Promise<boolean>;
}

export interface Log {
  info(what: string, detail?: Readonly<Record<string, unknown>>): void;
  warn(what: string, detail?: Readonly<Record<string, unknown>>): void;
  error(what: string, detail?: Readonly<Record<string, unknown>>): void;
}
