import { fold, type Instant } from '../base';
import { daysAhead, type Day } from '../reader';

const HOURS: readonly (readonly [string, number])[] = [
  ['one|eins|een|una|une', 1],
  ['two|zwei|twee|dos|deux', 2],
  ['three|drei|drie|tres|trois', 3],
  ['four|vier|cuatro|quatre', 4],
  ['five|funf|vijf|cinco|cinq', 5],
  ['six|sechs|zes|seis', 6],
  ['seven|sieben|zeven|siete|sept', 7],
  ['eight|acht|ocho|huit', 8],
  ['nine|neun|negen|nueve|neuf', 9],
  ['ten|zehn|tien|diez|dix', 10],
  ['eleven|elf|once|onze', 11],
  ['twelve|noon|zwolf|twaalf|doce|midi|mittag|mediodia|midday', 12],
];
const NAMES = HOURS.map(([names]) => names).join('|');
const hourOf = (word: string): number => HOURS.find(([names]) => names.split('|').includes(word))?.[1] ?? Number(word);
const AT = String.raw`(?:at|by|after|from|um|ab|gegen|nach|om|vanaf|na|rond|a las?|sobre las|a partir de las|a|vers|des|apres)`;
const AFTERNOON =
  /^.{0,20}?\b(?:pm|p\.m|afternoon|evening|nachmittags?|abends?|middag|'s middags|namiddag|avond|tarde|noche|apres-midi|soir)\b/;
const MORNING = /^.{0,20}?\b(?:am|a\.m|morning|vormittags?|morgens?|ochtend|'s ochtends|manana|matin)\b/;

interface Clock {
  readonly from: number;
  /** minutes of the day */
  readonly minute: number;
}

/** Times of day that are said, in their order: “14:30”, “10 Uhr”, “a las nueve”, “quarter past nine”, “half ten”. */
function clocks(folded: string): readonly Clock[] {
  const out: Clock[] = [];
  const put = (found: RegExpMatchArray, hour: number, minute: number, isWord: boolean): void => {
    const from = found.index ?? 0;
    if (!(hour >= 0 && hour <= 23 && minute >= 0 && minute < 60)) return;
    if (out.some((other) => Math.abs(other.from - from) < 8)) return;
    const behind = folded.slice(from + found[0].length);
    const isLate = AFTERNOON.test(behind) || /^(?:pm|p\.m)/.test(behind);
    const isEarly = MORNING.test(behind);
    // Nobody meets at three in the night: early hours without a word are those after noon.
    const shifted = hour < 12 && (isLate || (!isEarly && isWord && hour < 7)) ? hour + 12 : hour;
    out.push({ from, minute: shifted * 60 + minute });
  };
  for (const found of folded.matchAll(/(?<![\d.:/])([01]?\d|2[0-3])(?:[:h]|\.(?=\d\d ?(?:am|pm|uhr|uur|h)\b))([0-5]\d)(?![\d.:/])/g))
    put(found, Number(found[1]), Number(found[2]), found[1]?.length === 1);
  for (const found of folded.matchAll(
    new RegExp(`\\b(?:quarter|viertel|kwart|cuarto|quart) (past|nach|over|y|et|to|vor|voor) (${NAMES}|\\d{1,2})\\b`, 'g'),
  )) {
    const isBefore = /^(?:to|vor|voor)$/.test(found[1] ?? '');
    put(found, hourOf(found[2] ?? '') - (isBefore ? 1 : 0), isBefore ? 45 : 15, true);
  }
  // “half ten” is half past nine on the continent, and half past ten in English.
  for (const found of folded.matchAll(new RegExp(`\\b(half past|half|halb) (${NAMES}|\\d{1,2})\\b`, 'g'))) {
    const hour = hourOf(found[2] ?? '');
    const isEnglish =
      found[1] === 'half past' || /^(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)$/.test(found[2] ?? '');
    put(found, hour - (isEnglish ? 0 : 1), 30, true);
  }
  for (const found of folded.matchAll(/(?<![\d.:/])(\d{1,2}) ?(?:am|pm|a\.m|p\.m|uhr|uur|h)\b(?: ?([0-5]\d))?/g)) {
    const isLate = /(?:pm|p\.m)/.test(found[0]) && Number(found[1]) < 12;
    put(found, Number(found[1]) + (isLate ? 12 : 0), Number(found[2] ?? 0), !/am|a\.m/.test(found[0]) && !isLate);
  }
  for (const found of folded.matchAll(
    new RegExp(
      `\\b${AT} (${NAMES}|\\d{1,2})(?: (y media|et demie))?(?![\\w:/]|\\.\\d| (?:of )?[a-z]*(?:day|week|month|tag|woche|monat|dia|semana|jour)s?\\b)`,
      'g',
    ),
  ))
    put(found, hourOf(found[1] ?? ''), found[2] === undefined ? 0 : 30, true);
  for (const found of folded.matchAll(new RegExp(`\\b(${NAMES}) (?:in the (?:morning|afternoon)|de la (?:tarde|manana)|o'clock)`, 'g')))
    put(found, hourOf(found[1] ?? ''), 0, true);
  return out.sort((a, b) => a.from - b.from);
}

/** So far from its day a time may stand behind it, and before it, in letters. */
const BEHIND = 60;
const BEFORE = 25;

/**
 * Days and times that an answer proposes or takes, as the sender's clocks show them: `2026-12-01T09:15`, or the day alone where no
 * time is said. A day without a time of its own has that of the next one beside it.
 */
export function timesSaid(text: string, written: Instant): readonly string[] {
  const folded = fold(text);
  const today = new Date(written).toISOString().slice(0, 10);
  const days = joined(
    folded,
    daysAhead(text, written).filter((day) => day.grain === 'day' && day.date >= today),
  )
    // “if the Wednesday is full” speaks of the one that was said.
    .filter((day, i, all) => /\d/.test(folded.slice(day.from, day.to)) || !all.slice(0, i).some((other) => sameWeekday(day, other)));
  const said = clocks(folded);
  const own = days.map((day, i) => {
    const until = Math.min(days[i + 1]?.from ?? Infinity, day.to + BEHIND);
    const after = days[i - 1]?.to ?? 0;
    return (
      said.find((clock) => clock.from >= day.to && clock.from < until) ??
      said.findLast((clock) => clock.from < day.from && clock.from >= Math.max(after, day.from - BEFORE))
    );
  });
  const out = days.map((day, i) => {
    const close = days[i + 1] !== undefined && (days[i + 1]?.from ?? 0) - day.to < 20;
    const clock = own[i] ?? (close ? own[i + 1] : undefined);
    if (!clock) return day.date;
    const two = (value: number): string => String(value).padStart(2, '0');
    return `${day.date}T${two(Math.floor(clock.minute / 60))}:${two(clock.minute % 60)}`;
  });
  return [...new Set(out)];
}

const sameWeekday = (a: Day, b: Day): boolean => new Date(a.date).getUTCDay() === new Date(b.date).getUTCDay();

/** “Tuesday 1 December” is one day, the one its date says. */
function joined(folded: string, days: readonly Day[]): readonly Day[] {
  const out: Day[] = [];
  for (const day of days) {
    const before = out.at(-1);
    if (before && /^[ ,.]*(?:the |den |dem |de |el |le )?$/.test(folded.slice(before.to, day.from)))
      out[out.length - 1] = { ...day, from: before.from };
    else out.push(day);
  }
  return out;
}
