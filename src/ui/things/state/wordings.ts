/** A text in the wording that is being changed: as it stands, or one of its other wordings. */
import type { LinePattern, MessageTemplate, Wording } from '../../../core/writer';
import { languageName } from '../../kit/languages';
import { personalOf } from './thing';

/** null: the text as it stands */
export type WordingAt = number | null;
export type Words = Wording;

/** The words at a place of the text; those of the text itself where that wording is gone. */
export function wordsAt(text: MessageTemplate, at: WordingAt): Words {
  const other = at === null ? undefined : text.wordings?.[at];
  return other ?? { language: text.language, when: '', subject: text.subject, body: text.body, lines: personalOf(text).lines };
}

/** Where the problems of a wording stand: `wordings.1.body`, or `body`. */
export const placeOf = (at: WordingAt, part: string): string =>
  at === null ? (part.startsWith('lines') ? `personal.${part}` : part) : `wordings.${at}.${part}`;

export function putWords(text: MessageTemplate, at: WordingAt, change: Partial<Words>): MessageTemplate {
  if (at !== null)
    return { ...text, wordings: (text.wordings ?? []).map((wording, i) => (i === at ? { ...wording, ...change } : wording)) };
  const { lines, when: _when, ...words } = change;
  return { ...text, ...words, ...(lines && { personal: { ...personalOf(text), lines } }) };
}

/** A wording more: the words as they stand, to be written anew; its sentences begin empty, as none of another language fit. */
export function addWording(text: MessageTemplate, language: string): MessageTemplate {
  const same = language === text.language;
  const lines: readonly LinePattern[] = same ? personalOf(text).lines : [];
  const wording: Words = { language, when: '', subject: text.subject, body: text.body, lines };
  return { ...text, wordings: [...(text.wordings ?? []), wording] };
}

export function dropWording(text: MessageTemplate, at: number): MessageTemplate {
  const left = (text.wordings ?? []).filter((_, i) => i !== at);
  const { wordings: _wordings, ...rest } = text;
  return left.length > 0 ? { ...rest, wordings: left } : rest;
}

/** “German”, or “English, company.employees > 50”. */
export const wordingName = ({ language, when, tried }: Pick<Words, 'language' | 'when' | 'tried'>): string =>
  `${languageName(language)}${when.trim() === '' ? '' : `, ${when.trim()}`}${tried === true ? ', tried' : ''}`;
