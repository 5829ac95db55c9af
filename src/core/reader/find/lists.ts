import { fold } from '../../base';
import { isSmall, type Language } from '../language';
import { rowOf, type Said } from '../said';
import { commonNames, tonguesIn } from '../skills/common-names';
import { ENDED, FORMER, NOT, OTHERS, PLANNED, WISHED } from '../skills/standing';
import { wordsBefore } from '../tokens';
import type { Hit } from '../cues';
import type { Candidate } from './candidate';

const MARKS = / ?[,;/·•|] ?(?:(?:and|und|en|y|e|et|or|oder|of|o|ou|sowie|as well as) )?/u;
const AND = / (?:and|und|en|y|e|et|sowie|as well as|&|\+) /u;
/** Words of a sentence that goes on: no item of a list holds one. */
const GOES_ON =
  /\b(?:you|we|they|it|he|she|is|are|was|were|have|has|can|will|whatever|which|who|that|wir|sie|ihr|ist|sind|hat|haben|wird|werden|man|wij|jij|zijn|hebben|wordt|nosotros|son|hay|nous|vous|est|sont|ont)\b/;

/**
 * The parts of an enumeration. Where commas part the items, an “and” parts the last two only: “oil and gas, rail, quarrying” are three;
 * without commas there are two: “in May and June and on Sundays” goes on behind the second.
 */
function partsOf(stretch: string): readonly string[] {
  const marked = stretch.split(MARKS);
  if (marked.length === 1) return stretch.split(AND).slice(0, 2);
  const joined = marked.slice(0, -1);
  const last = marked.at(-1) ?? '';
  // “A, B and C” against “A and B, C, D”, whose last comma stands before a single item.
  return [
    ...joined,
    ...(marked.length > 2 && /[,;/·•|] ?(?:and|und|en|y|e|et|sowie) /u.test(stretch) ? [last] : last.split(AND).slice(0, 2)),
  ];
}
const LEADING =
  /^(?:the|our|a|an|une|una|uno|eine?n?|der|die|das|unsere?|de|het|onze|el|la|los|las|nuestr[oa]s?|le|les|des|du|notre|nos|en|in|for|from|to|im|beim|para|pour|voor|also|auch|ook|both|mainly) |^[ld]'/i;
/** Where what is said of an item begins: a bracket, a dash, the end of a sentence. */
const AFTERTHOUGHT = /\(|–|—|\. |[.!?:;]$/u;
const ITEM_WORDS = 4;
const LEAST = 2;
const MOST = 15;

/** An item without its article and without what is said of it. */
function tidy(text: string): string {
  const cut = text.search(AFTERTHOUGHT);
  let bare = (cut > 0 ? text.slice(0, cut) : text).trim();
  for (let next = bare.replace(LEADING, ''); next !== bare; next = bare.replace(LEADING, '')) bare = next;
  return bare.trim();
}
const brief = (text: string): boolean =>
  text !== '' && !/^\[.*\]$/.test(text) && text.split(/\s+/).length <= ITEM_WORDS && !/\d{3,}/.test(text);

/** What stands behind the words that lead to a list: “It is to be had in | blue, …”. */
function opening(first: string, language: Language): string {
  const words = first.split(/\s+/);
  const last = words.findLastIndex((word) => isSmall(fold(word).replace(/[^\p{L}']/gu, ''), language) || VERBS.test(fold(word)));
  return words.slice(last + 1).join(' ');
}

/** “Disciplines dressage, …”: the word asked for leads to the list and is no part of it. */
function withoutAsked(first: string, said: Said, hits: readonly Hit[]): string {
  const words = first.split(/\s+/);
  if (words.length < 2) return first;
  const opens = fold(words[0] ?? '');
  return hits.some((hit) => hit.cue.role !== 'for' && hit.inside !== true && said.tokens[hit.to - 1]?.folded === opens)
    ? words.slice(1).join(' ')
    : first;
}

/** The item a list ends with, without what the sentence goes on to say: “… and green | from next week”. */
function ending(last: string, language: Language): string {
  const words = last.split(/\s+/);
  const end = words.findIndex((word, i) => i > 0 && (isSmall(fold(word).replace(/[^\p{L}']/gu, ''), language) || /\d/.test(word)));
  return (end < 0 ? words : words.slice(0, end)).join(' ');
}

/** The items up to where the sentence goes on with something else: “…, green, | on our own paper”. */
function whileListed(items: readonly string[], language: Language): readonly string[] {
  const end = items.findIndex((item, i) => i > 1 && (isSmall(fold(item.split(/\s+/)[0] ?? ''), language) || GOES_ON.test(fold(item))));
  return end < 0 ? items : items.slice(0, end);
}

const VERBS =
  /^(?:teach\w*|offer\w*|serv\w+|include\w*|provid\w+|make\w*|speak|unterrichten|bieten|lehren|beliefern|geven|bieden|leveren|ensenamos|ofrecemos|enseignons|proposons|apprend|imparte|impartimos)$/;

/** Items as one value, with what is peculiar to them; undefined where too few are left. */
function listed(items: readonly string[], tongues: boolean): Pick<Candidate, 'value' | 'marks'> | undefined {
  const named = commonNames(items);
  const kept = [...new Set(named)].filter(brief).slice(0, MOST);
  if (kept.length < LEAST) return undefined;
  return {
    value: kept.join(', '),
    marks: {
      items: Math.min(1, kept.length / 6),
      dropped: (items.length - kept.length) / items.length,
      tongues: tongues && named !== items ? 1 : 0,
      noTongues: tongues && named === items ? 1 : 0,
      wordy: kept.join(' ').split(' ').length / kept.length / ITEM_WORDS,
    },
  };
}

/** Lists that a sentence or a row gives behind (or around) the words asked for. */
export function listsIn(said: Said, hits: readonly Hit[], headHits: readonly Hit[], tongues: boolean): readonly Candidate[] {
  if (said.kind === 'heading') return [];
  const row = rowOf(said);
  const out: Candidate[] = [];
  const put = (items: readonly string[], from: number, to: number, marks: Record<string, number>): void => {
    const list = listed(items, tongues);
    if (list) out.push({ value: list.value, said, from, to, marks: { ...marks, ...list.marks } });
  };
  const inside = (from: number, to: number): number =>
    Math.min(1, hits.filter((hit) => hit.cue.role === 'word' && hit.from >= from && hit.to <= to).length / 2);
  if (row) {
    const values = partsOf(row.value).map((item) => item.trim());
    const label = wordsBefore(said.text, row.label.length + 1);
    put(
      whileListed([...values.slice(0, -1).map(tidy), tidy(ending(values.at(-1) ?? '', said.language))], said.language),
      label,
      said.tokens.length,
      {
        rowValue: 1,
        inItems: inside(label, said.tokens.length),
      },
    );
  }
  for (const stretch of said.text.matchAll(/[^.:;–—!?()]+/gu)) {
    const parts = partsOf(stretch[0])
      .map((part) => part.trim())
      .filter((part) => part !== '');
    if (parts.length < 2 || row) continue;
    const start = wordsBefore(said.text, stretch.index);
    const end = start + wordsBefore(stretch[0], stretch[0].length);
    const first = withoutAsked(opening(parts[0] ?? '', said.language), said, hits);
    const last = ending(parts.at(-1) ?? '', said.language);
    const middle = parts.slice(1, -1).map(tidy);
    const items = [tidy(first), ...middle, tidy(last)].filter((item) => item !== '');
    // A word asked for that itself stands in the list does not lead to it.
    const lead = end - wordsBefore(`${first}, ${parts.slice(1).join(', ')}`, Number.MAX_SAFE_INTEGER);
    const leads = hits.some((hit) => hit.to <= lead + 1 && lead - hit.to < 6);
    put(whileListed(items, said.language), lead, end, {
      inItems: inside(lead, end),
      led: leads ? 1 : 0,
      unled: !leads && hits.length > 0 && headHits.length === 0 ? 1 : 0,
      colon: stretch.index > 0 && said.text[stretch.index - 1] === ':' ? 1 : 0,
    });
  }
  return out;
}

/** Items one below the other, under a heading or a line that leads to them. */
export function itemLists(said: readonly Said[]): readonly { readonly candidate: Candidate; readonly lead: Said | null }[] {
  const out: { candidate: Candidate; lead: Said | null }[] = [];
  let run: Said[] = [];
  let lead: Said | null = null;
  let last: Said | null = null;
  const close = (): void => {
    const [first] = run;
    const items = run.map((entry) => tidy(entry.text.split(/[:–—(]| - /)[0] ?? '')).filter(brief);
    if (first && items.length >= LEAST && items.length <= MOST && items.length >= run.length * 0.6)
      out.push({
        candidate: {
          value: commonNames(items).join(', '),
          said: first,
          from: 0,
          to: 0,
          marks: { block: 1, items: Math.min(1, items.length / 6), intro: lead?.text.trimEnd().endsWith(':') ? 1 : 0 },
        },
        lead,
      });
    run = [];
  };
  for (const entry of said) {
    if (entry.kind === 'item' && (run.length === 0 || (run[0]?.under === entry.under && run[0].url === entry.url))) {
      if (run.length === 0) lead = last?.url === entry.url ? last : null;
      run.push(entry);
    } else {
      close();
      if (entry.kind === 'item') {
        lead = null;
        run.push(entry);
      }
    }
    last = entry;
  }
  close();
  return out;
}

const INTERFACE =
  /\b(?:website|web site|webseite|this page|diese seite|seite auf|deze site|sitio web|site web|translated|spoken|speak|spricht|sprechen|gesprochen|hablamos|parlons)\b/;
const WAITING = /\bwaiting list\b/;

function clausesOf(said: Said): readonly string[] {
  const out = new Map<number, { from: number; to: number }>();
  for (const token of said.tokens) {
    const clause = out.get(token.clause);
    if (clause) clause.to = token.to;
    else out.set(token.clause, { from: token.from, to: token.to });
  }
  return [...out.values()].map(({ from, to }) => said.folded.slice(from, to));
}

/** All languages named in sentences, rows, items and headings that speak of what is asked: together they are one list. */
export function tongueList(said: readonly Said[], speaks: (entry: Said) => boolean): readonly Candidate[] {
  const found: string[] = [];
  const gone = new Set<string>();
  const where: Said[] = [];
  for (const [i, entry] of said.entries()) {
    const named = tonguesIn(entry.tokens.map((token) => token.folded));
    if (named.length === 0 || !speaks(entry)) continue;
    const next = entry.kind === 'heading' ? (said[i + 1]?.folded ?? '') : '';
    const text = `${entry.folded} ${next}`;
    // What is denied is denied in its own clause: “English and French, no Italian”.
    const clauses = entry.kind === 'heading' ? [text] : clausesOf(entry);
    const over = clauses.filter((clause) => FORMER.test(clause) || NOT.test(clause) || ENDED.test(clause) || WAITING.test(clause));
    const ended = tonguesIn(over.flatMap((clause) => clause.match(/[\p{L}-]+/gu) ?? []));
    for (const name of ended) gone.add(name);
    const stays = named.filter((name) => !ended.includes(name));
    if (stays.length === 0) continue;
    if (!INTERFACE.test(text) && !OTHERS.test(text) && !PLANNED.test(text) && !WISHED.test(text)) {
      found.push(...stays);
      where.push(entry);
    }
  }
  const kept = [...new Set(found)].filter((name) => !gone.has(name));
  const [first] = [...where].sort(
    (a, b) => tonguesIn(b.tokens.map((token) => token.folded)).length - tonguesIn(a.tokens.map((token) => token.folded)).length,
  );
  if (!first || kept.length === 0) return [];
  return [
    {
      value: kept.join(', '),
      said: first,
      from: 0,
      to: first.tokens.length,
      marks: { together: 1, tongues: 1, items: Math.min(1, kept.length / 6) },
    },
  ];
}
