/** What the desk shows, as the server gives it: plain values. */
import type { Answer } from '../../../api';

export interface CheckView {
  readonly id: string;
  readonly ok: boolean;
  readonly says: string;
}
export interface FactView {
  readonly field: string;
  readonly value: string | number | boolean | null;
  readonly quote?: string;
  readonly url?: string;
  readonly says: string;
}
export interface MessageView {
  readonly id: string;
  readonly subject: string;
  readonly body: string;
  readonly personalLine: string | null;
  readonly language: string | null;
  readonly fallback: string | null;
  readonly facts: readonly FactView[];
  readonly checks: readonly CheckView[];
  readonly direction: 'in' | 'out';
  readonly state: string;
  readonly at: number;
  readonly personId: string | null;
  readonly personName: string | null;
  readonly threadId: string | null;
  readonly fromAddress: string | null;
  readonly template: string | null;
  readonly reading: {
    readonly kind: string;
    readonly objection: string | null;
    readonly when: string | null;
    readonly quote: string | null;
  } | null;
}
export interface ReviewView {
  readonly id: string;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly flowId: string;
  readonly flowName: string;
  readonly who: string;
  readonly whose: { readonly people: readonly string[]; readonly standIn: boolean; readonly yours: boolean };
  readonly told: string | null;
  readonly dueAt: number | null;
  readonly createdAt: number;
  readonly message: MessageView;
  readonly then: readonly { readonly day: number; readonly subject: string }[];
}
export interface PairView {
  readonly id: string;
  readonly kind: 'person' | 'company';
  readonly aId: string;
  readonly bId: string;
  readonly aName: string;
  readonly bName: string;
  readonly confidence: number;
  readonly createdAt: number;
  readonly evidence: readonly {
    readonly field: string;
    readonly ours: string;
    readonly theirs: string;
    readonly agrees: 'yes' | 'partly' | 'no';
    readonly weight: number;
  }[];
  readonly facts: readonly {
    readonly record: { readonly id: string };
    readonly field: string;
    readonly value: string | number | boolean | null;
    readonly source: string;
    readonly sourceRef: string;
  }[];
}
/** Trips stuck at one line for one reason. */
export interface StuckView {
  readonly key: string;
  readonly flowId: string;
  readonly flowName: string;
  /** “line 5 read” */
  readonly line: string;
  readonly why: string;
  readonly held: boolean;
  readonly count: number;
  readonly since: number;
  /** those that came first */
  readonly trips: readonly { readonly id: string; readonly personName: string; readonly companyName: string | null }[];
  readonly byHand: { readonly label: string; readonly unit: string | null } | null;
}
/** A call, a note or a letter of a plan. */
export type TaskView = Answer<'listTasks'>['items'][number];
export type NoticeView = Answer<'listNotices'>['items'][number];
export interface DoubtView {
  readonly id: string;
  readonly personId: string;
  readonly personName: string;
  readonly subject: string;
  readonly mailbox: string;
  readonly says: string | null;
  readonly startedAt: number | null;
}
/** A release whose first ones are on their way while the others wait for a word. */
export interface FirstView {
  readonly flowId: string;
  readonly flowName: string;
  readonly versionId: string;
  readonly firstN: number;
  readonly held: number;
  readonly open: number;
  readonly done: number;
  readonly stopped: number;
  readonly stuck: number;
  readonly since: number;
}
export interface ReplyView extends MessageView {
  readonly thread: readonly MessageView[];
  /** who has the conversation; null: everybody */
  readonly holder: string | null;
  readonly whose: ReviewView['whose'] | null;
}
export interface DeskView {
  readonly reviews: readonly ReviewView[];
  readonly tasks: readonly TaskView[];
  readonly pairs: readonly PairView[];
  readonly stuck: readonly StuckView[];
  readonly doubts: readonly DoubtView[];
  readonly replies: readonly ReplyView[];
  readonly notices: readonly NoticeView[];
  readonly firsts: readonly FirstView[];
}
