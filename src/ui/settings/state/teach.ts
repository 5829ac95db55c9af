/** What the page of a question works out of what it was given. */
import { shareInterval } from '../../../core/base';

import { printValue } from '../../../core/fields';
import type { Answer } from '../../../api';

export type QuestionView = Answer<'tryQuestion'>;
export type QuestionDraft = QuestionView['draft'];
export type Place = QuestionView['places'][number];
export type Site = QuestionView['sites'][number];

export interface Tally {
  readonly right: number;
  readonly wrong: number;
  readonly missing: number;
  readonly of: number;
}

/** Of the sites whose answer is known, how many were answered rightly, wrongly and not at all. */
export function tallyOf(sites: readonly Site[], when: 'was' | 'is'): Tally {
  const count = (outcome: Site['is']): number => sites.filter((site) => site[when] === outcome).length;
  const [right, wrong, missing] = [count('right'), count('wrong'), count('missing')];
  return { right, wrong, missing, of: right + wrong + missing };
}

/** Between what shares the true one lies, in whole percent. */
export function interval(right: number, of: number): readonly [from: number, to: number] {
  const [from, to] = shareInterval(right, of);
  return [Math.round(from * 100), Math.round(to * 100)];
}

/** The draft with an answer shown on a page, or shown as none; what was shown of that answer before is replaced. */
export function shown(draft: QuestionDraft, host: string, place: Place, verdict: 'this' | 'not', reason?: string): QuestionDraft {
  const others = draft.shown.filter((entry) => !(entry.host === host && entry.says === place.says && entry.value === place.value));
  return {
    ...draft,
    shown: [...others, { host, value: place.value, says: place.says, verdict, ...(reason === undefined ? {} : { reason }) }],
  };
}

export const verdictOf = (draft: QuestionDraft, host: string, place: Place): 'this' | 'not' | undefined =>
  draft.shown.find((entry) => entry.host === host && entry.says === place.says && entry.value === place.value)?.verdict;

/** Sites whose answer somebody set or confirmed by hand, whose pages were read otherwise, and that are no example yet. */
export function corrections(view: QuestionView): readonly Site[] {
  const taught = new Set(view.draft.shown.map(({ host }) => host));
  return view.sites.filter(
    (site) =>
      (site.knownFrom === 'hand' || site.knownFrom === 'confirmed') &&
      (site.is === 'wrong' || site.is === 'missing') &&
      !taught.has(site.host),
  );
}

/** Whether a value read is the one somebody typed: words whatever their case. */
export const alikeAsTyped = (read: Place['value'], typed: Site['known']): boolean =>
  typeof read === 'string' && typeof typed === 'string' ? read.toLowerCase() === typed.toLowerCase() : read === typed;

const STANDING_SAYS: Readonly<Record<string, string>> = {
  planned: 'what is planned',
  former: 'what was so before',
  'others’': 'what is said of others',
  'only a part': 'what is only a part',
};
/** A word that was learnt, or how a statement stands that does not count. */
export const learntIn = ({ phrase, isStanding }: QuestionView['learnt'][number]): string =>
  isStanding === true ? (STANDING_SAYS[phrase] ?? phrase) : phrase;

export const sayValue = (value: Site['known']): string => printValue(typeof value === 'number' ? Math.round(value * 100) / 100 : value);

export const letter = (at: number): string => String.fromCharCode(97 + at);

const WORDS = /[\p{L}\p{N}]/u;

/** The sentence in three: before the value, the value as it stands there, behind it; undefined where it does not stand so. */
export function around(says: string, value: Place['value']): readonly [string, string, string] | undefined {
  if (typeof value === 'boolean') return undefined;
  // “10,2” as well as “10.2”, “12.000” as well as “12000”.
  const forms =
    typeof value === 'number'
      ? [String(value), String(value).replace('.', ','), value.toLocaleString('en-GB'), value.toLocaleString('de-DE')]
      : [value];
  for (const text of forms) {
    const at = says.toLowerCase().indexOf(text.toLowerCase());
    if (at < 0 || WORDS.test(says.charAt(at - 1)) || WORDS.test(says.charAt(at + text.length))) continue;
    return [says.slice(0, at), says.slice(at, at + text.length), says.slice(at + text.length)];
  }
  return undefined;
}
