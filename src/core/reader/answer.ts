import { clip, fold, plural, type Instant } from '../base';
import type { FactValue } from '../facts';
import type { AnswerType } from '../flow/syntax';
import { saidIn, type Candidate, type Passage, type Said } from './said';
import { datesIn, isoOf } from './skills/dates';
import { DROPPED } from './skills/standing';
import { topicOf, type TopicId } from './topics';
import { glassAreas } from './topics/area';
import { controlsNamed, controlsSince, saysNoControls } from './topics/controls';
import { countIn, EMPLOYEES, SITES } from './topics/counts';
import { expansionOf } from './topics/expansion';
import { amounts, generally, soughtBy } from './topics/general';
import { allYear, underContract } from './topics/habits';
import { CROPS, ENERGY, mentions, type Lexicon } from './topics/lexicon';
import { cropsIn, energyIn } from './topics/lists';
import { deciderIn } from './topics/people';
import { weigh, type Supported } from './weigh';

export interface Asked {
  readonly id: string;
  readonly type: AnswerType;
  readonly wording: string;
}

/** A value that was stated too, and not taken. */
export interface OtherAnswer {
  readonly value: FactValue;
  readonly quote: string;
  readonly url: string;
  readonly confidence: number;
  readonly date: Instant | null;
}

export interface ReaderAnswer {
  readonly found: boolean;
  readonly value: FactValue;
  /** the sentence it rests on, word for word; without a value: the sentence that says there is none */
  readonly quote: string | null;
  readonly url: string | null;
  /** 0 to 1 */
  readonly confidence: number;
  /** the day the page says the statement is of */
  readonly date: Instant | null;
  readonly says: string;
  /** conflicting values, best first */
  readonly others: readonly OtherAnswer[];
}

const QUOTE_MAX = 220;
const EXPANSION_MONTHS = 18;
const LIST_MAX = 12;

/** Answers one typed question from the passages, with the best-supported sentence as its quote; `now` is the day of reading. */
export function answerQuestion(question: Asked, passages: readonly Passage[], now: Instant): ReaderAnswer {
  return answerFrom(question, saidIn(passages), passages.length, now);
}

/** Answers several questions from the same passages, cut into sentences once. */
export function answerAll(questions: readonly Asked[], passages: readonly Passage[], now: Instant): readonly ReaderAnswer[] {
  const said = saidIn(passages);
  return questions.map((question) => answerFrom(question, said, passages.length, now));
}

function answerFrom(question: Asked, said: readonly Said[], pages: number, now: Instant): ReaderAnswer {
  const topic = topicOf(question.id, question.wording);
  const candidates = candidatesFor(question, topic, said, now);
  const { type } = question;
  if (type.kind === 'list') return listed(candidates, pages);
  // The main crop is the one spoken of most: what several sentences say adds up.
  const ranked = weigh(candidates, topic === 'crop').filter((entry) => topic !== 'crop' || entry.spoken);
  const fitting = type.kind === 'choice' ? ranked.flatMap((entry) => chosen(entry, type.options)) : ranked;
  const [best, ...rest] = fitting;
  if (!best || best.score < leastFor(topic)) return notFound(topic, said, pages);
  const rivals = rest.filter((other) => other.score > best.score - 1.5 && (topic !== 'crop' || other.score > best.score - 0.5));
  const close = rivals.some((other) => other.score > best.score - 0.5);
  const confidence = sureness(best, close);
  return {
    found: true,
    value: best.value,
    quote: clip(best.best.said.text, QUOTE_MAX),
    url: best.best.said.url,
    confidence,
    date: best.best.date ?? null,
    says: best.pages > 1 ? `found on ${best.pages} pages` : 'found',
    others: rivals.slice(0, 4).map((other) => ({
      value: other.value,
      quote: clip(other.best.said.text, QUOTE_MAX),
      url: other.best.said.url,
      confidence: Math.min(confidence, sureness(other, true)),
      date: other.best.date ?? null,
    })),
  };
}

const sureness = (entry: Supported, contested: boolean): number =>
  Math.round(
    Math.max(0.3, Math.min(0.95, 0.42 + 0.08 * Math.min(6, entry.score) + 0.05 * (entry.pages - 1) - (contested ? 0.2 : 0))) * 100,
  ) / 100;

/** Below this a statement is too thin to be an answer. */
function leastFor(topic: TopicId | undefined): number {
  return topic === 'crop' ? 1.85 : topic === undefined ? 0.8 : 1.5;
}

function candidatesFor(question: Asked, topic: TopicId | undefined, said: readonly Said[], now: Instant): readonly Candidate[] {
  const { type } = question;
  const each = (find: (entry: Said) => readonly Candidate[]): readonly Candidate[] => said.flatMap(find);
  switch (topic) {
    case 'area':
      if (type.kind === 'number') return each((entry) => glassAreas(entry, fold(question.wording), now));
      break;
    case 'controls':
      if (isText(type)) return each(controlsNamed);
      if (type.kind === 'yes/no')
        return each((entry) => [
          ...controlsNamed(entry).map((found) => ({ ...found, value: true })),
          ...(saysNoControls(entry) ? [{ value: false, score: 3, said: entry }] : []),
        ]);
      break;
    case 'controls since':
      if (type.kind === 'year' || type.kind === 'number')
        return each((entry) =>
          controlsSince(entry, now).map((found) =>
            type.kind === 'number' ? { ...found, value: new Date(now).getUTCFullYear() - Number(found.value) } : found,
          ),
        );
      break;
    case 'expansion':
      return expansions(type, said, now);
    case 'all year':
      if (type.kind === 'yes/no') return each(allYear);
      break;
    case 'contract':
      if (type.kind === 'yes/no') return each((entry) => underContract(entry, now));
      break;
    case 'crop':
      if (isText(type)) return each(cropsIn);
      break;
    case 'energy':
      if (isText(type)) return each(energyIn);
      break;
    case 'sites':
      if (type.kind === 'number') return each((entry) => countIn(entry, SITES));
      break;
    case 'employees':
      if (type.kind === 'number') return each((entry) => countIn(entry, EMPLOYEES));
      break;
    case 'decider':
      if (isText(type)) return each(deciderIn);
      break;
    case undefined:
      break;
  }
  const sought = soughtBy(fold(question.id), question.wording);
  return each((entry) => generally(entry, type, sought, now));
}

const isText = (type: AnswerType): boolean => type.kind === 'text' || type.kind === 'list' || type.kind === 'choice';

/** An announced expansion as yes or no, as the words that announce it, as its day or as the money named with it. */
function expansions(type: AnswerType, said: readonly Said[], now: Instant): readonly Candidate[] {
  // A headline stands or falls with what is written under it.
  const dropped = new Set(
    said.filter((entry) => entry.under !== '' && DROPPED.test(entry.folded)).map((entry) => `${entry.url} ${entry.under}`),
  );
  return said.flatMap((entry) => {
    if (dropped.has(`${entry.url} ${entry.kind === 'heading' ? entry.folded : entry.under}`)) return [];
    const found = expansionOf(entry, now, EXPANSION_MONTHS);
    if (type.kind === 'yes/no') return found;
    return found
      .filter((candidate) => candidate.value === true)
      .flatMap((candidate): readonly Candidate[] => {
        switch (type.kind) {
          case 'date':
          case 'year':
            return datesIn(entry.folded, entry.date ?? now)
              .slice(-1)
              .map((date) => ({ ...candidate, value: type.kind === 'year' ? Number(isoOf(date).slice(0, 4)) : isoOf(date) }));
          case 'money':
            return amounts(entry.folded, type.currency, (value) => ({ ...candidate, value }));
          case 'number':
            return [];
          default:
            return [{ ...candidate, value: clip(entry.text, 160) }];
        }
      });
  });
}

/** The option a stated value stands for: the same word, or another word for the same thing. */
function chosen(entry: Supported, options: readonly string[]): readonly Supported[] {
  const stated = fold(String(entry.value));
  const names = (text: string, list: Lexicon): readonly string[] => mentions(fold(text), list).map((mention) => mention.value);
  const option = options.find((text) => {
    const plain = fold(text);
    if (plain === stated || stated.split(/[^\p{L}\p{N}]+/u).includes(plain)) return true;
    return [CROPS, ENERGY].some((list) => names(text, list).some((name) => names(stated, list).includes(name)));
  });
  return option === undefined ? [] : [{ ...entry, value: option }];
}

function listed(candidates: readonly Candidate[], pages: number): ReaderAnswer {
  const ranked = weigh(candidates.filter((candidate) => candidate.score > 0.5));
  const [best] = ranked;
  if (!best) return nothing(pages);
  const values = ranked.slice(0, LIST_MAX).map((entry) => String(entry.value));
  return {
    found: true,
    value: values.join(', '),
    quote: clip(best.best.said.text, QUOTE_MAX),
    url: best.best.said.url,
    confidence: Math.min(0.8, sureness(best, false)),
    date: best.best.date ?? null,
    says: plural(values.length, 'entry', 'entries'),
    others: [],
  };
}

function nothing(pages: number): ReaderAnswer {
  return {
    found: false,
    value: null,
    quote: null,
    url: null,
    confidence: 0,
    date: null,
    says: `not found on ${plural(pages, 'page')}`,
    others: [],
  };
}

/** No value; where the pages say outright that there is none, those words stand in the answer. */
function notFound(topic: TopicId | undefined, said: readonly Said[], pages: number): ReaderAnswer {
  const none = topic === 'controls' ? said.find(saysNoControls) : undefined;
  if (!none) return nothing(pages);
  return { ...nothing(pages), quote: clip(none.text, QUOTE_MAX), url: none.url, date: none.date, says: 'they say that they have none' };
}
