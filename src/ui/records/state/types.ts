/** What the record pages show, as the server gives it. */
import type { JsonObject, RecordKind } from '../../../core/base';
import type { Fact } from '../../../core/facts';
import type { Channel } from '../../../core/writer';

export interface KnownField {
  readonly record: RecordKind;
  readonly recordId: string;
  readonly key: string;
  readonly label: string;
  readonly group: string;
  readonly unit: string | null;
  readonly isStale?: boolean;
  readonly fact: Fact | null;
  readonly others: readonly Fact[];
}
/** A record whose values a page shows. */
export interface KnownOf {
  readonly record: RecordKind;
  readonly id: string;
  /** told behind a field's label where a page shows several records of a kind */
  readonly name?: string;
}
export interface Happening {
  readonly at: number;
  readonly kind: string;
  readonly says: string;
  readonly detail: JsonObject;
}
export interface MessageItem {
  readonly id: string;
  readonly threadId: string | null;
  readonly direction: 'in' | 'out';
  readonly channel: Channel;
  readonly subject: string;
  readonly body: string;
  readonly state: string;
  readonly touch: number | null;
  readonly at: number;
  readonly dueAt: number | null;
  readonly approvedByName: string | null;
  readonly handledAt: number | null;
  readonly says: string | null;
  readonly reading: {
    readonly kind: string;
    readonly objection: string | null;
    readonly when: string | null;
    readonly quote: string | null;
  } | null;
}
export interface MergeItem {
  readonly id: number;
  readonly kind: string;
  readonly fromName: string;
  readonly by: string;
  readonly at: number;
}
