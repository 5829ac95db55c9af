import { durationMs, type Duration, type Instant, type JsonObject } from '../base';
import { addWorkingDays, type WorkingTime } from '../calendar';
import type { FactDraft, SourceKind } from '../facts';
import type { FeelScope, FeelValue } from '../feel';
import { catalogueOf, type Catalogue } from '../fields';
import type { Instruction, Plan } from '../flow/plan';
import type { Command, JournalEntry, RecordView, Request, Trip, TripState } from './types';

/** The workspace's zone and days off. */
export type WorkspaceTime = Pick<WorkingTime, 'zone' | 'daysOff'>;
export const UTC: WorkspaceTime = { zone: 'UTC', daysOff: new Set() };

/** Names that begin so belong to the engine: no flow can write them. */
const OWN = '·';
const WAITING = `${OWN}waiting`;
const HELD = `${OWN}held`;

/** Mutable working copy of one `advance`: gathers journal and commands while the trip moves. Never leaves the engine. */
export class Run {
  readonly journal: JournalEntry[] = [];
  readonly commands: Command[] = [];
  request: Request | undefined;
  reload = false;
  at: number;
  part: number;
  state: TripState;
  vars: { [name: string]: JsonObject };
  tries: number;
  dealId: string | null;
  private seq: number;

  constructor(
    readonly plan: Plan,
    readonly trip: Trip,
    readonly now: Instant,
    public view: RecordView,
    readonly time: WorkspaceTime,
  ) {
    this.at = trip.at;
    this.part = trip.part;
    this.state = trip.state;
    this.vars = { ...trip.vars };
    this.tries = trip.tries;
    this.dealId = trip.dealId;
    this.seq = trip.seq;
  }

  /**
   * What conditions see: fields of the person at the top (of the deal, in a flow about deals), company below `company`,
   * results by name. An opened deal or application is seen as it is now, not as it was when it was opened.
   */
  scope(): FeelScope {
    const { person, company, deal } = this.view;
    const fresh = this.results();
    return this.plan.about === 'deal' ? { ...deal, person, company, deal, ...fresh } : { ...person, company, ...fresh };
  }

  private results(): FeelScope {
    return Object.fromEntries(Object.entries(this.vars).map(([name, held]) => [name, this.asItIs(held)]));
  }

  private asItIs(held: JsonObject): FeelScope {
    const { deal, openings, applications } = this.view;
    if (deal && held.id === deal.id) return { ...held, ...deal };
    if (typeof held.opening !== 'string' || typeof held.id !== 'string') return held;
    return { ...openings?.[held.opening], ...held, ...applications?.[held.id] };
  }

  /** The workspace's fields as they were when this version was released. */
  get fields(): Catalogue {
    return catalogueOf(this.plan.library.fields);
  }

  /** What the slots of a message see: always the person at the top. */
  messageScope(sender: JsonObject): FeelScope {
    const { person, company, deal } = this.view;
    return { ...person, company, deal, ...this.results(), sender };
  }

  get nextSeq(): number {
    return this.seq;
  }

  /** When the present line first began to wait: however often it looks again, its limit counts from there. */
  waitingSince(): Instant {
    const since = this.vars[WAITING]?.since;
    if (typeof since === 'number') return since;
    this.vars[WAITING] = { since: this.now };
    return this.now;
  }

  /** The text that the line's own expression gives; empty where it gives none. */
  textAt(line: Instruction): string {
    const text = line.expr?.(this.scope()) ?? null;
    return typeof text === 'string' ? text : '';
  }

  /** So long after an instant; working days by the workspace's calendar. */
  after(at: Instant, duration: Duration): Instant {
    return duration.unit === 'working day' ? addWorkingDays(at, duration.amount, this.time) : at + durationMs(duration);
  }

  log(
    line: Instruction,
    outcome: JournalEntry['outcome'],
    says: string,
    detail: JsonObject = {},
    figures: { costMicro?: number; tookMs?: number } = {},
  ): number {
    const seq = this.seq++;
    this.journal.push({
      seq,
      mark: line.mark,
      verb: line.step.verb,
      outcome,
      says,
      detail,
      costMicro: figures.costMicro ?? 0,
      tookMs: figures.tookMs ?? 0,
      at: this.now,
    });
    return seq;
  }

  /** Goes on behind the line. What the line kept for itself is dropped. */
  pass(line: Instruction, to: number = line.next): void {
    this.vars = Object.fromEntries(Object.entries(this.vars).filter(([name]) => !name.startsWith(OWN)));
    this.at = to;
    this.part = 0;
    this.tries = 0;
    this.state = { kind: 'ready' };
  }

  stop(why: string): void {
    this.state = { kind: 'stopped', why };
  }

  stick(line: Instruction, why: string, held = false, detail: JsonObject = {}): void {
    this.log(line, 'stuck', why, detail);
    this.state = { kind: 'stuck', why, held };
  }

  /** Failed outside calls: again after a growing pause, then stuck. */
  retry(line: Instruction, why: string, afterMs: number | null): void {
    this.tries += 1;
    // A trial is looked at now: it says what went wrong instead of waiting for it to pass.
    if (this.trip.trial) {
      this.stick(line, why);
      return;
    }
    if (this.tries >= RETRY.tries) {
      this.stick(line, `${why}, ${this.tries} tries`);
      return;
    }
    const pause = Math.max(afterMs ?? 0, Math.min(RETRY.maxMs, RETRY.baseMs * 2 ** (this.tries - 1)));
    this.log(line, 'retry', `${why}: tried ${this.tries} of ${RETRY.tries} times`, { pauseMs: pause });
    this.state = { kind: 'waiting', until: this.now + pause, why: 'trying again' };
  }

  /** Not run now, and nobody's fault: the line is tried again then, however often that is. Said once, not at every look. */
  holdBack(line: Instruction, why: string, until: Instant, soon: boolean): void {
    if (this.trip.trial && !soon) {
      this.stick(line, why);
      return;
    }
    if (this.vars[HELD]?.why !== why) this.log(line, 'waiting', why, { until });
    this.vars[HELD] = { why };
    this.state = { kind: 'waiting', until: Math.max(until, this.now + 1), why };
  }

  record(
    field: string,
    value: string | number | boolean | null,
    source: SourceKind,
    sourceRef: string,
    more: Partial<FactDraft> = {},
  ): FactDraft | undefined {
    const [first = '', second] = field.split('.');
    const record = more.record ?? this.recordOf(second === undefined ? this.plan.about : first);
    return record && { confidence: 1, observedAt: this.now, ...more, record, field: second ?? first, value, source, sourceRef };
  }

  private recordOf(kind: string): FactDraft['record'] | undefined {
    const { person, company, deal } = this.view;
    if (kind === 'company') return company ? { kind: 'company', id: company.id } : undefined;
    if (kind === 'deal') return deal ? { kind: 'deal', id: deal.id } : undefined;
    return { kind: 'person', id: person.id };
  }

  /** Puts a value on the record in this trip's eyes, for the lines that follow before it is loaded afresh. */
  see(field: string, value: FeelValue): void {
    const [first = '', second] = field.split('.');
    const kind = second === undefined ? this.plan.about : first;
    const key = second ?? first;
    const { person, company, deal } = this.view;
    if (kind === 'company') this.view = { ...this.view, company: company && { ...company, [key]: value } };
    else if (kind === 'deal') this.view = { ...this.view, deal: deal && { ...deal, [key]: value } };
    else this.view = { ...this.view, person: { ...person, [key]: value } };
  }

  /** The same for a deal or an application that a line opened under this name. */
  seeOpened(name: string, opened: { readonly kind: 'deal' | 'application'; readonly id: string }, key: string, value: FeelValue): void {
    const held = this.vars[name];
    if (held) this.vars[name] = { ...held, [key]: value };
    const { deal, applications } = this.view;
    if (deal?.id === opened.id) this.view = { ...this.view, deal: { ...deal, [key]: value } };
    const application = applications?.[opened.id];
    if (application) this.view = { ...this.view, applications: { ...applications, [opened.id]: { ...application, [key]: value } } };
  }

  result(): Trip {
    return {
      ...this.trip,
      at: this.at,
      part: this.part,
      state: this.state,
      vars: this.vars,
      seq: this.seq,
      tries: this.tries,
      dealId: this.dealId,
    };
  }
}

/** Pauses of 30 s, 1 min, 2 min, 4 min between five tries; a server's own Retry-After counts when it is longer. */
export const RETRY = {
  tries: 5,
  baseMs: durationMs({ amount: 0.5, unit: 'minute' }),
  maxMs: durationMs({ amount: 1, unit: 'hour' }),
} as const;
