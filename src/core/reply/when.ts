import { fold, type Instant } from '../base';
import { daysAhead, type Day } from '../reader';

const DAY = 86_400_000;
const iso = (at: Instant): string => new Date(at).toISOString().slice(0, 10);

const BACK =
  /(?:\b(?:week (?:of|after)|back|return\w*|again|available|in the office|from|wieder|zuruck|ab|terug|weer|vanaf|bereikbaar|de retour|a partir|des le|vuelv\w+|vuelta|incorpor\w+|desde|answer|antwort\w*|beantwoord\w*)\b)[^.!?\n]{0,45}$/;
const UNTIL = /\b(?:until|till|til|to|through|bis|tot|t\/m|hasta|jusqu'(?:au|a|en)?|au)\b[^.!?\n]{0,40}$/;
const INCLUSIVE = /\b(?:through|inclusive|including|einschliesslich|inkl\w*|t\/m|tot en met|inclusi\w*|inclus)\b/;
const AGAIN_BEHIND = /^[^.!?\n]{0,25}\b(?:wieder|zuruck|back|again|weer|terug|de retour|de vuelta|on)\b/;

/** The first day to write again, as an answer says it; null where it says none. */
export function resumeOn(text: string, written: Instant): string | null {
  const folded = fold(text);
  const today = iso(written);
  const days = daysAhead(text, written).filter((day) => day.date >= iso(written - 20 * DAY));
  if (days.length === 0) return null;
  const at = (day: Day) => ({ before: folded.slice(Math.max(0, day.from - 60), day.from), behind: folded.slice(day.to, day.to + 40) });
  const back = days.find((day) => BACK.test(at(day).before) || AGAIN_BEHIND.test(at(day).behind));
  if (back) return joined(back, days);
  const until = days.findLast((day) => UNTIL.test(at(day).before));
  if (until) return INCLUSIVE.test(at(until).before) ? nextWorkingDay(until.date) : joined(until, days);
  return joined(days.findLast((day) => day.date > today) ?? days.at(-1) ?? days[0], days);
}

/** “Monday, 7 December”: the date says which Monday. */
function joined(day: Day | undefined, days: readonly Day[]): string | null {
  if (!day) return null;
  const next = days.find((other) => other.from >= day.to && other.from - day.to <= 6 && other.grain === 'day');
  return (next ?? day).date;
}
function nextWorkingDay(date: string): string {
  let at = Date.parse(date) + DAY;
  while ([0, 6].includes(new Date(at).getUTCDay())) at += DAY;
  return iso(at);
}
