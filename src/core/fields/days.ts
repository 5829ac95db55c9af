/** Days as people and programs write them, as ISO 8601. */
import { fold } from '../base';

/** Which of two numbers is the day where both might be: as most of the world writes, or month first. */
export type DayOrder = 'day first' | 'month first';

const LANGUAGES = ['en', 'de', 'nl', 'fr', 'es', 'it', 'pl', 'da', 'sv', 'nb', 'pt'] as const;
/** What the table of names does not have. */
const BESIDES: Readonly<Record<string, number>> = { mrt: 3, sept: 9, jän: 1, janner: 1, maerz: 3 };

let known: ReadonlyMap<string, number> | undefined;
function months(): ReadonlyMap<string, number> {
  if (known) return known;
  const out = new Map<string, number>();
  for (const language of LANGUAGES)
    for (const style of ['long', 'short'] as const)
      for (let month = 0; month < 12; month++) {
        const parts = new Intl.DateTimeFormat(language, { day: 'numeric', month: style, timeZone: 'UTC' }).formatToParts(
          Date.UTC(2026, month, 15),
        );
        const name = fold(parts.find((part) => part.type === 'month')?.value ?? '').replace(/\.$/, '');
        if (name !== '' && !/^\d/.test(name) && !out.has(name)) out.set(name, month + 1);
      }
  for (const [name, month] of Object.entries(BESIDES)) out.set(fold(name), month);
  known = out;
  return out;
}

const monthNamed = (word: string): number | undefined => {
  const folded = fold(word).replace(/\.$/, '');
  const all = months();
  return all.get(folded) ?? (folded.length >= 3 ? all.get(folded.slice(0, 3)) : undefined);
};

/** Two digits are of this century until ten years from now, else of the last. */
const yearOf = (digits: string): number => (digits.length > 2 ? Number(digits) : Number(digits) + (Number(digits) > 36 ? 1900 : 2000));

function made(year: number, month: number, day: number): string | undefined {
  if (year < 1800 || year > 2199) return undefined;
  const at = new Date(Date.UTC(year, month - 1, day));
  return at.getUTCMonth() === month - 1 && at.getUTCDate() === day ? at.toISOString().slice(0, 10) : undefined;
}

const NUMBERS = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})$/;
const YEAR_FIRST = /^(\d{4})[./-](\d{1,2})[./-](\d{1,2})$/;
const DAY_NAME =
  /^(\d{1,2})(?:st|nd|rd|th|er|º|\.)?(?:[ -](?:of|de|di|del))?[ -]([\p{L}.]{3,12})(?:[ -](?:de|del))?,?[ -]'?(\d{4}|\d{2})$/u;
const NAME_DAY = /^([\p{L}.]{3,12})[ -](\d{1,2})(?:st|nd|rd|th)?,? (\d{4})$/u;
const WEEKDAY = /^(\p{L}{2,10})\.?,? (?=\d|\p{L}{3,12}\.? \d)/u;
/** A time of day behind a day says nothing of the day. */
const TIME = /(?<![ T,])[ T,]{1,3}\d{1,2}[:.]\d{2}(?:[:.]\d{2})?(?:\.\d+)?(?: ?[ap]\.?m\.?)?(?:Z|[+-]\d{2}:?\d{2})?$/i;
/** Days since the end of 1899, as spreadsheets count them: 1927 to 2118. */
const SERIAL = /^(\d{5})(?:\.\d+)?$/;

/** The day a text names, as ISO 8601; undefined when it names none. */
export function dayOf(raw: string, order: DayOrder = 'day first'): string | undefined {
  const whole = raw.trim().replace(/\s+/g, ' ');
  const text = (/^\d{1,2}[.:]\d{2}$/.test(whole) ? whole : whole.replace(TIME, ''))
    .replace(WEEKDAY, (words, word: string) => (monthNamed(word) === undefined || /, ?$/.test(words) ? '' : words))
    .trim();
  const iso = YEAR_FIRST.exec(text);
  if (iso) return made(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const compact = /^(19|20)(\d\d)(\d\d)(\d\d)$/.exec(text);
  if (compact) return made(Number(`${compact[1]}${compact[2]}`), Number(compact[3]), Number(compact[4]));
  const numbers = NUMBERS.exec(text);
  if (numbers) {
    const [one, other] = [Number(numbers[1]), Number(numbers[2])];
    const isMonthFirst = other > 12 || (order === 'month first' && one <= 12);
    return made(yearOf(numbers[3] ?? ''), isMonthFirst ? one : other, isMonthFirst ? other : one);
  }
  const named = DAY_NAME.exec(text);
  const month = named ? monthNamed(named[2] ?? '') : undefined;
  if (named && month !== undefined) return made(yearOf(named[3] ?? ''), month, Number(named[1]));
  const american = NAME_DAY.exec(text);
  const first = american ? monthNamed(american[1] ?? '') : undefined;
  if (american && first !== undefined) return made(Number(american[3]), first, Number(american[2]));
  const serial = SERIAL.exec(text);
  if (serial && Number(serial[1]) > 10_000 && Number(serial[1]) < 80_000)
    return new Date(Date.UTC(1899, 11, 30) + Number(serial[1]) * 86_400_000).toISOString().slice(0, 10);
  return undefined;
}

/** Which order a day can be read in only; undefined for one that may be either, and for none. */
export function orderTold(value: string): DayOrder | undefined {
  const numbers = NUMBERS.exec(value.trim().replace(TIME, ''));
  if (!numbers) return undefined;
  return Number(numbers[1]) > 12 ? 'day first' : Number(numbers[2]) > 12 ? 'month first' : undefined;
}

/** How a column writes its days, told by those that can be read one way only; undefined when none tells, or as many tell each. */
export function orderOf(values: Iterable<string>): DayOrder | undefined {
  const counts = { 'day first': 0, 'month first': 0 };
  for (const value of values) {
    const order = orderTold(value);
    if (order) counts[order]++;
  }
  return orderBy(counts);
}
export const orderBy = (counts: Readonly<Record<DayOrder, number>>): DayOrder | undefined =>
  counts['day first'] === counts['month first'] ? undefined : counts['day first'] > counts['month first'] ? 'day first' : 'month first';
