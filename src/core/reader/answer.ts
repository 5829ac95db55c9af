import { clip, fold, words, type Instant } from '../base';
import type { AnswerType } from '../flow/syntax';
import type { FactValue } from '../facts';
import { sentencesOf } from './sentences';
import { topicOf, type Topic } from './topics';

/** A page as the reader sees it: its address and its text, blocks parted by line breaks. */
export interface Passage {
  readonly url: string;
  readonly text: string;
}

export interface ReaderAnswer {
  readonly found: boolean;
  readonly value: FactValue;
  /** the sentence it rests on, word for word */
  readonly quote: string | null;
  readonly url: string | null;
  /** 0 to 1 */
  readonly confidence: number;
  readonly says: string;
}

interface Asked {
  readonly id: string;
  readonly type: AnswerType;
  readonly wording: string;
}
interface Candidate {
  readonly value: FactValue;
  readonly sentence: string;
  readonly url: string;
  readonly score: number;
}

const QUOTE_MAX = 220;
const EXPANSION_MONTHS = 18;
const NOTHING: ReaderAnswer = { found: false, value: null, quote: null, url: null, confidence: 0, says: 'not found' };

/** Answers one typed question from the passages, with the best-supported sentence as its quote; `now` dates old news. */
export function answerQuestion(question: Asked, passages: readonly Passage[], now: Instant): ReaderAnswer {
  const topic = topicOf(fold(question.id), fold(question.wording));
  let best: Candidate | undefined;
  for (const passage of passages) {
    for (const sentence of sentencesOf(passage.text)) {
      if (sentence.length > 600) continue;
      const found = candidate(question, topic, sentence, now);
      if (found && (best === undefined || found.score > best.score)) best = { ...found, sentence, url: passage.url };
    }
  }
  if (best === undefined) return { ...NOTHING, says: `not found on ${passages.length} ${passages.length === 1 ? 'page' : 'pages'}` };
  return {
    found: true,
    value: best.value,
    quote: clip(best.sentence, QUOTE_MAX),
    url: best.url,
    confidence: Math.min(0.95, 0.4 + best.score * 0.1),
    says: 'found',
  };
}

type Scored = Pick<Candidate, 'value' | 'score'>;

function candidate(question: Asked, topic: Topic | undefined, sentence: string, now: Instant): Scored | undefined {
  const folded = fold(sentence);
  if (topic ? !topic.cue.test(folded) : !shares(question.wording, folded)) return undefined;
  switch (question.type.kind) {
    case 'number':
      return question.type.unit === 'ha' ? area(topic, folded) : plainNumber(folded);
    case 'yes/no':
      return yesNo(topic, folded, now);
    case 'year':
      return year(folded, now);
    case 'text':
      return topic?.values ? listed(topic, folded) : topic ? nameNear(topic, sentence, folded) : { value: clip(sentence, 120), score: 1 };
  }
}

/** For questions outside the known topics: the sentence must share two content words with the question. */
function shares(wording: string, folded: string): boolean {
  const wanted = words(wording).filter((word) => word.length > 4);
  return wanted.filter((word) => folded.includes(word.slice(0, 6))).length >= Math.min(2, wanted.length);
}

/** Characters around a figure that say what it measures. */
const NEAR = 45;
/** What follows speaks of something beside the figure: “…, with another block of open field”. */
const NEXT_CLAUSE = /[,;] (?:with|and|plus|besides|mit|und|dazu|met|en|con|y|avec|et|oraz|e)\b/;
/** A figure that comes on top of the one asked for: “a further 1.5 ha”. */
const MORE = /\b(?:further|another|additional|extra|weitere[nrs]?|zusatzliche[nrs]?|nog eens|otras?|altri)\s+$/;
const AREA =
  /(\d{1,3}(?:[.,' ]\d{3})+|\d+(?:[.,]\d+)?)\s*(ha\b|hectares?\b|hektar\w*|hectareas?\b|hektarow|ettari|acres?\b|m²|m2\b|qm\b|square met(?:er|re)s|quadratmeter\w*|vierkante meter|metros cuadrados)/g;

function hectares(amount: string, unit: string): number | undefined {
  const plain =
    /^\d{1,3}([.,' ]\d{3})+$/.test(amount) && !unit.startsWith('ha') && !unit.startsWith('he')
      ? amount.replace(/[.,' ]/g, '')
      : amount.replace(/[' ]/g, '').replace(',', '.');
  const value = Number(plain);
  if (!Number.isFinite(value)) return undefined;
  const factor = /^(ha|hect|hekt|ett)/.test(unit) ? 1 : unit.startsWith('acre') ? 0.404686 : 0.0001;
  return Math.round(value * factor * 100) / 100;
}

/**
 * The area the sentence gives for what the topic asks. Each figure is judged by the words between its neighbours: a
 * sentence may hold the whole estate and the heated part. A figure in a sentence without any word of the topic is not taken.
 */
function area(topic: Topic | undefined, folded: string): Scored | undefined {
  if (topic?.boost && !topic.boost.test(folded)) return undefined;
  const figures = [...folded.matchAll(AREA)];
  let best: Scored | undefined;
  for (const [i, found] of figures.entries()) {
    const value = hectares(found[1] ?? '', found[2] ?? '');
    if (value === undefined || value <= 0 || value > 500) continue;
    const end = found.index + found[0].length;
    const from = Math.max(found.index - NEAR, i === 0 ? 0 : (figures[i - 1]?.index ?? 0) + (figures[i - 1]?.[0].length ?? 0));
    const to = Math.min(end + NEAR, figures[i + 1]?.index ?? folded.length);
    const boosts = topic?.boost ? (folded.slice(from, to).match(new RegExp(topic.boost, 'g')) ?? []).length : 0;
    const [own = ''] = folded.slice(found.index, Math.min(to, end + 35)).split(NEXT_CLAUSE);
    const elsewhere = topic?.against?.test(own) === true || MORE.test(folded.slice(from, found.index));
    const score = 1 + Math.min(4, boosts * 2) - (elsewhere ? 5 : 0);
    if (score > 0 && (best === undefined || score > best.score)) best = { value, score };
  }
  return best;
}

function plainNumber(folded: string): Scored | undefined {
  const raw = /\b\d+(?:[.,]\d+)?\b/.exec(folded)?.[0];
  return raw === undefined ? undefined : { value: Number(raw.replace(',', '.')), score: 1 };
}

function yesNo(topic: Topic | undefined, folded: string, now: Instant): Scored | undefined {
  if (!topic) return undefined;
  if (topic.id === 'expansion' && tooOld(folded, now)) return undefined;
  const no = topic.negation?.test(folded) ?? false;
  return { value: !no, score: 3 + (/\b20\d\d\b/.test(folded) ? 1 : 0) + (no ? 0.5 : 0) };
}

/** A year in the sentence that lies further back than the question asks for. */
function tooOld(folded: string, now: Instant): boolean {
  const years = (folded.match(/\b20\d\d\b/g) ?? []).map(Number);
  const oldest = new Date(now - EXPANSION_MONTHS * 30.5 * 86_400_000).getUTCFullYear();
  return years.length > 0 && Math.max(...years) < oldest;
}

function year(folded: string, now: Instant): Scored | undefined {
  const latest = new Date(now).getUTCFullYear();
  const years = (folded.match(/\b(?:19[6-9]\d|20\d\d)\b/g) ?? []).map(Number).filter((value) => value <= latest);
  return years.length === 0 ? undefined : { value: Math.max(...years), score: 4 };
}

function listed(topic: Topic, folded: string): Scored | undefined {
  for (const word of folded.match(/[a-z]+/g) ?? []) {
    const value = topic.values?.[word];
    if (value !== undefined) return { value, score: 3 };
  }
  return undefined;
}

/** Words that begin with a capital but are no product's name. */
const ORDINARY = new Set(
  'The Our We In Since It A An All Both Every This These Their And But From At On For Alle Unsere Unser Wir Seit Die Der Das Ein Eine Im Mit De Het Een Onze Wij Sinds In Nuestro Nuestra El La Los Las Un Una Desde Con Notre Nos Le Les Depuis Il I Dal Nasz Nasze Od Klimacomputer Klimaatcomputer Steuerung Klimaregelung Gewachshaus January February March April May June July August September October November December'.split(
    ' ',
  ),
);

/** The name of a product close to the cue: a capitalised word, perhaps with a model number, that does not open the sentence. */
function nameNear(topic: Topic, sentence: string, folded: string): Scored | undefined {
  const names = [
    ...sentence.matchAll(/(?<![.!?]\s)(?<!^)\b(\p{Lu}[\p{L}-]*\p{L}(?:\s(?:\p{Lu}{0,2}\d{1,4}\p{Lu}?|[IVX]{1,4}))?)(?![\p{L}])/gu),
  ]
    .map((found) => found[1] ?? '')
    .filter(
      (name) => !ORDINARY.has(name.split(' ')[0] ?? '') && !/^(?:Wartung|Service|Hektar|Glas|Gew|Ordenador|Jahr|Halle|Haus)/.test(name),
    );
  const withModel = names.find((name) => /\d|[IVX]$/.test(name)) ?? names[0];
  if (withModel === undefined || /^\d{4}$/.test(withModel)) return undefined;
  return {
    value: withModel.replace(/\s(?:19|20)\d\d$/, ''),
    score: 2 + (topic.boost?.test(folded) ? 2 : 0) + (/\d/.test(withModel) ? 1 : 0),
  };
}
