import type { Instant } from '../../base';

/** A stretch of days that words speak of: “Q3 2025”, “last spring”, “2019”. */
export interface When {
  /** first day, inclusive */
  readonly start: Instant;
  /** first day after it */
  readonly end: Instant;
  readonly from: number;
  readonly to: number;
  /** how exactly it is said */
  readonly grain: 'day' | 'month' | 'season' | 'year';
}

const DAY = 86_400_000;
const utc = (year: number, month: number, day = 1): Instant => Date.UTC(year, month, day);

/** Folded names in en, de, nl, es, fr, it, pl; the first three letters do for short forms. */
const MONTHS: readonly RegExp[] = [
  /^(?:jan(?:uary|uar|uari|vier)?|janner|enero|ene|gennaio|styczen|stycznia)$/,
  /^(?:feb(?:ruary|ruar|ruari|rero|braio)?|fevrier|fev|luty|lutego)$/,
  /^(?:mar(?:ch|s|zo|ca|zec)?|marz|maerz|maart|mrt)$/,
  /^(?:apr(?:il|ile)?|abril|abr|avril|avr|kwiecien|kwietnia)$/,
  /^(?:may|mai|mei|mayo|maggio|maj|maja)$/,
  /^(?:jun(?:e|i|io)?|juin|giugno|czerwiec|czerwca)$/,
  /^(?:jul(?:y|i|io)?|juillet|luglio|lipiec|lipca)$/,
  /^(?:aug(?:ust|ustus)?|agosto|ago|aout|sierpien|sierpnia)$/,
  /^(?:sep(?:t|tember|tembre)?|septiembre|setiembre|settembre|wrzesien|wrzesnia)$/,
  /^(?:oct(?:ober|obre)?|okt(?:ober)?|octubre|ottobre|pazdziernik|pazdziernika)$/,
  /^(?:nov(?:ember|iembre|embre)?|listopad|listopada)$/,
  /^(?:dec(?:ember|embre)?|dez(?:ember)?|diciembre|dic|dicembre|grudzien|grudnia)$/,
];
const SEASONS: readonly (readonly [RegExp, number])[] = [
  [/^(?:spring|fruhjahr|fruhling|voorjaar|lente|primavera|printemps|wiosna|wiosny)$/, 2],
  [/^(?:summer|sommer|zomer|verano|ete|estate|lato|lata)$/, 5],
  [/^(?:autumn|fall|herbst|najaar|herfst|otono|automne|autunno|jesien|jesieni)$/, 8],
  [/^(?:winter|invierno|hiver|inverno|zima|zimy)$/, 11],
];
const LAST =
  /(?:last|past|this past|letzte[nrsm]?|vergangene[nrsm]?|vorige[nrsm]?|afgelopen|vorig|pasad[oa]|dernier|derniere|scors[oa]|zeszl\w+)/;
const NEXT = /(?:next|this coming|coming|kommende[nrsm]?|nachste[nrsm]?|komende?|volgend[e]?|proxim[oa]|prochaine?|prossim[oa])/;

const YEAR = '(?:19[5-9]\\d|20\\d\\d)';
const NAME = '[a-z]{3,12}\\.?';
const monthOf = (word: string): number => MONTHS.findIndex((month) => month.test(word.replace(/\.$/, '')));
/** A month by its folded name, 0 to 11; -1 for none. */
export const monthNamed = (word: string): number => monthOf(word);
const seasonOf = (word: string): number | undefined => SEASONS.find(([name]) => name.test(word))?.[1];

/** Every date in folded text; words such as “last spring” count from `now`, the day of the page or of reading. */
export function datesIn(folded: string, now: Instant): readonly When[] {
  const out: When[] = [];
  const put = (found: RegExpMatchArray, start: Instant, end: Instant, grain: When['grain']): void => {
    const from = found.index ?? 0;
    const to = from + found[0].length;
    if (!out.some((other) => other.from < to && from < other.to)) out.push({ start, end, from, to, grain });
  };
  for (const found of folded.matchAll(new RegExp(`\\b(${YEAR})-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])\\b`, 'g'))) {
    const start = utc(Number(found[1]), Number(found[2]) - 1, Number(found[3]));
    put(found, start, start + DAY, 'day');
  }
  for (const found of folded.matchAll(new RegExp(`\\b([0-3]?\\d)[./]([01]?\\d)[./](${YEAR})\\b`, 'g'))) {
    const [day, month] = [Number(found[1]), Number(found[2])];
    if (day < 1 || day > 31 || month < 1 || month > 12) continue;
    const start = utc(Number(found[3]), month - 1, day);
    put(found, start, start + DAY, 'day');
  }
  for (const found of folded.matchAll(
    new RegExp(`\\b(\\d{1,2})(?:st|nd|rd|th|\\.|er)? (?:of |de |di )?(${NAME})(?: de| del)?,? (${YEAR})\\b`, 'g'),
  )) {
    const month = monthOf(found[2] ?? '');
    if (month < 0) continue;
    const start = utc(Number(found[3]), month, Number(found[1]));
    put(found, start, start + DAY, 'day');
  }
  for (const found of folded.matchAll(new RegExp(`\\b(${NAME}) (\\d{1,2})(?:st|nd|rd|th)?, (${YEAR})\\b`, 'g'))) {
    const month = monthOf(found[1] ?? '');
    if (month < 0) continue;
    const start = utc(Number(found[3]), month, Number(found[2]));
    put(found, start, start + DAY, 'day');
  }
  for (const found of folded.matchAll(new RegExp(`\\b(${NAME})(?: of| de| del| in)?,? (${YEAR})\\b`, 'g'))) {
    const month = monthOf(found[1] ?? '');
    const season = seasonOf(found[1] ?? '');
    const year = Number(found[2]);
    if (month >= 0) put(found, utc(year, month), utc(year, month + 1), 'month');
    else if (season !== undefined) put(found, utc(year, season), utc(year, season + 3), 'season');
  }
  for (const found of folded.matchAll(
    new RegExp(`\\b(?:(?:q|t|k)([1-4])|([1-4])(?:st|nd|rd|th)? quarter(?: of)?|([1-4])\\. quartal|([1-4])e kwartaal)[ /](${YEAR})\\b`, 'g'),
  )) {
    const quarter = Number(found[1] ?? found[2] ?? found[3] ?? found[4]) - 1;
    put(found, utc(Number(found[5]), quarter * 3), utc(Number(found[5]), quarter * 3 + 3), 'season');
  }
  for (const found of folded.matchAll(new RegExp(`\\b(0?[1-9]|1[0-2])/(${YEAR})\\b`, 'g'))) {
    const start = utc(Number(found[2]), Number(found[1]) - 1);
    put(found, start, utc(Number(found[2]), Number(found[1])), 'month');
  }
  for (const found of folded.matchAll(new RegExp(`(?<![\\d.,])${YEAR}(?![\\d]|[.,]\\d)`, 'g'))) {
    const year = Number(found[0]);
    put(found, utc(year, 0), utc(year + 1, 0), 'year');
  }
  relative(folded, now, put);
  return out.sort((a, b) => a.from - b.from);
}

function relative(
  folded: string,
  now: Instant,
  put: (found: RegExpMatchArray, start: Instant, end: Instant, grain: When['grain']) => void,
): void {
  const year = new Date(now).getUTCFullYear();
  const wholeYear = (found: RegExpMatchArray, of: number): void => put(found, utc(of, 0), utc(of + 1, 0), 'year');
  const season = (found: RegExpMatchArray, name: string, direction: -1 | 1): void => {
    const month = seasonOf(name);
    if (month === undefined) return;
    let of = year + direction;
    // The nearest one that is wholly behind (or ahead of) the day it is said on.
    if (direction < 0 && utc(year, month + 3) <= now) of = year;
    if (direction > 0 && utc(year, month) > now) of = year;
    put(found, utc(of, month), utc(of, month + 3), 'season');
  };
  for (const [words, direction] of [
    [LAST, -1],
    [NEXT, 1],
  ] as const) {
    for (const found of folded.matchAll(new RegExp(`\\b${words.source} (${NAME})\\b`, 'g'))) {
      if (/^(?:year|jahr|jaar|ano|annee|an|anno|rok)$/.test(found[1] ?? '')) wholeYear(found, year + direction);
      else season(found, found[1] ?? '', direction);
    }
    for (const found of folded.matchAll(new RegExp(`\\b(?:el |la |l'|le )(\\w+) ${words.source}\\b`, 'g'))) {
      if (/^(?:ano|an|annee|anno)$/.test(found[1] ?? '')) wholeYear(found, year + direction);
      else season(found, found[1] ?? '', direction);
    }
  }
  for (const found of folded.matchAll(
    /\b(?:this year|dieses jahr|in diesem jahr|heuer|dit jaar|este ano|cette annee|quest'anno|w tym roku)\b/g,
  ))
    wholeYear(found, year);
  for (const found of folded.matchAll(/\b(?:im vorjahr|letztes jahr|vergangenes jahr)\b/g)) wholeYear(found, year - 1);
  for (const found of folded.matchAll(
    /\b(?:recently|this (?:month|week)|just now|kurzlich|in diesen tagen|onlangs|recientemente|recemment|ces jours-ci)\b/g,
  ))
    put(found, now - 90 * DAY, now + DAY, 'season');
}

/** ISO 8601, as exactly as it was said: `2026-03-12`, `2026-03`, `2026`. */
export function isoOf(when: When): string {
  const day = new Date(when.start).toISOString().slice(0, 10);
  return when.grain === 'day' ? day : when.grain === 'year' ? day.slice(0, 4) : day.slice(0, 7);
}
