import { stableHash } from '../base';
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
  /** two wordings are tried against each other, and this is one of them */
  readonly tried: Tried | null;
}
export const ARMS = ['usual', 'tried'] as const;
/** Which of two wordings that are tried against each other. Other words are another pair: what is counted begins anew. */
export interface Tried {
  readonly pair: string;
  readonly arm: (typeof ARMS)[number];
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
 * their language or none is known; else any wording in it; else the text as it stands, said so. Where another is tried against it, every second
 * reader gets that one: `seed`, the person's id, says who.
 */
export function wordingFor(template: MessageTemplate, scope: FeelScope, seed: string): Chosen {
  const usual = usualFor(template, scope);
  const rival = rivalOf(template, usual, scope);
  if (rival === undefined) return usual;
  const other = inWordsOf(template, rival);
  const pair = pairOf(usual.template, other.template);
  const isOther = Number.parseInt(stableHash(`tried ${pair} ${seed}`).slice(0, 8), 16) % 2 === 1;
  return isOther ? { ...usual, ...other, tried: { pair, arm: 'tried' } } : { ...usual, tried: { pair, arm: 'usual' } };
}
/** The wording that is tried against the one a reader would get otherwise: of the same language, where its condition holds. */
const rivalOf = (template: MessageTemplate, usual: Chosen, scope: FeelScope): number | undefined => {
  const at = (template.wordings ?? []).findIndex(
    ({ tried, language, when }) =>
      tried === true && codeOf(language) === codeOf(usual.template.language) && (when.trim() === '' || holds(when, scope)),
  );
  return at < 0 ? undefined : at;
};
const pairOf = (usual: MessageTemplate, other: MessageTemplate): string =>
  stableHash(JSON.stringify([usual.subject, usual.body, other.subject, other.body])).slice(0, 20);

/** The pairs of a text that are tried: each tried wording against those of its language. */
export function pairsOf(
  template: MessageTemplate,
): readonly { readonly pair: string; readonly usual: number | null; readonly tried: number }[] {
  const wordings = template.wordings ?? [];
  const places = [null, ...wordings.keys()].filter((at) => at === null || wordings[at]?.tried !== true);
  return [...wordings.keys()]
    .filter((at) => wordings[at]?.tried === true)
    .flatMap((tried) =>
      places.flatMap((usual) => {
        const [one, other] = [usual === null ? template : inWordsOf(template, usual).template, inWordsOf(template, tried).template];
        return codeOf(one.language) === codeOf(other.language) ? [{ pair: pairOf(one, other), usual, tried }] : [];
      }),
    );
}

function usualFor(template: MessageTemplate, scope: FeelScope): Chosen {
  const reads = codeOf(scope.language);
  const wordings = template.wordings ?? [];
  const speaks = ({ language, tried }: Pick<Wording, 'language' | 'tried'>): boolean =>
    tried !== true && (reads === null || codeOf(language) === reads);
  const own: Chosen = { template, wording: null, fallback: null, reads, tried: null };
  const special = wordings.findIndex((wording) => wording.when.trim() !== '' && speaks(wording) && holds(wording.when, scope));
  if (special >= 0) return { ...own, ...inWordsOf(template, special) };
  if (speaks({ language: template.language })) return own;
  const other = wordings.findIndex((wording) => wording.when.trim() === '' && speaks(wording));
  if (other >= 0) return { ...own, ...inWordsOf(template, other) };
  return { ...own, fallback: `in ${nameOf(template.language)}: there is no wording in ${nameOf(reads ?? '')}` };
}

/** The text in one of its other wordings. */
export function inWordsOf(template: MessageTemplate, at: number): Pick<Chosen, 'template' | 'wording' | 'fallback'> {
  const wording = template.wordings?.[at];
  if (!wording) return { template, wording: null, fallback: null };
  const { language, subject, body, lines } = wording;
  return {
    template: { ...template, language, subject, body, ...(template.personal && { personal: { ...template.personal, lines } }) },
    wording: at,
    fallback: null,
  };
}
