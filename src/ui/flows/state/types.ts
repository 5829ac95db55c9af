/** What the workbench shows, as the server gives it: plain values. */
import type { Fact } from '../../../core/facts';
import type { JsonObject } from '../../../core/base';
import type { Outcome } from '../../../core/engine';

/** A fact as it is shown; when it was observed is told elsewhere. */
export type ShownFact = Omit<Fact, 'observedAt'>;

export interface LineCount {
  readonly mark: string;
  readonly outcome: Outcome;
  readonly arm: string | null;
  readonly trips: number;
  readonly costMicro: number;
  readonly tookMs: number;
}

export interface Entry {
  readonly seq: number;
  readonly mark: string;
  readonly verb: string;
  readonly outcome: Outcome;
  readonly says: string;
  readonly detail: JsonObject;
  readonly costMicro: number;
  readonly tookMs: number;
}

export interface SpecimenTrip {
  readonly id: string;
  readonly personId: string;
  readonly personName: string;
  /** what the specimen is called: a deal's title, or the person's name */
  readonly title: string;
  readonly companyName: string | null;
  readonly state: string;
  readonly why: string;
  readonly journal: readonly Entry[];
  /** facts of the record, those this trial found among them */
  readonly facts: readonly ShownFact[];
}

export interface Trial {
  readonly id: string;
  readonly text: string;
  readonly running: number;
  readonly costMicro: number;
  /** what lookups may cost */
  readonly limitMicro: number;
  /** lines whose answer came from earlier trials */
  readonly reused: number;
  readonly trips: readonly SpecimenTrip[];
  readonly lines: readonly LineCount[];
}

/** Where the ribbon's numbers come from. */
export type Range = 'trial' | 'day' | 'week' | 'all';
export const RANGES: readonly { readonly range: Range; readonly label: string }[] = [
  { range: 'trial', label: 'Trial' },
  { range: 'day', label: 'Last day' },
  { range: 'week', label: 'Week' },
  { range: 'all', label: 'All' },
];
