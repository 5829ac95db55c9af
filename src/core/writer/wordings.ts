import { compileFeel, parseFeel, type FeelScope } from '../feel';
import type { MessageTemplate, Wording } from './template';

export interface Chosen {
  /** the text in the words of the wording */
  readonly template: MessageTemplate;
  /** which of the other wordings; null: the text as it stands */
  readonly wording: number | null;
  /** why it is not in the reader's language; null: it is, or nobody knows it */
  readonly fallback: string | null;
  /** the reader's language, two letters; null: nobody knows it */
  readonly reads: string | null;
}

/** The two letters of a language, of `de-AT` and `DE` alike; null where none is known. */
const codeOf = (value: unknown): string | null =>
  typeof value === 'string' && /^[a-z]{2}/i.test(value) ? value.slice(0, 2).toLowerCase() : null;

const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' });
const nameOf = (code: string): string => names.of(code) ?? code;

const holds = (when: string, scope: FeelScope): boolean => {
  const { expr } = parseFeel(when);
  return expr !== undefined && compileFeel(expr)(scope) === true;
};

/**
 * The words a reader gets: the first wording whose condition holds and whose language is theirs, or may be; else the text itself where it is in
 * their language or none is known; else any wording in it; else the text as it stands, said so.
 */
export function wordingFor(template: MessageTemplate, scope: FeelScope): Chosen {
  const reads = codeOf(scope.language);
  const wordings = template.wordings ?? [];
  const speaks = ({ language }: Pick<Wording, 'language'>): boolean => reads === null || codeOf(language) === reads;
  const own: Chosen = { template, wording: null, fallback: null, reads };
  const special = wordings.findIndex((wording) => wording.when.trim() !== '' && speaks(wording) && holds(wording.when, scope));
  if (special >= 0) return { ...inWordsOf(template, special), reads };
  if (speaks(template)) return own;
  const other = wordings.findIndex((wording) => wording.when.trim() === '' && speaks(wording));
  if (other >= 0) return { ...inWordsOf(template, other), reads };
  return { ...own, fallback: `in ${nameOf(template.language)}: there is no wording in ${nameOf(reads ?? '')}` };
}

/** The text in one of its other wordings. */
export function inWordsOf(template: MessageTemplate, at: number): Omit<Chosen, 'reads'> {
  const wording = template.wordings?.[at];
  if (!wording) return { template, wording: null, fallback: null };
  const { language, subject, body, lines } = wording;
  return {
    template: { ...template, language, subject, body, ...(template.personal && { personal: { ...template.personal, lines } }) },
    wording: at,
    fallback: null,
  };
}
