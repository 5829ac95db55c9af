import { durationMs, type Instant, type JsonObject } from '../base';
import type { FactDraft, SourceKind } from '../facts';
import type { FeelScope, FeelValue } from '../feel';
import type { Instruction, Plan } from '../flow/plan';
import type { Command, JournalEntry, RecordView, Request, Trip, TripState } from './types';

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
  ) {
    this.at = trip.at;
    this.part = trip.part;
    this.state = trip.state;
    this.vars = { ...trip.vars };
    this.tries = trip.tries;
    this.dealId = trip.dealId;
    this.seq = trip.seq;
  }

  /** What conditions and slots see: person fields at the top, company below `company`, results by name. */
  scope(extra: FeelScope = {}): FeelScope {
    return { ...this.view.person, company: this.view.company, ...(this.vars as FeelScope), ...extra };
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

  /** Goes on behind the line. */
  pass(line: Instruction, to: number = line.next): void {
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

  record(
    field: string,
    value: string | number | boolean | null,
    source: SourceKind,
    sourceRef: string,
    more: Partial<FactDraft> = {},
  ): FactDraft | undefined {
    const [first = '', second] = field.split('.');
    const company = second !== undefined || more.record?.kind === 'company';
    const record =
      more.record ??
      (company
        ? this.view.company
          ? { kind: 'company' as const, id: this.view.company.id }
          : undefined
        : { kind: 'person' as const, id: this.view.person.id });
    return record && { confidence: 1, observedAt: this.now, ...more, record, field: second ?? first, value, source, sourceRef };
  }

  /** Puts a value on the record in this trip's eyes, for the lines that follow before it is loaded afresh. */
  see(field: string, value: FeelValue): void {
    const [first = '', second] = field.split('.');
    if (second === undefined) this.view = { ...this.view, person: { ...this.view.person, [first]: value } };
    else if (this.view.company) this.view = { ...this.view, company: { ...this.view.company, [second]: value } };
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
