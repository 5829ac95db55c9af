import { clip, fold } from '../base';
import type { Fact } from '../facts';
import { catalogueOf, labelOf, printValue, type OwnField } from '../fields';
import type { FeelScope } from '../feel';
import { isSmall, languageOf, sentencesOf, stemOf, type Language } from '../reader';
import { understandReply, type ReplyReading } from '../reply';
import { checkMessage, fillSlots, slotsIn, type MessageCheck, neverSaidIn } from '../writer';
import { isOtherKind, type AgreedAnswer } from './agreed';
import { claimsIn, standsBehind, tellingOf, type Statement } from './claims';
import { candidatesFor, type Candidate, type Said } from './fits';
import { FRAMED, FRAMES, isFramed, type FramedLanguage } from './frames';

/** What a sentence of ours rests on. */
export type Rest =
  | { readonly kind: 'fact'; readonly label: string; readonly value: string; readonly source: string; readonly url: string | null }
  | { readonly kind: 'statement'; readonly says: string; readonly proof: string };

export interface DraftSentence {
  readonly text: string;
  readonly rests: readonly Rest[];
  /** the agreed answer it is of; null: a greeting, a closing, or words of a statement */
  readonly of: string | null;
  /** it says something weighty of us that neither a fact nor a statement holds: these words */
  readonly loose: string | null;
}
/** What was asked or objected, and how the draft takes it up. */
export interface Taken {
  readonly said: Said;
  readonly candidates: readonly Candidate[];
  readonly by: { readonly kind: 'agreed'; readonly name: string } | { readonly kind: 'statement'; readonly id: string } | null;
}
export interface ReplyDraft {
  readonly language: string;
  /** its words are in another language than the reader's, for nothing was agreed in theirs */
  readonly fallback: boolean;
  readonly body: string;
  readonly sentences: readonly DraftSentence[];
  readonly taken: readonly Taken[];
  /** sentences of agreed answers that were left out, and why */
  readonly leftOut: readonly string[];
  readonly checks: readonly MessageCheck[];
}

export interface DraftAsk {
  /** what they wrote themselves, without what they quoted */
  readonly words: string;
  readonly reading: Pick<ReplyReading, 'kind' | 'objection' | 'quote'>;
  readonly answers: readonly AgreedAnswer[];
  readonly statements: readonly Statement[];
  /** the language of the reader's record, for words too short to tell */
  readonly language: string | null;
  /** person at the top, company, deal and sender below */
  readonly scope: FeelScope;
  readonly facts: readonly Fact[];
  readonly fields: readonly OwnField[];
  readonly recipient: { readonly name: string; readonly reach: string | null };
  readonly doNotContact: boolean;
  /** what the business never says */
  readonly neverSay?: readonly string[];
  /** an agreed answer that a person wants taken instead of the first that fits */
  readonly chosen?: string | undefined;
}

export const LONGEST_REPLY = 1_800;
/** So many more small words of another language than of their record's. */
const CLEARLY = 2;

/** What they said that wants an answer: the objection first, then their questions in their order. */
export function saidIn(words: string, reading: DraftAsk['reading']): readonly Said[] {
  const questions = sentencesOf(words)
    .filter((sentence) => sentence.trimEnd().endsWith('?'))
    .map((sentence): Said => ({ kind: 'question', about: null, words: sentence.trim() }));
  const objection: readonly Said[] =
    reading.kind === 'objection' && reading.objection !== null
      ? [{ kind: 'objection', about: reading.objection, words: reading.quote ?? '' }]
      : objectionsIn(words);
  const other: readonly Said[] = isOtherKind(reading.kind) ? [{ kind: 'other', about: reading.kind, words: reading.quote ?? '' }] : [];
  return [...objection, ...other, ...questions.filter(({ words: asked }) => asked !== objection[0]?.words)];
}

/** Who says what they can spend asks for an offer within it. */
const SAYS_BUDGET = /(?:budget|presupuesto)\b[^.!?]{0,60}\d/u;

/** Objections beside what a mail is mainly about: it asks, and what it says before that speaks against us all the same. */
function objectionsIn(words: string): readonly Said[] {
  const seen = new Set<string>();
  return sentencesOf(words).flatMap((sentence): Said[] => {
    if (sentence.trimEnd().endsWith('?')) return [];
    const { kind, objection } = understandReply({ subject: '', text: sentence, at: 0, autoSubmitted: false });
    if (kind !== 'objection' || objection === null || seen.has(objection) || SAYS_BUDGET.test(fold(sentence))) return [];
    seen.add(objection);
    return [{ kind, about: objection, words: sentence.trim() }];
  });
}

/**
 * Drafts an answer from what is agreed and what the business says of itself, and from nothing else: what neither covers is said to be
 * asked of a colleague. Every sentence says what it rests on.
 */
export function draftReply(ask: DraftAsk): ReplyDraft {
  const { answer: language, words: spoken } = languagesFor(ask);
  const taken: Taken[] = [];
  const middle: DraftSentence[] = [];
  const leftOut: string[] = [];
  const notSay: string[] = [];
  let fallback = false;
  const used = new Set<string>();
  for (const said of saidIn(ask.words, ask.reading)) {
    const candidates = candidatesFor(said, ask.answers, { scope: ask.scope, language: spoken });
    const wanted = candidates.find(({ answer }) => answer.name === ask.chosen) ?? candidates.find(({ fits }) => fits);
    if (wanted) {
      const { answer } = wanted;
      taken.push({ said, candidates, by: { kind: 'agreed', name: answer.name } });
      if (used.has(answer.name)) continue;
      used.add(answer.name);
      notSay.push(...answer.notSay);
      const text = answer.texts.find((entry) => entry.language === language) ?? answer.texts[0];
      fallback ||= text?.language !== language;
      const made = sentencesFrom(text?.body ?? '', answer.name, text?.language ?? language, ask);
      middle.push(...made.sentences);
      leftOut.push(...made.leftOut);
      continue;
    }
    // Interest and the like want no word of their own where none is agreed.
    if (said.kind === 'other') continue;
    const statement = said.kind === 'question' ? held(said.words, ask.statements, spoken) : undefined;
    taken.push({ said, candidates, by: statement ? { kind: 'statement', id: statement.id } : null });
    const { asked, noted } = FRAMES[language];
    if (statement) middle.push({ text: statement.says, rests: [restOn(statement)], of: null, loose: null });
    else middle.push({ text: said.kind === 'question' ? asked(clip(said.words, 120)) : noted, rests: [], of: null, loose: null });
  }
  const frame = FRAMES[language];
  const name = typeof ask.scope.first_name === 'string' && ask.scope.first_name !== '' ? ask.scope.first_name : ask.recipient.name;
  const plain = (text: string): DraftSentence => ({ text, rests: [], of: null, loose: null });
  if (middle.length === 0 && ask.words.trim() !== '') middle.push(plain(frame.thanks));
  const sentences = [plain(frame.greeting(name)), ...middle, plain(`${frame.closing}\n${senderOf(ask.scope)}`)];
  const body = [sentences[0]?.text, middle.map(({ text }) => text).join(' '), sentences.at(-1)?.text].join('\n\n').trim();
  return { language, fallback, body, sentences, taken, leftOut, checks: checkReply({ ...ask, body, notSay, loose: looseOf(middle) }) };
}

/** Whether everything they said is taken up by something agreed or stated, in their language. */
export const isCovered = ({ taken, fallback }: Pick<ReplyDraft, 'taken' | 'fallback'>): boolean =>
  taken.length > 0 && !fallback && taken.every(({ by }) => by !== null);

/** What an answer is headed: the subject it answers, else that it answers, in their language. */
export const subjectOf = (subject: string | null, language: string): string =>
  subject === null || subject.trim() === ''
    ? FRAMES[isFramed(language) ? language : 'en'].subject
    : /^re:/i.test(subject)
      ? subject
      : `Re: ${subject}`;

/** Words that may not be said in an answer to this: those of every agreed answer that could be meant. */
export const mayNotSay = (taken: readonly Taken[]): readonly string[] => [
  ...new Set(taken.flatMap(({ candidates }) => candidates.flatMap(({ answer }) => answer.notSay))),
];

/** Everything looked at before an answer leaves, whoever wrote it. */
export function checkReply(
  reply: Pick<DraftAsk, 'recipient' | 'doNotContact' | 'scope' | 'neverSay'> & {
    readonly body: string;
    readonly notSay: readonly string[];
    readonly loose: readonly string[];
  },
): readonly MessageCheck[] {
  const { body, recipient, doNotContact, scope } = reply;
  const words = fold(body);
  const forbidden = reply.notSay.find((phrase) => words.includes(fold(phrase))) ?? neverSaidIn(body, reply.neverSay ?? []);
  const template = { name: 'answer', language: 'en', subject: 'Re', body, maxLength: LONGEST_REPLY };
  const common = checkMessage({
    template,
    scope,
    recipient,
    facts: [],
    recentLines: [],
    doNotContact,
    seed: '',
    subject: 'Re',
    body,
    line: undefined,
  });
  const needed = new Set(['recipient', 'do not contact', 'slot left', 'wrong name', 'too long']);
  return [
    ...common.filter(({ id }) => needed.has(id)),
    { id: 'may not say', ok: forbidden === undefined, says: `“${forbidden ?? ''}” may not be said here` },
    {
      id: 'not held',
      ok: reply.loose.length === 0,
      says: `“${reply.loose[0] ?? ''}” is held by no fact and no statement of ours`,
    },
  ];
}

const looseOf = (sentences: readonly DraftSentence[]): readonly string[] => sentences.flatMap(({ loose }) => loose ?? []);
const senderOf = (scope: FeelScope): string => {
  const { sender } = scope;
  const name = sender !== null && typeof sender === 'object' && 'name' in sender ? sender.name : '';
  return typeof name === 'string' ? name : '';
};

/**
 * The language to answer in: the one they wrote in where we have words in it and theirs tell it clearly, else that of their record, else
 * English. Small words tell a language; one alone may be of two, which is enough to look words up, not to answer in it.
 */
function languagesFor({ words, language }: DraftAsk): { readonly answer: FramedLanguage; readonly words: FramedLanguage } {
  const said = fold(words).match(/[\p{L}]+/gu) ?? [];
  const kept = language !== null && isFramed(language) ? language : 'en';
  const small = (of: FramedLanguage): number => said.filter((word) => isSmall(word, of)).length;
  const [best] = FRAMED.map((of) => ({ of, n: small(of) })).sort((x, y) => y.n - x.n);
  const lead = best ? best.n - small(kept) : 0;
  return { answer: best && lead >= CLEARLY ? best.of : kept, words: best && lead > 0 ? best.of : kept };
}

/** An agreed text sentence by sentence: slots filled, each with what it rests on; one whose value is missing is left out. */
function sentencesFrom(
  body: string,
  name: string,
  language: string,
  ask: DraftAsk,
): { readonly sentences: readonly DraftSentence[]; readonly leftOut: readonly string[] } {
  const leftOut: string[] = [];
  const sentences = sentencesOf(body).flatMap((written): DraftSentence[] => {
    const { text, missing } = fillSlots(written.trim(), ask.scope, language);
    if (missing.length > 0) {
      leftOut.push(`“${clip(written.trim(), 60)}”: ${missing.map((slot) => slotLabel(slot, ask)).join(', ')} not known`);
      return [];
    }
    const facts = slotsIn(written).flatMap((slot) => restOnSlot(slot, ask));
    const statement = standsBehind(text, ask.statements, languageIn(text));
    const [claim] = claimsIn(text, ask.statements);
    const rests: readonly Rest[] = [...facts, ...(statement ? [restOn(statement)] : [])];
    return [{ text, rests, of: name, loose: claim && !claim.coveredBy && facts.length === 0 ? claim.says : null }];
  });
  return { sentences, leftOut };
}

const languageIn = (text: string): Language => languageOf(fold(text).match(/[\p{L}]+/gu) ?? []);
const restOn = ({ says, proof }: Statement): Rest => ({ kind: 'statement', says, proof });

function fieldOf(slot: string, ask: DraftAsk) {
  const [first = '', second] = slot.split('.');
  const record = second === undefined ? 'person' : first;
  if (record !== 'person' && record !== 'company' && record !== 'deal') return undefined;
  const key = second ?? first;
  return { record, key, field: catalogueOf(ask.fields).of(record, key) } as const;
}
const slotLabel = (slot: string, ask: DraftAsk): string => {
  const known = fieldOf(slot, ask);
  return known ? labelOf(known.field, known.key) : slot;
};
/** The fact behind a slot; names and addresses are no facts anybody doubts. */
function restOnSlot(slot: string, ask: DraftAsk): readonly Rest[] {
  const known = fieldOf(slot, ask);
  if (!known || ['first_name', 'name', 'last_name'].includes(known.key)) return [];
  const fact = ask.facts.find((entry) => entry.record.kind === known.record && entry.field === known.key && entry.value !== null);
  if (!fact) return [];
  return [
    {
      kind: 'fact',
      label: labelOf(known.field, known.key),
      value: printValue(fact.value, known.field?.unit),
      source: fact.sourceRef,
      url: fact.url ?? null,
    },
  ];
}

/** The statement that answers a question: nearly all of the question's telling words are in it. */
function held(question: string, statements: readonly Statement[], language: Language): Statement | undefined {
  const asked = [...tellingOf(question, language)];
  if (asked.length === 0) return undefined;
  const scored = statements.map((statement) => {
    const own = tellingOf(statement.says, languageIn(statement.says));
    return { statement, share: asked.filter((word) => own.has(word) || own.has(stemOf(word, 'en'))).length / asked.length };
  });
  const [best] = scored.sort((a, b) => b.share - a.share);
  return best && best.share >= HELD_ENOUGH ? best.statement : undefined;
}
const HELD_ENOUGH = 0.7;
