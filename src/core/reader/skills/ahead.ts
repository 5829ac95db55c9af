import { fold, type Instant } from '../../base';

/** A day that is spoken of, and the words around it. */
export interface Day {
  /** ISO 8601 */
  readonly date: string;
  readonly from: number;
  readonly to: number;
  /** how exactly it is said */
  readonly grain: 'day' | 'week' | 'month' | 'season' | 'year';
}

const DAY = 86_400_000;
const MONTHS =
  'jan(?:uary|uar|uari|vier)?|janner|enero|feb(?:ruary|ruar|ruari|rero)?|fevrier|mar(?:ch|s|zo|z)?|maerz|maart|apr(?:il)?|abril|avril|may|mai|mei|mayo|jun[ei]?|junio|juin|jul[yi]?|julio|juillet|aug(?:ust|ustus)?|agosto|aout|sept?(?:ember|iembre|embre)?|o[ck]t(?:ober|ubre|obre)?|nov(?:ember|iembre|embre)?|de[cz](?:ember|embre)?|diciembre|dic';
const STARTS = ['ja|en', 'f', 'mar|mae|maa', 'ap|av|ab', 'may|mai|mei', 'jun|jui(?!l)', 'jul|juil', 'au|ag|ao', 's', 'o', 'n', 'd'].map(
  (start) => new RegExp(`^(?:${start})`),
);
const WEEKDAYS = [
  'sunday|sonntag|zondag|domingo|dimanche',
  'monday|montag|maandag|lunes|lundi',
  'tuesday|dienstag|dinsdag|martes|mardi',
  'wednesday|mittwoch|woensdag|miercoles|mercredi',
  'thursday|donnerstag|donderdag|jueves|jeudi',
  'friday|freitag|vrijdag|viernes|vendredi',
  'saturday|samstag|sonnabend|zaterdag|sabado|samedi',
];
const SEASONS: readonly (readonly [string, number])[] = [
  ['spring|fruhjahr|fruhling|voorjaar|lente|primavera|printemps', 2],
  ['summer|sommer|zomer|verano|ete', 5],
  ['autumn|herbst|najaar|herfst|otono|automne', 8],
];
const NUMBERS: Readonly<Record<string, number>> = {
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  six: 6,
  eine: 1,
  einer: 1,
  einem: 1,
  zwei: 2,
  drei: 3,
  vier: 4,
  sechs: 6,
  een: 1,
  twee: 2,
  drie: 3,
  zes: 6,
  un: 1,
  una: 1,
  dos: 2,
  tres: 3,
  cuatro: 4,
  seis: 6,
  une: 1,
  deux: 2,
  trois: 3,
  quatre: 4,
};
const monthOf = (word: string): number => STARTS.findIndex((start) => start.test(word));
const iso = (at: Instant): string => new Date(at).toISOString().slice(0, 10);

/** Days that lie ahead of (or at) the day something was written, as its words say them. */
export function daysAhead(text: string, written: Instant): readonly Day[] {
  const folded = fold(text);
  const out: Day[] = [];
  const today = Date.parse(iso(written));
  const put = (found: RegExpMatchArray, at: Instant, grain: Day['grain']): void => {
    const from = found.index ?? 0;
    const to = from + found[0].length;
    if (!Number.isNaN(at) && !out.some((other) => other.from < to && from < other.to)) out.push({ date: iso(at), from, to, grain });
  };
  /** In the year that makes it lie ahead; what was a few days ago is meant as it was. */
  const inYear = (month: number, day: number, year?: number): Instant => {
    if (year !== undefined) return Date.UTC(year, month, day);
    const at = Date.UTC(new Date(today).getUTCFullYear(), month, day);
    return at < today - 20 * DAY ? Date.UTC(new Date(today).getUTCFullYear() + 1, month, day) : at;
  };
  for (const found of folded.matchAll(/\b(20\d\d)-(\d\d)-(\d\d)\b/g))
    put(found, Date.UTC(Number(found[1]), Number(found[2]) - 1, Number(found[3])), 'day');
  for (const found of folded.matchAll(/\b(\d{1,2})[./](\d{1,2})[./](20\d\d|\d\d)?(?!\d)/g)) {
    const year = found[3] === undefined ? undefined : (Number(found[3]) % 100) + 2000;
    if (Number(found[1]) <= 31 && Number(found[2]) <= 12) put(found, inYear(Number(found[2]) - 1, Number(found[1]), year), 'day');
  }
  for (const found of folded.matchAll(
    new RegExp(`\\b(\\d{1,2})(?:st|nd|rd|th|er|\\.)? ?(?:of |de |d')?(${MONTHS})\\b\\.?(?:,? (?:de )?(20\\d\\d))?`, 'g'),
  ))
    if (Number(found[1]) <= 31)
      put(found, inYear(monthOf(found[2] ?? ''), Number(found[1]), found[3] === undefined ? undefined : Number(found[3])), 'day');
  for (const found of folded.matchAll(
    new RegExp(`\\b(${MONTHS})\\b\\.? (?:the )?(\\d{1,2})(?:st|nd|rd|th)?(?!\\d|[:.]\\d)(?:,? (20\\d\\d))?`, 'g'),
  ))
    if (Number(found[2]) <= 31)
      put(found, inYear(monthOf(found[1] ?? ''), Number(found[2]), found[3] === undefined ? undefined : Number(found[3])), 'day');
  for (const found of folded.matchAll(new RegExp(`\\b(${MONTHS})\\b\\.?(?: (?:de |of )?(20\\d\\d))?`, 'g'))) {
    const word = found[1] ?? '';
    // “May” and “mar” are words too: short forms alone are no month.
    if (word.length < 4 && word !== 'mai' && word !== 'mei') continue;
    put(found, inYear(monthOf(word), 1, found[2] === undefined ? undefined : Number(found[2])), 'month');
  }
  // “9 February … from the 15th”: the month was said before.
  for (const found of folded.matchAll(/\b(?:the|ab dem|vanaf de|a partir del?|a partir du) (\d{1,2})(?:st|nd|rd|th|\.)?(?=[ ,.;!?]|$)/g)) {
    const day = Number(found[1]);
    if (day < 1 || day > 31) continue;
    const said = out.filter((other) => other.from < (found.index ?? 0)).at(-1);
    const base = new Date(said ? Date.parse(said.date) : today);
    const at = Date.UTC(base.getUTCFullYear(), base.getUTCMonth(), day);
    put(found, !said && at < today ? Date.UTC(base.getUTCFullYear(), base.getUTCMonth() + 1, day) : at, 'day');
  }
  for (const [names, month] of SEASONS)
    for (const found of folded.matchAll(new RegExp(`\\b(?:${names})\\b`, 'g'))) put(found, inYear(month, 1), 'season');
  for (const found of folded.matchAll(
    /\b(?:after|over|past|nach|na|apres|despues de|once) (?:the |de |las? |les? )?(?:christmas|new year|holidays|weihnachten|neujahr|jahreswechsel|kerst|nieuwjaar|navidad|fiestas|noel|fetes)\b/g,
  ))
    put(found, Date.UTC(new Date(today).getUTCFullYear() + 1, 0, 4), 'week');
  for (const found of folded.matchAll(
    /\b(?:in|over|dans|en|dentro de) (\d{1,2}|\w+) (days?|tagen|dagen|dias|jours|weeks?|wochen|weken|week|semanas?|semaines?|months?|monaten?|maanden|maand|mes(?:es)?|mois)\b/g,
  )) {
    const n = NUMBERS[found[1] ?? ''] ?? Number(found[1]);
    const unit = found[2] ?? '';
    if (!Number.isFinite(n)) continue;
    const month = /^(?:month|monat|maand|mes|mois)/.test(unit);
    const start = new Date(today);
    put(
      found,
      month
        ? Date.UTC(start.getUTCFullYear(), start.getUTCMonth() + n, start.getUTCDate())
        : today + n * DAY * (/^(?:day|tag|dag|dia|jour)/.test(unit) ? 1 : 7),
      month ? 'month' : 'week',
    );
  }
  for (const found of folded.matchAll(
    /\b(?:next year|nachstes jahr|volgend jaar|(?:el )?ano que viene|proximo ano|l'annee prochaine|annee prochaine)\b/g,
  ))
    put(found, Date.UTC(new Date(today).getUTCFullYear() + 1, 0, 1), 'year');
  for (const found of folded.matchAll(
    /\b(?:next week|nachste woche|volgende week|la semana que viene|proxima semana|la semaine prochaine)\b/g,
  ))
    put(found, today + ((8 - new Date(today).getUTCDay()) % 7 || 7) * DAY, 'week');
  for (const [day, names] of WEEKDAYS.entries())
    for (const found of folded.matchAll(new RegExp(`\\b(?:${names})s?\\b`, 'g')))
      put(found, today + ((day - new Date(today).getUTCDay() + 7) % 7 || 7) * DAY, 'day');
  return out.sort((a, b) => a.from - b.from);
}
