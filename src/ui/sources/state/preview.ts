import type { Answer } from '../../../api';
import { plural } from '../../../core/base';
import { countPlans, isOfCompanies } from '../../../core/intake';

/** A list before it is taken in. */
export type PreviewView = Answer<'previewImport'>;
/** A row as it is read, with what becomes of it. */
export type PreviewRow = PreviewView['rows'][number];
export type Counts = NonNullable<PreviewView['counts']>;
export type Becomes = PreviewRow['plan']['kind'];

/** What a row can become, in the order in which it is shown, each with its colour. */
export const kindsOf = (ofCompanies: boolean): readonly { readonly kind: Becomes; readonly label: string; readonly tone: string }[] => [
  { kind: 'new', label: ofCompanies ? 'new companies' : 'new people', tone: 'var(--w4)' },
  { kind: 'known', label: 'known already', tone: 'var(--river)' },
  { kind: 'perhaps', label: 'perhaps known', tone: 'var(--brass-mark)' },
  { kind: 'refused', label: 'refused', tone: 'var(--brick)' },
];

export const countsOf = (rows: PreviewView['rows']): Counts => countPlans(rows);

/** A list of companies, without anybody who works there. */
export const namesCompanies = ({ columns }: Pick<PreviewView, 'columns'>): boolean => isOfCompanies(columns.map(({ target }) => target));

/** Why so many rows become this, most frequent first. */
export function explain(kind: Becomes, preview: PreviewView, counts: Counts): string {
  const reasons = new Map<string, number>();
  for (const row of preview.rows)
    if (row.plan.kind === kind) {
      const why = row.plan.why.replace(/ \d+$/, '').replace(/^perhaps .+ \(.+\)$/, '');
      reasons.set(why, (reasons.get(why) ?? 0) + 1);
    }
  const ofCompanies = namesCompanies(preview);
  if (kind === 'new' && !ofCompanies) return `with ${plural(counts.newCompanies, 'new company', 'new companies')}`;
  if (kind === 'perhaps') return ofCompanies ? 'taken in as new; the duplicates page asks' : 'the flow’s match line asks on the desk';
  const listed = [...reasons]
    .sort((a, b) => b[1] - a[1])
    .map(([why, count]) => `${why} ${count}`)
    .join(' · ');
  return listed || 'none';
}

/** What is made beside people and companies, where the list tells of any. */
export function alsoMade({ newDeals, newApplications }: Pick<Counts, 'newDeals' | 'newApplications'>): string | null {
  const said = [
    ...(newDeals > 0 ? [plural(newDeals, 'new deal')] : []),
    ...(newApplications > 0 ? [plural(newApplications, 'new application')] : []),
  ];
  return said.length === 0 ? null : said.join(' · ');
}
