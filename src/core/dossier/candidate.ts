import { chooseCurrent, competing, SOURCE_LABELS, type Fact } from '../facts';
import { printValue, type Field } from '../fields';
import { ofFact, line } from './lines';
import type { DossierLine, DossierSection } from './dossier';

/** What is known of somebody who applies: from their papers, and for what. */
export interface Candidate {
  /** fields that papers fill, with all facts of each */
  readonly papers: readonly { readonly field: Field; readonly facts: readonly Fact[] }[];
  readonly applies: readonly { readonly opening: string; readonly stage: string; readonly criteria: readonly string[] }[];
}

/** Beside what a field of the workspace's own counts out of papers. */
const SHORT = ['job_title', 'years', 'languages', 'driving'];
/** Said of every candidate, or asked of them in the talk. */
const ASK: Readonly<Record<string, string>> = {
  education: 'What did they learn?',
  jobs: 'Where have they worked, and when?',
  languages: 'Which languages do they speak?',
  driving: 'Do they hold a driving licence?',
  skills: 'What are they skilled in?',
};

const bestOf = (candidate: Candidate, key: string): { readonly field: Field; readonly fact: Fact } | undefined => {
  const entry = candidate.papers.find(({ field }) => field.key === key);
  const fact = entry && chooseCurrent(entry.facts);
  return entry && fact && { field: entry.field, fact };
};

/** The sections of a candidate's dossier that others do not have. */
export function candidateSections(candidate: Candidate): {
  readonly short: readonly DossierLine[];
  readonly watch: readonly DossierLine[];
  readonly unknown: readonly DossierLine[];
  readonly more: readonly DossierSection[];
} {
  const said = (key: string): readonly DossierLine[] => {
    const best = bestOf(candidate, key);
    return best ? [ofFact(best.fact, best.field.label, printValue(best.fact.value, best.field.unit), [], best.field.unit)] : [];
  };
  return {
    short: [
      ...SHORT.slice(0, 2),
      ...candidate.papers.filter(({ field }) => field.yearsIn).map(({ field }) => field.key),
      ...SHORT.slice(2),
    ].flatMap(said),
    watch: watchOf(candidate),
    unknown: Object.entries(ASK).flatMap(([key, question]) => (bestOf(candidate, key) ? [] : [line({ text: question })])),
    more: [
      {
        id: 'applies',
        title: 'Applies for',
        lines: candidate.applies.map(({ opening, stage, criteria }) =>
          line({ label: opening, text: `at ${stage}${criteria.length === 0 ? '' : `; looked for: ${criteria.join(', ')}`}` }),
        ),
      },
      {
        id: 'papers',
        title: 'What their papers say',
        lines: candidate.papers.filter(({ field }) => !SHORT.includes(field.key)).flatMap(({ field }) => said(field.key)),
      },
    ],
  };
}

function watchOf(candidate: Candidate): readonly DossierLine[] {
  const out: DossierLine[] = [];
  const gaps = bestOf(candidate, 'gaps');
  if (gaps && gaps.fact.value !== 'none') out.push(ofFact(gaps.fact, 'a gap', String(gaps.fact.value), []));
  const driving = bestOf(candidate, 'driving');
  if (driving?.fact.value === false) out.push(ofFact(driving.fact, 'driving', 'They hold no driving licence.', []));
  for (const { field, facts } of candidate.papers) {
    const best = chooseCurrent(facts);
    const others = competing(facts);
    if (best && others.length > 0)
      out.push(
        ofFact(
          best,
          field.label,
          `Sources disagree: ${printValue(best.value, field.unit)} (${SOURCE_LABELS[best.source]}) was taken.`,
          others,
          field.unit,
        ),
      );
  }
  return out;
}
