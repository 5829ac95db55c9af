import type { Instant, RecordRef } from '../base';
import type { FactValue } from '../fields';

export const SOURCE_KINDS = [
  'hand',
  'confirmed',
  'lookup',
  'register',
  'site',
  'news',
  'directory',
  'jobs',
  'document',
  'reply',
  'crm',
  'file',
  'form',
  'mail',
  'calendar',
  'api',
  'flow',
] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** The words shown beside a value. */
export const SOURCE_LABELS: Record<SourceKind, string> = {
  hand: 'by hand',
  confirmed: 'confirmed',
  lookup: 'chain',
  register: 'register',
  site: 'site',
  news: 'news',
  directory: 'directory',
  jobs: 'jobs posted',
  document: 'document',
  reply: 'reply',
  crm: 'CRM',
  file: 'file',
  form: 'form',
  mail: 'mail',
  calendar: 'calendar',
  api: 'API',
  flow: 'flow',
};

/** One sourced value for one field of one record, not yet stored. */
export interface FactDraft {
  readonly record: RecordRef;
  readonly field: string;
  /** null: it was looked for and not found */
  readonly value: FactValue;
  readonly source: SourceKind;
  /** what exactly the source was: a file and row, a provider, a user */
  readonly sourceRef: string;
  readonly url?: string;
  /** the words it rests on, as they stand in the source */
  readonly quote?: string;
  /** 0 to 1 */
  readonly confidence: number;
  readonly observedAt: Instant;
  /** how far the field itself trusts the source, where its business has said so; higher first */
  readonly ownRank?: number;
}

export interface Fact extends FactDraft {
  readonly id: string;
}
