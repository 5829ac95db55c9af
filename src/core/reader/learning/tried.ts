import { fold, type Instant } from '../../base';
import type { FactValue } from '../../fields';
import { answerFrom, type ReaderAnswer } from '../answer';
import type { Asked, Learnt } from '../asked';
import { featuresOf } from '../features';
import { familyOf, scoreOf, sharesOf, type Model } from '../model';
import type { Lexicon } from '../language';
import { saidIn, type Passage, type Said } from '../said';
import { sceneOf } from '../scene';
import { learn, type Example } from './teach';
import { MODEL } from '../weights';

/** A site read before, with its answer where that is known from elsewhere. */
export interface KnownSite {
  readonly host: string;
  readonly passages: readonly Passage[];
  readonly known: FactValue;
}

/** An answer somebody showed on a page: this one, or not this. */
export interface Shown {
  readonly host: string;
  readonly value: string | number | boolean;
  /** the sentence it stands in, word for word */
  readonly says: string;
  readonly verdict: 'this' | 'not';
  /** why it is not: one of `STANDINGS`, or other words */
  readonly reason?: string | undefined;
}

export type Outcome = 'right' | 'wrong' | 'missing' | 'unknown';

export interface SiteTried {
  readonly host: string;
  readonly before: FactValue;
  readonly after: FactValue;
  /** against what is known; `unknown` where nothing is */
  readonly was: Outcome;
  readonly is: Outcome;
}

/** A sentence that could answer, with how surely it does before and after what was taught. */
export interface Place {
  readonly value: string | number | boolean;
  readonly says: string;
  readonly under: string;
  readonly url: string;
  readonly date: Instant | null;
  readonly before: number;
  readonly after: number;
}

export interface Tried {
  readonly learnt: readonly Learnt[];
  readonly sites: readonly SiteTried[];
  /** of the site asked for, surest first */
  readonly places: readonly Place[];
}

const PLACES = 8;

/** What is read with a question changed and taught, on every site, beside what was read before. */
export function tryOut(ask: {
  readonly before: Asked;
  readonly draft: Asked;
  readonly shown: readonly Shown[];
  /** words learnt before that were left out by hand */
  readonly leftOut: readonly string[];
  readonly sites: readonly KnownSite[];
  /** of which to give the places */
  readonly host: string | null;
  readonly now: Instant;
  /** words with a capital that a dictionary knows, in small letters */
  readonly ordinary: readonly string[];
  readonly model?: Model;
}): Tried {
  const model = ask.model ?? MODEL;
  const ordinary = new Set(ask.ordinary);
  const lexicon: Lexicon = { knows: (word) => ordinary.has(word) };
  const said = new Map(ask.sites.map((site) => [site.host, saidIn(site.passages, lexicon)]));
  const learnt = learn(ask.draft, examplesOf(ask.shown, said, ask.now), model).filter(({ phrase }) => !ask.leftOut.includes(phrase));
  const taught: Asked = { ...ask.draft, learnt };
  const sites = ask.sites.map((site): SiteTried => {
    const of = said.get(site.host) ?? [];
    const [before, after] = [ask.before, taught].map((question) => answerFrom(question, of, site.passages.length, ask.now, model)) as [
      ReaderAnswer,
      ReaderAnswer,
    ];
    return {
      host: site.host,
      before: before.value,
      after: after.value,
      was: outcomeOf(ask.before, site.known, before.value),
      is: outcomeOf(taught, site.known, after.value),
    };
  });
  const here = ask.host === null ? undefined : said.get(ask.host);
  return { learnt, sites, places: here ? placesOf(ask.before, taught, here, ask.now, model) : [] };
}

function outcomeOf(question: Asked, known: FactValue, given: FactValue): Outcome {
  if (known === null) return 'unknown';
  return given === null ? 'missing' : alike(known, given) || names(question, known, given) ? 'right' : 'wrong';
}

/** Whether what is known is another word for the option given: a list may say “Topf” where the question says “pot”. */
function names(question: Asked, known: FactValue, given: FactValue): boolean {
  const words = typeof given === 'string' ? (question.optionWords?.[given] ?? []) : [];
  return words.some((word) => alike(word, known));
}

/** Numbers to one in a hundred; words whatever their case, accents and plural. */
export function alike(a: FactValue, b: FactValue): boolean {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) <= Math.abs(a) * 0.01;
  const plain = (value: FactValue): string => fold(String(value)).replace(/(?:es|s|en|n)\b/g, '');
  return plain(a) === plain(b);
}

/** What was shown on each site as one example: the answers it has, or those it has not. */
function examplesOf(shown: readonly Shown[], said: ReadonlyMap<string, readonly Said[]>, now: Instant): readonly Example[] {
  return [...new Set(shown.map(({ host }) => host))].flatMap((host): Example[] => {
    const entries = said.get(host);
    if (!entries) return [];
    const here = shown.filter((entry) => entry.host === host);
    const these = here.filter(({ verdict }) => verdict === 'this');
    const [first] = these;
    const reasons = here.flatMap(({ verdict, reason }) => (verdict === 'not' && reason !== undefined ? [reason] : []));
    if (!first)
      return [{ said: entries, reasons, now, openToSilence: true, right: (value) => !here.some((entry) => alike(entry.value, value)) }];
    return [{ said: entries, now, quote: first.says, right: (value) => these.some((entry) => alike(entry.value, value)) }];
  });
}

function placesOf(before: Asked, after: Asked, said: readonly Said[], now: Instant, model: Model): readonly Place[] {
  const shares = (question: Asked): Map<string, { readonly place: Omit<Place, 'before' | 'after'>; readonly share: number }> => {
    const scene = sceneOf(question, said, now);
    const family = familyOf(scene.form);
    const all = sharesOf(featuresOf(scene).map((features) => scoreOf(model.weights, family, features)));
    const out = new Map<string, { place: Omit<Place, 'before' | 'after'>; share: number }>();
    for (const [i, { value, said: entry }] of scene.candidates.entries()) {
      const key = `${entry.url} ${entry.text} ${String(value)}`;
      const share = Math.max(out.get(key)?.share ?? 0, all[i] ?? 0);
      out.set(key, { place: { value, says: entry.text, under: entry.head, url: entry.url, date: entry.date }, share });
    }
    return out;
  };
  const [was, is] = [shares(before), shares(after)];
  return [...new Set([...was.keys(), ...is.keys()])]
    .flatMap((key): Place[] => {
      const place = (is.get(key) ?? was.get(key))?.place;
      return place ? [{ ...place, before: round(was.get(key)?.share ?? 0), after: round(is.get(key)?.share ?? 0) }] : [];
    })
    .sort((a, b) => Math.max(b.before, b.after) - Math.max(a.before, a.after))
    .slice(0, PLACES);
}

const round = (share: number): number => Math.round(share * 100) / 100;
