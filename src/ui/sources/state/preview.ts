import { plural } from '../../../core/base';
import type { FactValue } from '../../../core/fields';
import type { Target } from '../../../core/intake';

/** A row as it is read, with what becomes of it. */
export interface PreviewRow {
  readonly row: number;
  readonly fileRow: number;
  readonly cells: readonly string[];
  readonly plan: {
    readonly kind: Becomes;
    readonly why: string;
    readonly otherName: string | null;
    readonly newCompany: boolean;
  };
  readonly reading: {
    readonly record: {
      readonly person: Readonly<Record<string, FactValue>>;
      readonly company: Readonly<Record<string, FactValue>>;
      readonly note: string | null;
    };
    readonly remarks: readonly { readonly target: string; readonly raw: string; readonly says: string }[];
    readonly refused: string | null;
  };
  readonly changes: readonly { readonly field: string; readonly from: FactValue; readonly to: FactValue }[];
}

export interface PreviewView {
  readonly table: { readonly encoding: string; readonly delimiter: string; readonly headingRow: number };
  readonly columns: readonly {
    readonly heading: string;
    readonly target: Target;
    readonly why: string;
    readonly sure: boolean;
    readonly samples: readonly string[];
  }[];
  readonly rows: readonly PreviewRow[];
  /** of all rows; null while they are counted */
  readonly counts: Counts | null;
}
export interface Counts {
  readonly new: number;
  readonly known: number;
  readonly perhaps: number;
  readonly refused: number;
  readonly newCompanies: number;
}
export type Becomes = 'new' | 'known' | 'perhaps' | 'refused';

/** What a row can become, in the order in which it is shown, each with its colour. */
export const KINDS: readonly { readonly kind: Becomes; readonly label: string; readonly tone: string }[] = [
  { kind: 'new', label: 'new people', tone: 'var(--w4)' },
  { kind: 'known', label: 'known already', tone: 'var(--river)' },
  { kind: 'perhaps', label: 'perhaps known', tone: 'var(--brass-mark)' },
  { kind: 'refused', label: 'refused', tone: 'var(--brick)' },
];

export function countsOf(rows: PreviewView['rows']): Counts {
  const count = (kind: Becomes): number => rows.filter((row) => row.plan.kind === kind).length;
  return {
    new: count('new'),
    known: count('known'),
    perhaps: count('perhaps'),
    refused: count('refused'),
    newCompanies: rows.filter((row) => row.plan.newCompany).length,
  };
}

/** Why so many rows become this, most frequent first. */
export function explain(kind: Becomes, preview: PreviewView, counts: Counts): string {
  const reasons = new Map<string, number>();
  for (const row of preview.rows)
    if (row.plan.kind === kind) {
      const why = row.plan.why.replace(/ \d+$/, '').replace(/^perhaps .+ \(.+\)$/, '');
      reasons.set(why, (reasons.get(why) ?? 0) + 1);
    }
  if (kind === 'new') return `with ${plural(counts.newCompanies, 'new company', 'new companies')}`;
  if (kind === 'perhaps') return 'the flow’s match line asks on the desk';
  const listed = [...reasons]
    .sort((a, b) => b[1] - a[1])
    .map(([why, count]) => `${why} ${count}`)
    .join(' · ');
  return listed || 'none';
}
