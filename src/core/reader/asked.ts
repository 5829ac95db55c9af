import type { AnswerType } from '../flow/syntax';

/** How a statement can stand to what is asked, so that it does not count: it tells of plans, of the past, of others, of a part. */
export const STANDINGS = ['planned', 'former', 'others’', 'only a part'] as const;
export type Standing = (typeof STANDINGS)[number];
export const isStanding = (text: string): text is Standing => (STANDINGS as readonly string[]).includes(text);

/** A word or phrase learnt from examples, as somebody can read and change it. */
export interface Learnt {
  /** folded, as it was met; of a standing its name */
  readonly phrase: string;
  /** it is no word but how a statement stands */
  readonly isStanding?: boolean;
  /** above 0 speaks for an answer, below 0 against it; between −1 and 1 */
  readonly weight: number;
}

/** A question as its workspace keeps it: all but the first three parts may be left out. */
export interface Asked {
  readonly id: string;
  readonly type: AnswerType;
  readonly wording: string;
  /** phrases it goes by, in any language */
  readonly words?: readonly string[];
  /** phrases whose sentences do not count */
  readonly not?: readonly string[];
  /** other words for an option */
  readonly optionWords?: Readonly<Record<string, readonly string[]>>;
  /** words of other languages for a word of the wording, the unit or an option: from a dictionary, folded */
  readonly glosses?: Readonly<Record<string, readonly string[]>>;
  /** only what was said within so many months counts */
  readonly months?: number;
  /** least confidence with which an answer is taken, 0 to 1 */
  readonly least?: number;
  readonly learnt?: readonly Learnt[];
}

/** What kind of thing answers a question: each kind is looked for in its own way. */
export type Form =
  'count' | 'quantity' | 'money' | 'year' | 'date' | 'claim' | 'event' | 'person' | 'product' | 'choice' | 'list' | 'contact' | 'text';

const WHO =
  /^\W*(?:who|whom|whose name|wer|wie is|wie zijn|wie beslist|wie leidt|wie|quien|quienes|qui|chi|kto)\b|\bname of the (?:person|head|manager|director|owner)\b/;
const MAKE =
  /\b(?:makes? (?:of|and)|(?:which|what) make|brands?|models?|manufacturers?|suppliers?|vendors?|products?|software|systems?|programs?|programmes?|platforms?|computers?|marke|marken|hersteller|fabrikat|system|programm|merk|fabrikant|systeem|marca|fabricante|sistema|programa|marque|fabricant|systeme|logiciel)\b/;
const CONTACT = /\b(?:e-?mail|mail address|phone|telephone|telefon\w*|telefoon\w*|telefono|telephone)\b/;
const WINDOW =
  /\b(?:in|within|over|during) the (?:last|past) (\d{1,3}|twelve|six|three) months?\b|\b(?:letzten|vergangenen) (\d{1,3}) monaten?\b|\b(?:afgelopen|laatste) (\d{1,3}) maanden\b|\bultimos (\d{1,3}) meses\b|\b(\d{1,3}) derniers mois\b/;

/** Within how many months the event asked for must have been said, by the question or by its words. */
export function monthsOf(question: Asked, folded: string): number | undefined {
  if (question.months !== undefined) return question.months;
  const found = WINDOW.exec(folded);
  if (!found) return undefined;
  const text = found.slice(1).find((part) => part !== undefined) ?? '';
  return { twelve: 12, six: 6, three: 3 }[text] ?? Number(text);
}

/** `folded`: the wording. `measured`: whether the unit is one of size, mass or money, not a word for things that are counted. */
export function formOf(question: Asked, folded: string, measured: boolean): Form {
  const { type } = question;
  switch (type.kind) {
    case 'number':
      return type.unit === undefined ? 'count' : /^[A-Z]{3}$/.test(type.unit) ? 'money' : measured ? 'quantity' : 'count';
    case 'money':
      return 'money';
    case 'year':
      return 'year';
    case 'date':
      return 'date';
    case 'yes/no':
      return monthsOf(question, folded) === undefined ? 'claim' : 'event';
    case 'choice':
      return 'choice';
    case 'list':
      return 'list';
    case 'text':
      return WHO.test(folded) ? 'person' : CONTACT.test(folded) ? 'contact' : MAKE.test(folded) ? 'product' : 'text';
  }
}
