import { fold } from '../base';
import type { Catalogue } from '../fields';
import { readCondition } from '../flow/check';
import { readLoosely } from '../flow/phrase';
import type { Scorecard } from '../score';

/** The scorecard that the letter writes. */
export const GOOD_CARD = 'A good one';
/** Points of what is said first; each counts the same until somebody says otherwise on the scorecard itself. */
const POINTS = 10;
/** A good one has so much of all points. */
const ENOUGH = 0.6;

export type GoodReading = { readonly ok: true; readonly feel: readonly string[] } | { readonly ok: false; readonly why: string };

const words = (text: string): readonly string[] =>
  fold(text)
    .split(/[^\p{L}\d]+/u)
    .filter((word) => word.length > 2)
    .map((word) => word.replace(/s$/, ''));

/** A thing that is so or not, by the words it is called by: “buys in bulk” is the field “buy in bulk”. */
function yesNoSaid(text: string, fields: Catalogue): readonly string[] {
  const not = /^(?:does not|do not|is not|has no|no|never)\b/i.test(text);
  const said = new Set(words(text));
  return fields
    .all('company')
    .filter((field) => field.type === 'yes/no' && [field.label, ...field.words].some((name) => holdsAll(said, words(name))))
    .map((field) => `company.${field.key} = ${not ? 'false' : 'true'}`);
}
const holdsAll = (said: ReadonlySet<string>, wanted: readonly string[]): boolean =>
  wanted.length > 0 && wanted.every((word) => said.has(word));

/** “keeps between 5 and 40 horses” says it the other way round. */
const turned = (text: string): string =>
  text.replace(
    /^(?:\p{L}+s )?((?:between \S+ and \S+)|(?:(?:at least|at most|more than|less than|fewer than|over|under) \S+)) (?:of )?(\p{L}.{0,80})$/iu,
    '$2 $1',
  );

/** What makes a company a good one, as conditions on its fields; several where the words may mean several. */
export function readGood(text: string, fields: Catalogue): GoodReading {
  const said = text.trim().replace(/\s+/g, ' ').replace(/[.!]$/, '');
  if (said === '') return { ok: false, why: 'say what a good one has, as “more than 10 vans”' };
  if (/[<>=]/.test(said)) {
    const read = readCondition(said, 'person', fields);
    return read.ok ? { ok: true, feel: [said] } : { ok: false, why: read.problems[0]?.message ?? 'this condition cannot be read' };
  }
  const plain = yesNoSaid(said, fields);
  if (plain.length > 0) return { ok: true, feel: plain };
  const ask = { about: 'person', fields } as const;
  const loose = readLoosely(said, ask);
  const read = loose.ok ? loose : readLoosely(turned(said), ask);
  // What is said of a company is a field of the company, where one is called so.
  if (!read.ok) return { ok: false, why: loose.ok ? read.why : loose.why };
  const ofCompany = read.feel.filter((feel) => feel.includes('company.'));
  return { ok: true, feel: ofCompany.length > 0 ? ofCompany : read.feel };
}

/** The scorecard with one more thing that a good one has; made where there is none. */
export function addCriterion(card: Scorecard | undefined, text: string, when: string): Scorecard {
  const before = card ?? { name: GOOD_CARD, target: 'company' as const, criteria: [], disqualifiers: [], bands: [] };
  const used = new Set(before.criteria.map((criterion) => criterion.id));
  let no = before.criteria.length + 1;
  while (used.has(`c${no}`)) no += 1;
  const criteria = [...before.criteria, { id: `c${no}`, text, levels: [{ when, points: POINTS }], whenUnknown: 0 }];
  const all = (of: Scorecard['criteria']): number =>
    of.reduce((sum, { levels }) => sum + Math.max(...levels.map(({ points }) => points)), 0);
  const barOf = (of: Scorecard['criteria']): number => Math.ceil(all(of) * ENOUGH);
  // A bar that somebody has moved stays where they put it.
  const bands =
    before.bands.length === 0
      ? [
          { name: 'good', from: barOf(criteria) },
          { name: 'rest', from: 0 },
        ]
      : before.bands.map((band) =>
          band.name === 'good' && band.from === barOf(before.criteria) ? { ...band, from: barOf(criteria) } : band,
        );
  return { ...before, criteria, bands };
}
