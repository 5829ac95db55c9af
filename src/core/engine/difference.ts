import type { JournalEntry, Trip } from './types';
import type { Replayed } from './replay';
import { readDetail } from './verbs';

/** What a way through a flow came to, in the terms a person compares. */
export interface CameTo {
  /** a message would be sent */
  readonly written: boolean;
  /** the last score’s band and points */
  readonly band: string | null;
  readonly points: number | null;
  readonly end: Trip['state']['kind'];
  /** one sentence: where it ended */
  readonly says: string;
}

export const DIFFERENCES = ['written to', 'not written to', 'up a band', 'down a band', 'other way', 'other lines', 'same'] as const;
export type DifferenceKind = (typeof DIFFERENCES)[number];

export interface Difference {
  readonly kind: DifferenceKind;
  readonly before: CameTo;
  readonly after: CameTo;
  /** the mark of the first line where the two part; null when they never do */
  readonly mark: string | null;
  readonly beforeSays: string;
  readonly afterSays: string;
  /** what the draft asks that was never asked of this record */
  readonly missing: readonly string[];
}

export function cameTo({ trip, journal }: Pick<Replayed, 'trip' | 'journal'>): CameTo {
  const last = journal.findLast((entry) => entry.verb === 'score' && entry.outcome === 'passed');
  const score = last && readDetail('score', last.detail);
  return {
    written: journal.some((entry) => entry.outcome === 'sent'),
    band: score?.band ?? null,
    points: score?.points ?? null,
    end: trip.state.kind,
    says: journal.at(-1)?.says ?? '',
  };
}

/** What sets two lines of a journal apart: not how long they took, nor what they cost. */
const shape = (entry: JournalEntry | undefined): string =>
  entry === undefined
    ? ''
    : JSON.stringify([entry.mark, entry.outcome, entry.verb === 'split' ? (readDetail('split', entry.detail)?.arm ?? null) : entry.says]);

/** Sets the draft’s way beside the live one’s. `bands` from best to worst. */
export function difference(live: Replayed, draft: Replayed, bands: readonly string[]): Difference {
  const [before, after] = [cameTo(live), cameTo(draft)];
  const [theirs, ours] = [shared(live.journal, draft.journal), shared(draft.journal, live.journal)];
  const at = Array.from({ length: Math.max(theirs.length, ours.length) }, (_, i) => i).find((i) => shape(theirs[i]) !== shape(ours[i]));
  const kind = kindOf(before, after, bands);
  return {
    kind: kind === 'same' && at !== undefined ? 'other lines' : kind,
    before,
    after,
    mark: at === undefined ? null : (ours[at]?.mark ?? theirs[at]?.mark ?? null),
    beforeSays: at === undefined ? '' : (theirs[at]?.says ?? 'had ended'),
    afterSays: at === undefined ? '' : (ours[at]?.says ?? 'had ended'),
    missing: draft.missing.filter((what) => !live.missing.includes(what)),
  };
}

/** A line that only one of the two has makes a difference first where it changes what follows; its own entry is none. */
function shared(journal: readonly JournalEntry[], other: readonly JournalEntry[]): readonly JournalEntry[] {
  const known = new Set(other.map((entry) => entry.mark));
  return journal.filter((entry) => known.has(entry.mark) || entry.outcome !== 'passed');
}

function kindOf(before: CameTo, after: CameTo, bands: readonly string[]): DifferenceKind {
  if (after.written !== before.written) return after.written ? 'written to' : 'not written to';
  const [was, is] = [bands.indexOf(before.band ?? ''), bands.indexOf(after.band ?? '')];
  if (was !== is && was >= 0 && is >= 0) return is < was ? 'up a band' : 'down a band';
  return after.end !== before.end || after.says !== before.says ? 'other way' : 'same';
}
