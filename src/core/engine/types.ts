import type { Duration, Instant, Json, JsonObject, RecordRef } from '../base';
import type { FactDraft, SourceKind } from '../facts';
import type { FactValue } from '../fields';
import type { FeelScope } from '../feel';
import type { Question, Screen } from '../flow/syntax';
import type { Asked, LookupChain } from '../lookup';
import type { Outcome } from './outcome';
import type { Channel, Composed, FollowUpPlan, LineFact, MessageCheck } from '../writer';

/** The record as it is known now: what conditions and slots see. Company is null when the person has none. */
export interface RecordView {
  readonly person: FeelScope & { readonly id: string; readonly name: string };
  readonly company: (FeelScope & { readonly id: string }) | null;
  /** the deal the trip is about or has opened */
  readonly deal: (FeelScope & { readonly id: string }) | null;
  /** what openings that the flow names say of themselves, by their names */
  readonly openings?: Readonly<Record<string, FeelScope>>;
  /** applications the trip has opened, as they are now, by their ids */
  readonly applications?: Readonly<Record<string, FeelScope>>;
}

/** What may wake a waiting trip before its time. */
export type WakesOn = 'reply' | 'change' | 'batch' | 'hand-over' | 'task';

/** Where a trip stands. Each state carries just what it needs. */
export type TripState =
  | { readonly kind: 'ready' }
  | {
      readonly kind: 'waiting';
      /** null: only a signal ends it */
      readonly until: Instant | null;
      readonly why: string;
      readonly on?: WakesOn;
      /** for `gather`: how many go on together, and when those there go on all the same */
      readonly batch?: { readonly count: number; readonly limit: Instant; readonly says: string };
    }
  | { readonly kind: 'asking'; readonly what: 'approval' | 'pair'; readonly ref: string; readonly until: Instant | null }
  | { readonly kind: 'following'; readonly threadId: string }
  | { readonly kind: 'stuck'; readonly why: string; readonly held: boolean }
  | { readonly kind: 'done' }
  | { readonly kind: 'stopped'; readonly why: string };

export interface Trip {
  readonly id: string;
  readonly trial: boolean;
  readonly record: RecordRef;
  /** index of the instruction to run next; -1 is the end */
  readonly at: number;
  /** place inside a line that works in parts (`match` goes target by target) */
  readonly part: number;
  readonly state: TripState;
  /** results by name */
  readonly vars: { readonly [name: string]: JsonObject };
  /** journal entries written so far */
  readonly seq: number;
  /** failed tries of the present line */
  readonly tries: number;
  readonly dealId: string | null;
}

/** What happened at one line. Money in millionths of a euro. */
export interface JournalEntry {
  readonly seq: number;
  readonly mark: string;
  readonly verb: string;
  readonly outcome: Outcome;
  /** one plain sentence */
  readonly says: string;
  readonly detail: JsonObject;
  readonly costMicro: number;
  readonly tookMs: number;
  readonly at: Instant;
}

/** What a line needs to know from outside the core before it can go on. */
export type Request =
  | { readonly kind: 'match'; readonly target: 'person' | 'company'; readonly askAbove: number; readonly sameAbove: number }
  | {
      readonly kind: 'read';
      readonly target: { readonly kind: 'company' | 'person'; readonly id: string };
      readonly companyName: string | null;
      /** of a person: whom it is about */
      readonly personName: string | null;
      readonly website: string | null;
      /** where to look, in the order of the line: `website`, `news`, … */
      readonly places: readonly string[];
      readonly questions: readonly Question[];
      readonly maxPages: number;
      /** null: no limit of the line's own */
      readonly maxCostMicro: number | null;
      /** what was read longer ago is read again; left out: a week */
      readonly noOlderMs?: number;
    }
  | { readonly kind: 'look up'; readonly field: string; readonly chain: LookupChain }
  | { readonly kind: 'compose'; readonly template: string }
  /** an answer from the book of answers to what somebody wrote; `subject`: of the mail that is answered, if it was one */
  | { readonly kind: 'draft'; readonly words: string; readonly subject: string | null }
  /** what speaks against the record before anything is spent on it */
  | { readonly kind: 'screen'; readonly screens: readonly Screen[]; readonly entry: JsonObject }
  /** a document about the record; asked again it is the same one */
  | { readonly kind: 'prepare'; readonly document: string; readonly id: string }
  /** whether an answer to a message has come */
  | { readonly kind: 'reply'; readonly messageId: string };

/** A value with the words it rests on. */
export interface Stated {
  readonly value: FactValue;
  readonly quote: string | null;
  readonly url: string | null;
  /** what kind of place it stands in */
  readonly source: SourceKind;
  readonly confidence: number;
  /** the day the place says it is of */
  readonly date: Instant | null;
}

export interface Finding extends Stated {
  readonly id: string;
  readonly found: boolean;
  readonly says: string;
  /** other values that are stated too, best first */
  readonly others: readonly Stated[];
}

/** A document that is new at a place, or a profile that has changed. */
export interface Fresh {
  readonly source: SourceKind;
  readonly title: string;
  readonly url: string;
  readonly date: Instant | null;
}

/** Why a record is screened out. */
export interface Verdict {
  readonly screen: Screen;
  /** one plain sentence */
  readonly says: string;
  /** what decided it: let through once, the same is let through again */
  readonly about: string;
}

export interface MatchEvidence {
  readonly field: string;
  readonly ours: string;
  readonly theirs: string;
  readonly agrees: 'yes' | 'partly' | 'no';
  readonly weight: number;
}

/** An agreed answer that a message is made of. */
export interface AnswerUsed {
  readonly itemId: string;
  /** the version whose words were taken */
  readonly no: number;
  readonly about: string;
}

/** What comes back for a request. */
export type Answer =
  | {
      readonly kind: 'match';
      readonly how: 'new' | 'same' | 'doubt' | 'none';
      readonly otherId: string | null;
      readonly otherName: string;
      readonly confidence: number;
      readonly evidence: readonly MatchEvidence[];
    }
  | {
      readonly kind: 'read';
      readonly findings: readonly Finding[];
      readonly pages: number;
      readonly tookMs: number;
      readonly costMicro: number;
      readonly says: string;
      /** what stands there now and did not at the reading before; left out at the first reading */
      readonly fresh?: readonly Fresh[];
      /** of a trial: read then, by an earlier one */
      readonly reusedFrom?: Instant;
    }
  | { readonly kind: 'look up'; readonly asked: readonly Asked[] }
  | {
      readonly kind: 'compose';
      readonly facts: readonly LineFact[];
      readonly recentLines: readonly string[];
      readonly sender: JsonObject;
      readonly doNotContact: boolean;
      readonly neverSay?: readonly string[];
    }
  | {
      readonly kind: 'draft';
      readonly subject: string;
      readonly body: string;
      readonly language: string;
      /** all they asked and objected is answered by what is agreed, in their language */
      readonly covered: boolean;
      /** what nobody has agreed an answer to, word for word */
      readonly open: readonly string[];
      readonly questions: number;
      /** names of the agreed answers it is made of */
      readonly answers: readonly string[];
      readonly checks: readonly MessageCheck[];
      /** the agreed answers, to be counted when it leaves */
      readonly uses: readonly AnswerUsed[];
    }
  | { readonly kind: 'screen'; readonly verdicts: readonly Verdict[] }
  /** `paper` is the document by its id, `address` where it can be read */
  | { readonly kind: 'prepare'; readonly paper: string; readonly address: string; readonly costMicro: number }
  | { readonly kind: 'reply'; readonly came: { readonly kind: string; readonly text: string; readonly quote: string | null } | null };

export type Decision =
  | { readonly kind: 'approve'; readonly by: string; readonly subject: string; readonly body: string; readonly edited: boolean }
  | { readonly kind: 'refuse'; readonly by: string; readonly why: string }
  | { readonly kind: 'same'; readonly by: string; readonly otherId: string }
  | { readonly kind: 'different'; readonly by: string };

export type TripEvent =
  | { readonly kind: 'go' }
  | { readonly kind: 'answer'; readonly answer: Answer }
  | { readonly kind: 'failed'; readonly why: string; readonly retryable: boolean; readonly retryAfterMs: number | null }
  | { readonly kind: 'decided'; readonly decision: Decision }
  | { readonly kind: 'overdue' }
  | { readonly kind: 'plan ended'; readonly how: PlanEnd }
  /** something the trip may wait for has happened: it looks again */
  | { readonly kind: 'signal' }
  /** the trips that were gathered with this one go on; the first in place speaks for all */
  | { readonly kind: 'gathered'; readonly batch: string; readonly place: number; readonly members: readonly BatchMember[] }
  /** a hand-over arrived, or was refused for good */
  | { readonly kind: 'handed over'; readonly ok: boolean; readonly says: string; readonly body: JsonObject | null }
  /** what was handed over has been answered */
  | { readonly kind: 'handed back'; readonly body: JsonObject }
  /** a person has done the task of a line, or it was dropped; the words are theirs, or say why */
  | { readonly kind: 'task ended'; readonly messageId: string; readonly done: boolean; readonly outcome: string; readonly words: string }
  /** a person ends all trips of the flow */
  | { readonly kind: 'ended'; readonly by: string }
  /** nothing is wrong, but the line may not be run before then: a budget is used up, a connection is paced or shut */
  /** `soon`: something is under way outside and ends by itself, so a trial waits for it too */
  | { readonly kind: 'held back'; readonly why: string; readonly until: Instant; readonly soon?: true }
  | { readonly kind: 'choice'; readonly choice: Choice; readonly by: string; readonly value?: FactValue };

/** What a person may do with a stuck trip. */
export type Choice = 'try again' | 'skip the line' | 'set by hand' | 'end';
export interface BatchMember {
  readonly id: string;
  readonly name: string;
  readonly says: string;
}

export type PlanEnd = 'all sent' | 'answered' | 'unsubscribed' | 'bounced' | 'refused';

/** What the decision makes happen in the database, in the same transaction as the trip's new state. */
export type Command =
  /** `mark`: the line they come from */
  | { readonly kind: 'record facts'; readonly mark: string; readonly facts: readonly FactDraft[] }
  | { readonly kind: 'note'; readonly text: string }
  | {
      readonly kind: 'merge';
      readonly target: 'person' | 'company';
      readonly fromId: string;
      readonly intoId: string;
      readonly confidence: number;
      readonly evidence: readonly MatchEvidence[];
      readonly by: string;
    }
  | {
      readonly kind: 'ask about pair';
      readonly pairId: string;
      readonly target: 'person' | 'company';
      readonly aId: string;
      readonly bId: string;
      readonly confidence: number;
      readonly evidence: readonly MatchEvidence[];
    }
  | { readonly kind: 'open deal'; readonly dealId: string; readonly pipeline: string; readonly stage: string; readonly title: string }
  | { readonly kind: 'open application'; readonly applicationId: string; readonly opening: string; readonly stage: string }
  | { readonly kind: 'move application'; readonly applicationId: string; readonly stage: string }
  | {
      readonly kind: 'assign';
      /** what gets an owner beside the person */
      readonly record: { readonly kind: 'deal' | 'application'; readonly id: string } | null;
      readonly team: string;
      readonly seq: number;
    }
  | {
      readonly kind: 'keep message';
      readonly messageId: string;
      /** null: no text of ours, drafted from agreed answers */
      readonly template: string | null;
      readonly composed: Composed;
      readonly uses?: readonly AnswerUsed[];
    }
  | {
      readonly kind: 'ask approval';
      readonly reviewId: string;
      readonly messageId: string;
      readonly who: string;
      readonly dueAt: Instant | null;
      readonly followUps: readonly Composed[];
    }
  | { readonly kind: 'escalate review'; readonly reviewId: string; readonly to: string; readonly text: string }
  | { readonly kind: 'close review'; readonly reviewId: string }
  | {
      readonly kind: 'plan touches';
      readonly threadId: string;
      readonly plan: FollowUpPlan;
      readonly touches: readonly PlannedTouch[];
      /** go on in the last conversation with this person, when there is one */
      readonly sameThread: boolean;
    }
  /** something for a person to do, beside any plan */
  | {
      readonly kind: 'give task';
      readonly messageId: string;
      readonly template: string;
      readonly channel: Channel;
      readonly composed: Composed;
    }
  | { readonly kind: 'drop what is planned'; readonly why: string }
  | { readonly kind: 'move deal'; readonly dealId: string; readonly stage: string }
  | {
      readonly kind: 'tell';
      readonly noticeId: string;
      readonly who: string;
      readonly byEmail: boolean;
      readonly text: string;
      readonly paper: string | null;
    }
  | {
      readonly kind: 'hand over';
      readonly effectId: string;
      readonly webhook: string;
      readonly body: JsonObject;
      readonly answered: boolean;
    };

export interface PlannedTouch {
  readonly messageId: string;
  /** working days after the first touch */
  readonly day: number;
  readonly subject: string;
  readonly body: string;
  readonly template: string;
  readonly channel: Channel;
  /** FEEL, looked at when it is due; null: always */
  readonly when: string | null;
  readonly composed: Composed | null;
}

/** One step of the engine: the next trip, what was journalled, what to do in the database, what to find out next. */
export interface Advance {
  readonly trip: Trip;
  readonly journal: readonly JournalEntry[];
  readonly commands: readonly Command[];
  readonly request: Request | undefined;
  /** what lines below will ask that need nothing of this one: it may be begun while the request is out */
  readonly beside: readonly Request[];
  /** the record may have changed: load it afresh before going on */
  readonly reload: boolean;
}

export type { Duration, Json };
