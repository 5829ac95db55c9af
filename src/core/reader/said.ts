import { fold, words, type Instant } from '../base';
import { textBlocks, type Block } from '../formats';
import { sentencesOf } from './sentences';
import { datesIn } from './skills/dates';
import { PARKED, PLACEHOLDER } from './skills/empty';
import { speaksToMachines } from './skills/standing';
import { languageOf, type Language, type Lexicon } from './language';
import { tokensOf, type Token } from './tokens';

/** A page or document as the reader sees it. */
export interface Passage {
  readonly url: string;
  readonly title: string;
  readonly published: Instant | null;
  readonly blocks: readonly Block[];
}

/** Plain text as a passage. */
export function passageOf(url: string, text: string): Passage {
  return { url, title: '', published: null, blocks: textBlocks(text) };
}

/** One sentence, row or heading of a passage with what surrounds it. */
export interface Said {
  readonly text: string;
  readonly folded: string;
  readonly kind: Block['kind'];
  /** folded heading above */
  readonly under: string;
  /** the heading above as it stands */
  readonly head: string;
  /** what stands directly before it in the same block; of a row the row above */
  readonly before: Said | null;
  /** folded, what stands directly behind it in the same block */
  readonly next: string;
  readonly url: string;
  /** folded title of the page */
  readonly title: string;
  /** the day it is of, where the page says so */
  readonly date: Instant | null;
  readonly language: Language;
  readonly tokens: readonly Token[];
  /** folded words with a capital that a dictionary knows; empty where none is at hand */
  readonly ordinary: ReadonlySet<string>;
  /** words of the heading above */
  readonly headTokens: readonly Token[];
  /** words of the page's title and of its address */
  readonly pageTokens: readonly Token[];
}

const LONGEST = 600;
/** A line of text written as a row. */
const LABELLED = /^[^:.]{2,40}: \S/;
/** A line that holds little more than a day, over a piece of news: “Uckermark, 14 May 2026”. */
const DATELINE_MAX = 60;
const DATELINE_REST = 25;

/** Folded, with one kind of apostrophe. */
const plain = (text: string): string => fold(text).replace(/[’‘`´]/g, "'");

function datelineOf(text: string): Instant | null {
  if (text.length > DATELINE_MAX) return null;
  const folded = plain(text);
  const dates = datesIn(folded, 0).filter((date) => date.grain === 'day' || date.grain === 'month');
  const [date] = dates;
  return dates.length === 1 && date && folded.length - (date.to - date.from) <= DATELINE_REST ? date.start : null;
}

const AS_OF =
  /\b(?:as of|(?:last )?updated|stand(?: van)?:?|per|bijgewerkt|actualizado|a fecha de|mise? a jour|situation au)(?: on| am| op| el| le| en)? ?$/;
/** The day that a sentence or a heading says what it tells is of: “(updated June 2024)”. */
function statedDay(folded: string): Instant | null {
  return datesIn(folded, 0).find((date) => AS_OF.test(folded.slice(Math.max(0, date.from - 24), date.from)))?.start ?? null;
}

/** Whether most of the pages say of their address that nobody lives there: what else stands there is somebody's advertising. */
function isParked(passages: readonly Passage[]): boolean {
  const parked = passages.filter(({ blocks }) => blocks.some((block) => block.text.length < LONGEST && PARKED.test(plain(block.text))));
  return parked.length > 0 && parked.length * 2 >= passages.length;
}

/**
 * Everything the passages say, sentence by sentence. Words addressed to machines, and those that came with a page's pattern, are nobody's
 * statement and are left out.
 */
export function saidIn(passages: readonly Passage[], lexicon?: Lexicon): readonly Said[] {
  const seen = new Set<string>();
  if (isParked(passages)) return [];
  return passages.flatMap((passage) => saidOf(passage, seen, lexicon));
}

/** What one passage says; `seen` holds what was said before, and grows. */
function saidOf(passage: Passage, seen: Set<string>, lexicon: Lexicon | undefined): readonly Said[] {
  const out: Said[] = [];
  const page = pageOf(passage);
  let dateline: Instant | null = null;
  let dayBefore = false;
  let rowAbove: Said | null = null;
  for (const block of passage.blocks) {
    const blockFolded = plain(block.text);
    if (speaksToMachines(blockFolded) || PLACEHOLDER.test(blockFolded)) continue;
    const day = datelineOf(block.text);
    // A day over a heading is of what stands under it.
    if (day !== null) dateline = day;
    else if (block.kind === 'heading' && !dayBefore) dateline = null;
    dayBefore = day !== null;
    const single = block.kind === 'row' || block.kind === 'data';
    const sentences = single ? [block.text] : sentencesOf(block.text);
    const [first = ''] = sentences;
    const opening = sentences.length > 1 ? datelineOf(first) : null;
    let before: Said | null = single || LABELLED.test(block.text) ? rowAbove : null;
    for (const [i, text] of sentences.entries()) {
      const key = `${passage.url}\n${text}`;
      if (text.length > LONGEST || seen.has(key)) continue;
      seen.add(key);
      const folded = plain(text);
      const under = page.under(block);
      before = {
        text,
        folded,
        kind: block.kind,
        ...under,
        ...page.common,
        tokens: tokensOf(folded, page.common.language),
        ordinary: ordinaryOf(text, page.common.language, lexicon),
        before,
        next: plain(sentences[i + 1] ?? ''),
        date: statedDay(folded) ?? statedDay(under.under) ?? block.date ?? opening ?? dateline ?? passage.published,
      };
      out.push(before);
    }
    rowAbove = single || (before !== null && rowOf(before) !== undefined) ? before : null;
  }
  return out;
}

/** What everything on a page has in common, and what stands above each of its blocks, read once. */
function pageOf(passage: Passage) {
  const title = plain(passage.title);
  const language = languageOfPassage(passage);
  const path = plain(passage.url.replace(/^https?:\/\/[^/]*/, ''));
  const pageTokens = tokensOf(`${title.slice(0, LONGEST)} . ${path}`.slice(0, LONGEST), language);
  const heads = new Map<string, readonly Token[]>();
  return {
    common: { url: passage.url, title, language, pageTokens },
    under: (block: Block): Pick<Said, 'under' | 'head' | 'headTokens'> => {
      const under = plain(block.under);
      let headTokens = heads.get(under);
      if (!headTokens) heads.set(under, (headTokens = tokensOf(under.slice(0, LONGEST), language)));
      return { under, head: block.under, headTokens };
    },
  };
}

const NONE: ReadonlySet<string> = new Set();
const CAPITAL = /(?<![\p{L}\p{N}])\p{Lu}\p{Ll}[\p{L}]*/gu;
function ordinaryOf(text: string, language: Language, lexicon: Lexicon | undefined): ReadonlySet<string> {
  if (!lexicon) return NONE;
  const found = (text.match(CAPITAL) ?? []).filter((word) => lexicon.knows(word.toLowerCase(), language));
  return found.length === 0 ? NONE : new Set(found.map((word) => fold(word)));
}

/** The words with a capital in what was read that a dictionary knows, in small letters: for whoever has no dictionary at hand. */
export function ordinaryIn(passages: readonly Passage[], lexicon: Lexicon): readonly string[] {
  const found = new Set<string>();
  for (const passage of passages) {
    const language = languageOfPassage(passage);
    for (const { text } of passage.blocks)
      for (const word of text.match(CAPITAL) ?? []) if (lexicon.knows(word.toLowerCase(), language)) found.add(word.toLowerCase());
  }
  return [...found];
}

/** So many words tell the language of a page. */
const SAMPLE = 600;

function languageOfPassage(passage: Passage): Language {
  const sample: string[] = [];
  for (const block of passage.blocks) {
    if (block.kind === 'data') continue;
    sample.push(...words(block.text));
    if (sample.length > SAMPLE) break;
  }
  return languageOf(sample.slice(0, SAMPLE));
}

/** The label and the value of a row (“label: value”); undefined for other kinds. */
export function rowOf(said: Said): { readonly label: string; readonly value: string } | undefined {
  if (said.kind !== 'row' && said.kind !== 'data' && !LABELLED.test(said.text)) return undefined;
  const cut = said.text.indexOf(': ');
  return cut < 0 ? undefined : { label: plain(said.text.slice(0, cut)).trim(), value: said.text.slice(cut + 2).trim() };
}

const POINTS_BACK =
  /^(?:it|its|then|since then|seither|seitdem|sindsdien|toen|desde entonces|this|that|these|they|there|sie|es|er|diese[rs]?|dies|davon|deze|dit|het|die|ze|hij|daarvan|esta|este|estas|estos|ocupa|se |lo |la |elle|il|ils|elles|celui-ci|celle-ci|cela|cette|ce )\b/;

const BACK_INSIDE = /\b(?:bought|installed|fitted|replaced|had) (?:it|them)\b|\b(?:haben|hebben) (?:wir|wij|we) (?:ihn|sie|es|hem|het)\b/;
/** A row about the thing in the row above: “In use since: 2021”. */
const SINCE_LABEL =
  /^(?:in use|in gebruik|in betrieb|in uso|en service|since|seit|sinds|desde|depuis|year|year of (?:build|installation)|installed|baujahr|bouwjaar|eingebaut|ano|annee)[^:]{0,25}:/;

/** The sentence before, when this one speaks of what that one named: “It was installed in 2013.” */
export function pointsBack(said: Said): Said | undefined {
  return said.before !== null && (POINTS_BACK.test(said.folded) || BACK_INSIDE.test(said.folded) || SINCE_LABEL.test(said.folded))
    ? said.before
    : undefined;
}

/** A value somebody states, with how well it fits the question. */
export interface Candidate {
  readonly value: string | number | boolean;
  readonly score: number;
  readonly said: Said;
  /** the day the value is of; null when nothing says so */
  readonly date?: Instant | null;
}
