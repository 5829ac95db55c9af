import { clip, fold, words, type Instant } from '../../base';
import { datesIn, isoOf } from '../skills/dates';
import { figuresIn } from '../skills/figures';
import { moneyIn, quantitiesIn } from '../skills/quantities';
import { FORMER, NOT, OTHERS, PLANNED, WISHED } from '../skills/standing';
import { rowOf, type Candidate, type Said } from '../said';
import type { AnswerType } from '../../flow/syntax';

/** Words of a question that say nothing about what is asked. */
const EMPTY = new Set(
  'what which where when whose many much have does they them their there that this with from into over last been were will would could should about long large often year years month months ever used using make made current currently wann welche welcher welches wieviel wieviele haben ihre ihren werden wurde sind gibt sich nicht wanneer welke hoeveel hebben zijn deze worden heeft cual cuales cuando cuanto cuantos cuantas tienen como donde esta estan quel quelle quels quelles quand combien sont leur leurs avez vous ils elles'.split(
    ' ',
  ),
);
const STEM = 6;
/** The same idea in several languages: a question in one finds a page in another. */
const CONCEPTS: readonly (readonly string[])[] = [
  ['founde', 'establ', 'gegrun', 'grundu', 'opgeri', 'fundad', 'fondee', 'fonde', 'founding', 'foundi', 'zaloze'],
  ['turnov', 'revenu', 'umsatz', 'jahres', 'omzet', 'factur', 'chiffr', 'fattur', 'obroty'],
  ['certif', 'zertif', 'gecert', 'keurme'],
  ['export', 'ausfuh', 'uitvoe', 'exporta'],
  ['price', 'preis', 'prijs', 'precio', 'prix'],
  ['invest', 'invers', 'inwest'],
  ['langua', 'sprach', 'taal', 'idioma', 'langue'],
  ['storag', 'lager', 'opslag', 'almace', 'stocka'],
  ['organi', 'biolog', 'ecolog', 'biosie'],
  ['member', 'mitgli', 'lid', 'socio', 'membre', 'adhere'],
  ['visito', 'besuch', 'bezoek', 'visita', 'visite'],
  ['lamp', 'lighti', 'lights', 'belich', 'ilumin', 'eclair', 'belicht'],
  ['irriga', 'bewass', 'beregen', 'riego', 'irriga', 'arrosa', 'watering'],
  ['screen', 'schirm', 'scherm', 'pantal', 'ecran'],
];

export interface Sought {
  readonly stems: readonly (readonly string[])[];
  /** how many must be met */
  readonly enough: number;
}

/** What a question is about, by its own words. */
export function soughtBy(id: string, wording: string): Sought {
  const content = words(wording).filter((word) => word.length > 3 && !EMPTY.has(word));
  const named = id.split('_').filter((word) => word.length > 3 && !EMPTY.has(word));
  const stems = [...new Set([...content, ...named].map((word) => word.slice(0, STEM)))];
  const groups = stems.map(
    (stem) => CONCEPTS.find((group) => group.some((word) => word.startsWith(stem) || stem.startsWith(word))) ?? [stem],
  );
  return { stems: groups, enough: Math.max(1, Math.min(2, content.length)) };
}

const meets = (folded: string, group: readonly string[]): number => {
  for (const stem of group) {
    const found = new RegExp(`(?<![\\p{L}])${stem.replace(/[^\p{L}\p{N}]/gu, '')}`, 'u').exec(folded);
    if (found) return found.index;
  }
  return -1;
};

/** Answers to a question about nothing the reader knows by name: words in common, and a value of the right kind beside them. */
export function generally(said: Said, type: AnswerType, sought: Sought, now: Instant): readonly Candidate[] {
  const row = rowOf(said);
  const { folded } = said;
  const hits = sought.stems.map((group) => meets(folded, group)).filter((at) => at >= 0);
  const inLabel = row !== undefined && sought.stems.some((group) => meets(row.label, group) >= 0);
  if (hits.length < sought.enough && !inLabel) return [];
  if (OTHERS.test(folded)) return [];
  const score = hits.length * 0.8 + (inLabel ? 2.5 : 0);
  const put = (value: Candidate['value'], from?: number): Candidate => {
    const near = from === undefined ? 0 : Math.min(...hits.map((hit) => Math.abs(hit - from)));
    return { value, score: score - Math.min(1, near / 60), said, date: said.date };
  };
  switch (type.kind) {
    case 'yes/no': {
      if (row && inLabel) {
        if (/^(?:yes|ja|si|oui|tak)\b/.test(fold(row.value))) return [put(true)];
        if (/^(?:no|none|nein|nee|non|nie|keine?)\b/.test(fold(row.value))) return [put(false)];
      }
      if (FORMER.test(folded) || PLANNED.test(folded) || WISHED.test(folded) || said.kind === 'heading') return [];
      return [put(!NOT.test(folded))];
    }
    case 'year':
    case 'date': {
      const dates = datesIn(folded, said.date ?? now);
      return dates.map((date) => put(type.kind === 'year' ? new Date(date.start).getUTCFullYear() : isoOf(date), date.from));
    }
    case 'number': {
      if (type.unit !== undefined && /^[A-Z]{3}$/.test(type.unit)) return amounts(folded, type.unit, put);
      if (FORMER.test(folded) || PLANNED.test(folded)) return [];
      const figures = type.unit === undefined ? figuresIn(folded) : quantitiesIn(folded, type.unit);
      return figures
        .filter((figure) => !(type.unit === undefined && /^(?:19|20)\d\d$/.test(folded.slice(figure.from, figure.to))))
        .filter((figure) => !(type.unit === undefined && /^(?:a|an|ein\w*|een|un|una|une)$/.test(folded.slice(figure.from, figure.to))))
        .filter((figure) => hits.some((hit) => Math.abs(hit - figure.from) < 50) || inLabel)
        .map((figure) => put(figure.value, figure.from));
    }
    case 'money':
      return amounts(folded, type.currency, put);
    case 'choice':
    case 'list':
    case 'text':
      if (row && inLabel) return [put(clip(row.value, 160))];
      return said.kind === 'heading' || type.kind === 'list' ? [] : [put(clip(said.text, 160))];
  }
}

/** Amounts in the currency asked for; another currency is no answer, since nothing here knows the rate of the day. */
export function amounts(folded: string, currency: string, put: (value: number, from: number) => Candidate): readonly Candidate[] {
  return moneyIn(folded)
    .filter((money) => money.currency === currency)
    .map((money) => put(money.value, money.from));
}
