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
  const days = new DaysAhead(fold(text), Date.parse(iso(written)));
  days.dated();
  days.named();
  days.numbered();
  days.afterThat();
  days.turns();
  days.spans();
  days.next();
  return days.out.sort((a, b) => a.from - b.from);
}

/** Finds days way by way; what one way has found no later one finds again. */
class DaysAhead {
  readonly out: Day[] = [];
  private readonly year: number;

  constructor(
    private readonly folded: string,
    private readonly today: Instant,
  ) {
    this.year = new Date(today).getUTCFullYear();
  }

  /** “2026-12-04”, “4.12.”, “4/12/26”. */
  dated(): void {
    for (const found of this.folded.matchAll(/\b(20\d\d)-(\d\d)-(\d\d)\b/g))
      this.put(found, Date.UTC(Number(found[1]), Number(found[2]) - 1, Number(found[3])), 'day');
    for (const found of this.folded.matchAll(/\b(\d{1,2})[./](\d{1,2})[./](20\d\d|\d\d)?(?!\d)/g)) {
      const year = found[3] === undefined ? undefined : (Number(found[3]) % 100) + 2000;
      if (Number(found[1]) <= 31 && Number(found[2]) <= 12)
        this.put(found, this.inYear(Number(found[2]) - 1, Number(found[1]), year), 'day');
    }
  }

  /** “the 4th of December”, “December 4”, “in December”. */
  named(): void {
    const yearOf = (said: string | undefined): number | undefined => (said === undefined ? undefined : Number(said));
    for (const found of this.folded.matchAll(
      new RegExp(`\\b(\\d{1,2})(?:st|nd|rd|th|er|\\.)? ?(?:of |de |d')?(${MONTHS})\\b\\.?(?:,? (?:de )?(20\\d\\d))?`, 'g'),
    ))
      if (Number(found[1]) <= 31) this.put(found, this.inYear(monthOf(found[2] ?? ''), Number(found[1]), yearOf(found[3])), 'day');
    for (const found of this.folded.matchAll(
      new RegExp(`\\b(${MONTHS})\\b\\.? (?:the )?(\\d{1,2})(?:st|nd|rd|th)?(?!\\d|[:.]\\d)(?:,? (20\\d\\d))?`, 'g'),
    ))
      if (Number(found[2]) <= 31) this.put(found, this.inYear(monthOf(found[1] ?? ''), Number(found[2]), yearOf(found[3])), 'day');
    for (const found of this.folded.matchAll(new RegExp(`\\b(${MONTHS})\\b\\.?(?: (?:de |of )?(20\\d\\d))?`, 'g'))) {
      const word = found[1] ?? '';
      // “May” and “mar” are words too: short forms alone are no month.
      if (word.length < 4 && word !== 'mai' && word !== 'mei') continue;
      this.put(found, this.inYear(monthOf(word), 1, yearOf(found[2])), 'month');
    }
  }

  /** “Wednesday 2”, “el jueves 3”, “Mittwoch, den 2.”: the next day of that number that is such a weekday, else the next of that number. */
  numbered(): void {
    for (const [weekday, names] of WEEKDAYS.entries())
      for (const found of this.folded.matchAll(
        new RegExp(
          `\\b(?:${names}),? (?:the |den |dem |de |le )?(\\d{1,2})(?:st|nd|rd|th|er)?(?![\\w:h/]|[.]\\d| ?(?:uhr|uur|am|pm|h\\b)| (?:of |de )?(?:${MONTHS})\\b|[.] ?(?:${MONTHS})\\b)`,
          'g',
        ),
      )) {
        const n = Number(found[1]);
        const ahead = Array.from({ length: 62 }, (_, i) => new Date(this.today + (i + 1) * DAY)).filter((at) => at.getUTCDate() === n);
        const at = ahead.find((day) => day.getUTCDay() === weekday) ?? ahead[0];
        if (at) this.put(found, at.getTime(), 'day');
      }
  }

  /** “9 February … from the 15th”: the month was said before. */
  afterThat(): void {
    for (const found of this.folded.matchAll(
      /\b(?:the|ab dem|vanaf de|a partir del?|a partir du) (\d{1,2})(?:st|nd|rd|th|\.)?(?=[ ,.;!?]|$)/g,
    )) {
      const day = Number(found[1]);
      if (day < 1 || day > 31) continue;
      const said = this.out.filter((other) => other.from < found.index).at(-1);
      const base = new Date(said ? Date.parse(said.date) : this.today);
      const at = Date.UTC(base.getUTCFullYear(), base.getUTCMonth(), day);
      this.put(found, !said && at < this.today ? Date.UTC(base.getUTCFullYear(), base.getUTCMonth() + 1, day) : at, 'day');
    }
  }

  /** “in spring”, “after Christmas”. */
  turns(): void {
    for (const [names, month] of SEASONS)
      for (const found of this.folded.matchAll(new RegExp(`\\b(?:${names})\\b`, 'g'))) this.put(found, this.inYear(month, 1), 'season');
    for (const found of this.folded.matchAll(
      /\b(?:after|over|past|nach|na|apres|despues de|once) (?:the |de |las? |les? )?(?:christmas|new year|holidays|weihnachten|neujahr|jahreswechsel|kerst|nieuwjaar|navidad|fiestas|noel|fetes)\b/g,
    ))
      this.put(found, Date.UTC(this.year + 1, 0, 4), 'week');
  }

  /** “in three weeks”. */
  spans(): void {
    for (const found of this.folded.matchAll(
      /\b(?:in|over|dans|en|dentro de) (\d{1,2}|\w+) (days?|tagen|dagen|dias|jours|weeks?|wochen|weken|week|semanas?|semaines?|months?|monaten?|maanden|maand|mes(?:es)?|mois)\b/g,
    )) {
      const n = NUMBERS[found[1] ?? ''] ?? Number(found[1]);
      const unit = found[2] ?? '';
      if (!Number.isFinite(n)) continue;
      const start = new Date(this.today);
      if (/^(?:month|monat|maand|mes|mois)/.test(unit))
        this.put(found, Date.UTC(start.getUTCFullYear(), start.getUTCMonth() + n, start.getUTCDate()), 'month');
      else this.put(found, this.today + n * DAY * (/^(?:day|tag|dag|dia|jour)/.test(unit) ? 1 : 7), 'week');
    }
  }

  /** “next year”, “next week”, “on Monday”. */
  next(): void {
    for (const found of this.folded.matchAll(
      /\b(?:next year|nachstes jahr|volgend jaar|(?:el )?ano que viene|proximo ano|l'annee prochaine|annee prochaine)\b/g,
    ))
      this.put(found, Date.UTC(this.year + 1, 0, 1), 'year');
    for (const found of this.folded.matchAll(
      /\b(?:next week|nachste woche|volgende week|la semana que viene|proxima semana|la semaine prochaine)\b/g,
    ))
      this.put(found, this.today + this.daysTo(1) * DAY, 'week');
    for (const [day, names] of WEEKDAYS.entries())
      for (const found of this.folded.matchAll(new RegExp(`\\b(?:${names})s?\\b`, 'g')))
        this.put(found, this.today + this.daysTo(day) * DAY, 'day');
  }

  /** Days to the next such day of the week, 0 for Sunday; today's is a week ahead. */
  private daysTo(day: number): number {
    return (day - new Date(this.today).getUTCDay() + 7) % 7 || 7;
  }

  private put(found: RegExpMatchArray, at: Instant, grain: Day['grain']): void {
    const from = found.index ?? 0;
    const to = from + found[0].length;
    if (!Number.isNaN(at) && !this.out.some((other) => other.from < to && from < other.to))
      this.out.push({ date: iso(at), from, to, grain });
  }

  /** In the year that makes it lie ahead; what was a few days ago is meant as it was. */
  private inYear(month: number, day: number, year?: number): Instant {
    if (year !== undefined) return Date.UTC(year, month, day);
    const at = Date.UTC(this.year, month, day);
    return at < this.today - 20 * DAY ? Date.UTC(this.year + 1, month, day) : at;
  }
}
