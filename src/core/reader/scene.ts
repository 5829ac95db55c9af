import { fold, type Instant } from '../base';
import { formOf, monthsOf, type Asked, type Form } from './asked';
import { CueBook, type Cue, type Hit } from './cues';
import { ownWords } from './skills/names';
import { namesOfOthers } from './skills/others';
import { amountsIn, countsIn, sumsIn, sumsOfRows } from './find/figures';
import { claimsIn, eventsIn } from './find/claims';
import { contactsIn } from './find/contacts';
import { itemLists, listsIn, tongueList } from './find/lists';
import { monthsAsked, monthsIn } from './find/months';
import { optionsIn } from './find/choices';
import { peopleNamed, productsNamed } from './find/names';
import { textsIn } from './find/texts';
import { datesOf } from './find/years';
import { isMeasured } from './skills/quantities';
import type { Candidate } from './find/candidate';
import type { Said } from './said';

/** Where the words of the question were met around one sentence. */
export interface Met {
  readonly here: readonly Hit[];
  readonly head: readonly Hit[];
  readonly before: readonly Hit[];
  readonly page: readonly Hit[];
}

/** One question before one site: what could answer it, and what is needed to weigh it. */
export interface Scene {
  readonly question: Asked;
  readonly form: Form;
  readonly months: number | undefined;
  readonly now: Instant;
  readonly candidates: readonly Candidate[];
  readonly met: ReadonlyMap<Said, Met>;
  /** how telling a cue is here: 1 for one met once, towards 0 for one met everywhere */
  readonly rarity: ReadonlyMap<string, number>;
  /** the question's own words, as keys of `rarity` */
  readonly askedFor: readonly string[];
  /** folded words of the names by which other houses go on the site */
  readonly others: ReadonlySet<string>;
}

const NOTHING: readonly Hit[] = [];
const LOWER = /(?<![\p{L}\p{N}])\p{Ll}[\p{L}]+/gu;
const TONGUES = /\b(?:languages?|sprachen?|tale?n?|idiomas?|lenguas?|langues?|lingue)\b/;

/** Words of the firm's own name: of its address, and those that stand in the title of most of its pages. */
function ownNames(said: readonly Said[]): ReadonlySet<string> {
  const titles = new Map<string, string>();
  for (const entry of said) titles.set(entry.url, entry.title);
  const count = new Map<string, number>();
  for (const [url, title] of titles) for (const word of ownWords(url, title)) count.set(word, (count.get(word) ?? 0) + 1);
  return new Set([...count].filter(([, times]) => times >= Math.max(1, titles.size * 0.6)).map(([word]) => word));
}

/** The names of others, kept for each reading of a site: many questions share one. */
const othersKept = new WeakMap<readonly Said[], ReadonlySet<string>>();
function othersOf(said: readonly Said[], own: ReadonlySet<string>): ReadonlySet<string> {
  let found = othersKept.get(said);
  if (!found) othersKept.set(said, (found = namesOfOthers(said, own)));
  return found;
}

/** Where the words of a question meet those of a site. */
interface Meetings {
  readonly of: (entry: Said) => Met;
  /** of every sentence that was asked for */
  readonly met: ReadonlyMap<Said, Met>;
  /** how telling each word is: those that stand everywhere say little */
  readonly rarity: ReadonlyMap<string, number>;
}

function meetings(book: CueBook, said: readonly Said[]): Meetings {
  const heads = new Map<string, readonly Hit[]>();
  const pages = new Map<string, readonly Hit[]>();
  const here = new Map<Said, readonly Hit[]>();
  const count = new Map<string, number>();
  for (const entry of said) {
    const cues = book.in(entry.language);
    const hits = cues.hits(entry.tokens);
    here.set(entry, hits);
    for (const key of new Set(hits.map((hit) => keyOf(hit.cue)))) count.set(key, (count.get(key) ?? 0) + 1);
    const headKey = `${entry.language} ${entry.under}`;
    if (!heads.has(headKey)) heads.set(headKey, cues.hits(entry.headTokens));
    if (!pages.has(entry.url)) pages.set(entry.url, cues.hits(entry.pageTokens));
  }
  const met = new Map<Said, Met>();
  const of = (entry: Said): Met => {
    let found = met.get(entry);
    if (!found) {
      found = {
        here: here.get(entry) ?? NOTHING,
        head: heads.get(`${entry.language} ${entry.under}`) ?? NOTHING,
        before: (entry.before && here.get(entry.before)) ?? NOTHING,
        page: pages.get(entry.url) ?? NOTHING,
      };
      met.set(entry, found);
    }
    return found;
  };
  const rarity = new Map([...count].map(([key, times]) => [key, 1 / (1 + Math.log2(Math.max(1, times)))]));
  return { of, met, rarity };
}

/** What is looked for: the form of the answer, and what the search needs to know besides. */
interface Search {
  readonly question: Asked;
  readonly wording: string;
  readonly form: Scene['form'];
  readonly unit: string | undefined;
  readonly months: Scene['months'];
  readonly now: Instant;
  readonly askedFor: readonly string[];
  /** names of the site's own */
  readonly taken: ReadonlySet<string>;
  /** of a product: words that stand somewhere without a capital */
  readonly lower: ReadonlySet<string>;
  readonly tongues: boolean;
}

export function sceneOf(question: Asked, said: readonly Said[], now: Instant): Scene {
  const wording = fold(question.wording);
  const unit = question.type.kind === 'number' ? question.type.unit : undefined;
  const form = formOf(question, wording, unit !== undefined && isMeasured(unit));
  const months = monthsOf(question, wording);
  const book = new CueBook(question);
  const askedFor = [...new Set(book.in('en').list.flatMap((cue) => (cue.role === 'ask' || cue.role === 'head' ? [keyOf(cue)] : [])))];
  const { of, met, rarity } = meetings(book, said);
  const taken = ownNames(said);
  const lower = new Set(form === 'product' ? said.flatMap((entry) => (entry.text.match(LOWER) ?? []).map(fold)) : []);
  const tongues = form === 'list' && TONGUES.test(wording);
  const candidates = candidatesIn({ question, wording, form, unit, months, now, askedFor, taken, lower, tongues }, said, of);
  return { question, form, months, now, candidates, met, rarity, askedFor, others: othersOf(said, taken) };
}

function candidatesIn(search: Search, said: readonly Said[], of: Meetings['of']): readonly Candidate[] {
  const { form, wording, tongues } = search;
  const candidates: Candidate[] = [];
  for (const entry of said) {
    if (entry.kind === 'heading' && entry.text.endsWith('?')) continue;
    const own = of(entry);
    const any = own.here.length + own.head.length + own.before.length > 0;
    if (!any && form !== 'contact') continue;
    if ((form === 'claim' || form === 'event') && !isReached(own, search.askedFor)) continue;
    candidates.push(...foundIn(search, entry, own).filter((candidate) => !ruledOut(candidate, own.here)));
  }
  if (form === 'count') candidates.push(...sumsOfRows(candidates, (entry) => of(entry).here));
  if (form === 'list' && !monthsAsked(wording))
    for (const { candidate, lead } of itemLists(said)) {
      const own = of(candidate.said);
      const leads = lead ? of(lead).here : NOTHING;
      if (own.head.length + leads.length === 0) continue;
      candidates.push({ ...candidate, marks: { ...candidate.marks, leadHit: leads.length > 0 ? 1 : 0 } });
    }
  if (tongues)
    candidates.push(
      ...tongueList(said, (entry) => {
        const own = of(entry);
        return own.here.length + own.head.length + own.page.length > 0;
      }),
    );
  return candidates;
}

/** Whether enough of what is asked is spoken of to be claimed or denied: half a question is another one. */
function isReached(own: Met, askedFor: readonly string[]): boolean {
  const hits = [...own.here, ...own.head];
  if (hits.some((hit) => (hit.cue.role === 'word' || hit.cue.role === 'for') && hit.strength * hit.cue.weight >= 0.5)) return true;
  const met = new Set(hits.flatMap((hit) => (hit.cue.role === 'ask' || hit.cue.role === 'head' ? [keyOf(hit.cue)] : [])));
  return met.size >= Math.max(1, Math.ceil(askedFor.length * 0.65));
}

function foundIn(
  { question, wording, form, unit, months, now, taken, lower, tongues }: Search,
  entry: Said,
  own: Met,
): readonly Candidate[] {
  switch (form) {
    case 'count':
      return countsIn(entry, own.here);
    case 'quantity':
      return amountsIn(entry, unit ?? '');
    case 'money':
      return sumsIn(entry, question.type.kind === 'money' ? question.type.currency : (unit ?? 'EUR'));
    case 'year':
    case 'date':
      return datesOf(entry, form, now);
    case 'claim':
      return claimsIn(entry, own.here, own.head);
    case 'event':
      return eventsIn(entry, own.here, now, months ?? 12);
    case 'person':
      return peopleNamed(entry, own.here, taken);
    case 'product':
      return productsNamed(entry, own.here, taken, lower);
    case 'choice':
      return optionsIn(entry, own.here, taken);
    case 'list':
      if (monthsAsked(wording)) return monthsIn(entry, wording);
      return listsIn(entry, own.here, own.head, tongues);
    case 'contact':
      return contactsIn(entry, wording);
    case 'text':
      return textsIn(entry, own.here);
  }
}

/** Whether words that do not count stand in the candidate's own clause: what somebody ruled out is no matter of weight. */
function ruledOut({ said, from }: Candidate, hits: readonly Hit[]): boolean {
  const clause = said.tokens[from]?.clause;
  return hits.some((hit) => hit.cue.role === 'not' && hit.strength >= 0.7 && said.tokens[hit.from]?.clause === clause);
}

export const keyOf = (cue: Cue): string => `${cue.role} ${cue.says}`;
