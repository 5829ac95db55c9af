/** Days a project speaks of, each told by what has to be done by then. */
import type { Instant } from '../../../base';
import { daysAhead } from '../../skills/ahead';
import { datesIn, isoOf } from '../../skills/dates';
import type { Sentence } from './sentences';

export type DeadlineKind = 'completion' | 'offer' | 'presentation' | 'visit' | 'questions' | 'decision' | 'start';
export interface Deadline {
  readonly kind: DeadlineKind;
  /** ISO 8601; null: a clue without a date */
  readonly iso: string | null;
  readonly quote: string;
}

const KINDS: readonly (readonly [DeadlineKind, RegExp])[] = [
  ['visit', /\b(?:site visits?|visit|viewing|inspection|besichtigung|ortstermin|begehung|bezichtiging|schouw|rondleiding|visita|visite)\b/],
  ['presentation', /\b(?:presentations?|present your|vorstellung|prasentation\w*|presentaties?|presentatie|presentacion\w*|soutenance)\b/],
  ['questions', /\b(?:(?:last |your )?questions|clarifications?|ruckfragen|fragen (?:bis|spatestens)|vragen|preguntas|consultas|dudas)\b/],
  [
    'offer',
    /\b(?:offers?|quotes?|quotations?|tenders?|bids?|proposals?|submissions?|submit\w*|angebot\w*|abgabe(?:frist|termin)?|offertes?|aanbieding\w*|inschrijving\w*|ofertas?|propuestas?|presupuestos? (?:antes|hasta)|offres?|devis|remise des)\b/,
  ],
  [
    'decision',
    /\b(?:decides?|decision|award(?:ed)?|choose|entscheid\w*|vergeben|zuschlag|beslis\w*|besluit\w*|gunning|deciden?|decidimos|decision|adjudica\w*|decide(?:ra|ront|rons)?|choix|attribution)\b/,
  ],
  [
    'completion',
    /\b(?:complet\w*|finish\w*|done|ready|running|in operation|operational|handover|hand over|handed over|live\b|online\b|accept(?:ed|ance)|installed|delivered|in service|in use|work(?:ing|s)?\b|commission\w*|fertig\w*|betriebsbereit|inbetriebnahme|in betrieb|abgeschlossen|abnahme|ubergabe|laufen|lauft|stehen|klaar|gereed|opgeleverd|oplevering|in gebruik|werken|draaien|draait|afgerond|list[oa]s?|terminad[oa]s?|acabad[oa]s?|en (?:marcha|servicio|funcionamiento)|entrega|puesta en marcha|funcionando|pret[es]?|termine\w*|acheve\w*|livre\w*|en (?:service|fonction\w*|place)|mise en service|reception|operationnel\w*)\b/,
  ],
  ['start', /\b(?:start\w*|begin\w*|beginn\w*|anfang\w*|aanvang|comienz\w*|inicio|demarr\w*|debut)\b/],
];
/** What binds a day to something that is to be done. */
const BY =
  /\b(?:by|before|no later than|not later than|until|till|latest|deadline|due|on|must|has to|have to|needs? to|bis|spatestens|vor|am|muss|soll|voor|uiterlijk|tegen|op|moet|antes de|a mas tardar|hasta|para|el|debe|tiene que|avant|au plus tard|pour|le|doit|d'ici)\b/;
/** Days that are neither asked nor promised. */
const NOT_DUE =
  /\b(?:issued|version|dated|ends? on|ended|expires?|lease|founded|built|since|ausgestellt|stand\b|gebaut|seit|versie|gebouwd|sinds|fechad[oa]|construid\w*|desde|date du|construite?|depuis|years? ago|window|winter offer|insurance)\b/;
const WEEK = /\b(?:week|wk|kw|kalenderwoche|semana|semaine)\.? ?(\d{1,2})(?:[ /,]+(?:van |of |de |in |des jahres )?(20\d\d))?/;
/** “some time in 2028”, “as soon as possible” */
const VAGUE =
  /\b(?:some time in|sometime|as soon as possible|asap|irgendwann|so bald wie moglich|schnellstmoglich|baldmoglichst|ergens in|zo snel mogelijk|cuanto antes|lo antes posible|des que possible|au plus vite|le plus tot)\b/;

export function deadlinesOf(sentences: readonly Sentence[], now: Instant): readonly Deadline[] {
  const out: Deadline[] = [];
  for (const sentence of sentences) {
    const days = daysOf(sentence, now);
    for (const [i, day] of days.entries()) {
      const clause = sentence.folded.slice(days[i - 1]?.to ?? 0, days[i + 1]?.from ?? sentence.folded.length);
      const kind =
        kindOf(clause) ??
        kindOf(sentence.folded) ??
        (sentence.section === 'deadline' && BY.test(sentence.folded) ? 'completion' : undefined);
      const bound = sentence.section === 'deadline' || BY.test(sentence.folded);
      if (kind === undefined || !bound || NOT_DUE.test(clause.slice(0, day.from))) continue;
      if (kind === 'start' && !/\b(?:must|has to|latest|spatestens|uiterlijk)\b/.test(clause)) continue;
      if (!out.some((other) => other.kind === kind && other.iso === day.iso)) out.push({ kind, iso: day.iso, quote: sentence.text });
    }
    if (days.length === 0 && VAGUE.test(sentence.folded) && (kindOf(sentence.folded) === 'completion' || sentence.section === 'deadline'))
      out.push({ kind: 'completion', iso: null, quote: sentence.text });
  }
  return out;
}

const kindOf = (clause: string): DeadlineKind | undefined => KINDS.find(([, words]) => words.test(clause))?.[0];

/** The day by which all has to stand: the last of those that are said, when several are. */
export const mainOf = (deadlines: readonly Deadline[]): Deadline | undefined => {
  const dated = deadlines.filter(({ iso }) => iso !== null);
  return (
    dated.find(({ kind }) => kind === 'completion') ??
    dated.find(({ kind }) => kind === 'start') ??
    dated.find(({ kind }) => kind === 'offer') ??
    dated[0]
  );
};

function daysOf(sentence: Sentence, now: Instant): readonly { readonly iso: string; readonly from: number; readonly to: number }[] {
  const whole = datesIn(sentence.folded, now)
    .filter((when) => when.end > now && (when.grain === 'day' || when.grain === 'month'))
    .map((when) => ({
      iso: when.grain === 'day' ? isoOf(when) : new Date(when.end - 1).toISOString().slice(0, 10),
      from: when.from,
      to: when.to,
    }));
  const week = WEEK.exec(sentence.folded);
  if (week && whole.length === 0) {
    const iso = mondayOf(Number(week[1]), week[2] === undefined ? undefined : Number(week[2]), now);
    return iso === undefined ? [] : [{ iso, from: week.index, to: week.index + week[0].length }];
  }
  if (whole.length > 0) return whole;
  return daysAhead(sentence.text, now)
    .filter((day) => day.grain === 'day' && /\d/.test(sentence.text.slice(day.from, day.to)))
    .map((day) => ({ iso: day.date, from: day.from, to: day.to }));
}

/** Monday of a week of the year (ISO 8601); without a year the next one that lies ahead. */
function mondayOf(week: number, year: number | undefined, now: Instant): string | undefined {
  if (week < 1 || week > 53) return undefined;
  const of = (each: number): Instant => {
    const fourth = Date.UTC(each, 0, 4);
    return fourth - ((new Date(fourth).getUTCDay() + 6) % 7) * 86_400_000 + (week - 1) * 7 * 86_400_000;
  };
  const thisYear = new Date(now).getUTCFullYear();
  const at = year === undefined ? (of(thisYear) > now ? of(thisYear) : of(thisYear + 1)) : of(year);
  return new Date(at).toISOString().slice(0, 10);
}
