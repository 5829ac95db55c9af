import { isSmall } from '../language';
import { rowOf, type Said } from '../said';
import { figuresIn, type Figure } from '../skills/figures';
import { datesIn } from '../skills/dates';
import { moneyIn, quantitiesIn } from '../skills/quantities';
import { NOT } from '../skills/standing';
import { tokenAt, wordsBefore } from '../tokens';
import type { Hit } from '../cues';
import type { Candidate } from './candidate';

const UP_TO =
  /(?:\b(?:up to|at most|maximum(?: of)?|max\.?|no more than|bis(?: zu)?|hochstens|maximal|tot|hooguit|hasta|jusqu'a|maximum de|fino a))\s*$/;
const AT_LEAST =
  /(?:\b(?:from|over|more than|at least|ab|uber|mehr als|mindestens|vanaf|meer dan|ruim|mas de|desde|plus de|a partir de))\s*$/;
const ABOUT =
  /(?:\b(?:about|around|some|roughly|nearly|almost|rund|etwa|ca\.?|circa|knapp|ungefahr|zo'n|ongeveer|bijna|unos|unas|casi|alrededor de|environ|quelque|pres de))\s*$/;
const PART_BEFORE =
  /(?:of which|of them|of those|including|among them|davon|darunter|waarvan|waaronder|de l[oa]s cuales|de ell[oa]s|dont|incluid[oa]s)[^.;]{0,12}$/;
const RANGE_AFTER = /^\s?(?:-|–|to|bis|tot|a|à|and|und)\s?\d/;
const RANGE_BEFORE = /\d\s?(?:-|–|to|bis|tot|a)\s?$/;
const CLOCK_AFTER = /^\s?(?:uhr\b|o'clock|am\b|pm\b|a\.m|p\.m|uur\b|h\b|:\d\d|%|percent\b|prozent\b|procent\b|por ciento)/;
const NAMED_BEFORE =
  /(?:\b(?:no|nr|number|nummer|page|iso|en|din|phone|tel|telefon|fax|haus|hall|halle|type|model|version|ab|aged?|alter|jahren)\.?)\s?$/;
/** A figure with a measure or a price is no count. */
const MEASURED =
  /^\s?(?:€|£|\$|eur\b|euros?\b|pounds?\b|%|percent|m²|m2\b|m\b|cm\b|mm\b|km\b|kg\b|ha\b|kw\b|mw\b|years?\b|jahre?n?\b|jaar\b|anos?\b|ans\b|metres?\b|hands\b|minutes?\b|minuten\b|hours?\b|stunden\b|months?\b|monate?n?\b|weeks?\b|wochen\b|weken\b|semanas?\b|th\b|st\b|nd\b|rd\b)/;
const PRICED = /(?:€|£|\$|eur|chf)\s?$/;
/** “three more”: what is added to others. */
const MORE_AFTER = /^\s(?:more|others?|further|additional|weitere\w*|andere\w*|extra|andere|mas|autres?|supplementaires?)\b/;
/** What is said to come on top of what stands, or to be going up. */
const ADDED =
  /\b(?:additional|further|more|extra|new|adding|added|expan\w+|extension|extend\w*|neubau|neue[nrsm]?|bau|spatenstich|erweiter\w*|zusatzlich\w*|weitere[nrsm]?|nieuwe?|nieuwbouw|bouw|uitbreid\w*|extra|nuev[oa]s?|construccion|ampli\w+|mas|nouve\w+|de plus|agrand\w+|construction)\b/;
const TOTAL =
  /\b(?:in all|in total|altogether|total|together|combined|insgesamt|gesamt|zusammen|samen|totaal|in totaal|alles bij elkaar|en total|suman|au total|en tout|ensemble)\b/;
const SMALL_ONE = /^(?:a|an|one|ein\w*|een|un|una|une|uno|single|half|halb\w*|halve?|medio|media|demi|both|beide\w*)$/;
const YEAR = /^(?:19|20)\d\d$/;
const PHONE_LIKE = /^0\d/;

function around(folded: string, figure: Figure): Record<string, number> {
  const before = folded.slice(Math.max(0, figure.from - 28), figure.from);
  const after = folded.slice(figure.to, figure.to + 14);
  return {
    upTo: UP_TO.test(before) ? 1 : 0,
    atLeast: AT_LEAST.test(before) ? 1 : 0,
    about: ABOUT.test(before) ? 1 : 0,
    part: PART_BEFORE.test(folded.slice(Math.max(0, figure.from - 40), figure.from)) ? 1 : 0,
    range: RANGE_AFTER.test(after) || RANGE_BEFORE.test(before) ? 1 : 0,
    clock: CLOCK_AFTER.test(after) ? 1 : 0,
    named: NAMED_BEFORE.test(before) || PHONE_LIKE.test(folded.slice(figure.from, figure.to)) ? 1 : 0,
    more: MORE_AFTER.test(after) ? 1 : 0,
    added: ADDED.test(clauseAround(folded, figure)) ? 1 : 0,
    total: TOTAL.test(folded.slice(Math.max(0, figure.from - 20), figure.to + 24)) ? 1 : 0,
    word: /\d/.test(folded.slice(figure.from, figure.to)) ? 0 : 1,
  };
}

/** The stretch between the marks around a figure. */
function clauseAround(folded: string, figure: Figure): string {
  const start = Math.max(...[',', ';', ':', '(', '–'].map((mark) => folded.lastIndexOf(mark, figure.from - 1))) + 1;
  const end = folded.slice(figure.to).search(/[,;:()–]\s|$/);
  return folded.slice(start, figure.to + end);
}

const ONLY = /^(?:single|only|sole|einzig\w*|enkele?|enige|unic[oa]|seule?|unique)$/;
/** How far behind a figure the thing counted may stand: “eleven small meeting rooms”. */
const NOUN_REACH = 3;

/** A figure with the thing it counts. */
interface Counted {
  readonly value: number;
  readonly from: number;
  readonly to: number;
  readonly noun: Hit;
}

/** Counts of the things asked for: figures, two of them added (“seven rooms and two suites”), and none. */
export function countsIn(said: Said, hits: readonly Hit[]): readonly Candidate[] {
  const nouns = hits.filter((hit) => hit.cue.role === 'head' || hit.cue.role === 'word' || hit.cue.role === 'for');
  const { figures, counted } = figuresFor(said, nouns);
  const out = [...figures, ...partsAdded(said, figures, counted), ...pairsAdded(said, counted)];
  if (out.length === 0) out.push(...namesCounted(said, nouns));
  if (counted.length === 0) out.push(...seconds(said, nouns), ...none(said, nouns));
  return out;
}

function figuresFor(said: Said, nouns: readonly Hit[]): { readonly figures: readonly Candidate[]; readonly counted: readonly Counted[] } {
  const { folded, tokens } = said;
  const figures: Candidate[] = [];
  const counted: Counted[] = [];
  const dates = datesIn(folded, said.date ?? 0);
  const words = said.text.match(/[\p{L}\p{N}]+/gu) ?? [];
  for (const figure of figuresIn(folded)) {
    if (dates.some((date) => figure.from < date.to && date.from < figure.to)) continue;
    const text = folded.slice(figure.from, figure.to);
    if (YEAR.test(text) || !Number.isInteger(figure.value) || figure.value > 1e6) continue;
    if (MEASURED.test(folded.slice(figure.to, figure.to + 12)) || PRICED.test(folded.slice(Math.max(0, figure.from - 6), figure.from)))
      continue;
    const from = tokenAt(tokens, figure.from);
    const to = tokenAt(tokens, figure.to);
    const noun = nouns.find(
      (hit) =>
        hit.from >= to &&
        hit.from - to < NOUN_REACH &&
        !figureBetween(folded, figure.to, tokens[hit.from]?.from ?? 0) &&
        // “2 Check rooms”: what has a capital of its own begins something else.
        (said.language === 'de' || hit.from - to < 1 || !/^\p{Lu}/u.test(words[to] ?? '')),
    );
    if (SMALL_ONE.test(text) && (noun === undefined || noun.inside === true || (noun.from > to && !ONLY.test(tokens[to]?.folded ?? ''))))
      continue;
    if (noun) counted.push({ value: figure.value, from, to, noun });
    figures.push({
      value: figure.value,
      said,
      from,
      to,
      marks: {
        ...around(folded, figure),
        // “a Larch 12”: the number belongs to a name.
        typed: from > 1 && /^\p{Lu}\p{Ll}/u.test(words[from - 1] ?? '') && said.language !== 'de' && noun === undefined ? 1 : 0,
        noun: noun ? noun.strength / (1 + 0.4 * (noun.from - to)) : 0,
        nounHead: noun?.cue.role === 'head' ? noun.strength : 0,
        nounWord: noun?.cue.role === 'word' ? noun.strength : 0,
        nounLong: noun && noun.to - noun.from > 1 ? 1 : 0,
        one: SMALL_ONE.test(text) ? 1 : 0,
        big: figure.value > 500 ? 1 : 0,
      },
    });
  }
  return { figures, counted };
}

/** A count and what is added to it without saying the thing again. */
function partsAdded(said: Said, figures: readonly Candidate[], counted: readonly Counted[]): readonly Candidate[] {
  const { folded, tokens } = said;
  const [whole] = counted;
  if (!whole) return [];
  const sum = (part: Candidate | undefined, marks: Candidate['marks']): readonly Candidate[] =>
    typeof part?.value === 'number' ? [{ value: whole.value + part.value, said, from: whole.from, to: part.to, marks }] : [];
  // “Eight rooms in the house and three more in the annexe”.
  const added = figures.find((candidate) => candidate.marks.more === 1 && candidate.from > whole.to);
  if (added) return sum(added, { sum: 1, noun: 1 });
  // “Five centres stand in hall 1 and four in hall 2”.
  const beside = figures.find(
    (candidate) =>
      candidate.from > whole.noun.to &&
      candidate.marks.noun === 0 &&
      alike(
        folded.slice(tokens[whole.noun.to - 1]?.to ?? 0, tokens[candidate.from]?.from ?? 0),
        folded.slice(tokens[candidate.to - 1]?.to ?? 0),
      ),
  );
  return sum(beside, { sum: 1, noun: 1, placed: 1 });
}

/** “Seven rooms and two suites”. */
function pairsAdded(said: Said, counted: readonly Counted[]): readonly Candidate[] {
  const { folded, tokens } = said;
  return counted.flatMap((first, i) => {
    const second = counted[i + 1];
    if (!second || second.from - first.noun.to > 3 || first.noun.cue === second.noun.cue) return [];
    const between = folded.slice(tokens[first.noun.to - 1]?.to ?? 0, tokens[second.from]?.from ?? 0);
    if (!/^\s?(?:,|and|und|en|y|et|plus|&|sowie)\s/.test(`${between.trimStart()} `) || PART_BEFORE.test(between)) return [];
    return [{ value: first.value + second.value, said, from: first.from, to: second.to, marks: { sum: 1, noun: 1 } }];
  });
}

/** “Locations: Vechta and Lohne”: they are counted. */
function namesCounted(said: Said, nouns: readonly Hit[]): readonly Candidate[] {
  const row = rowOf(said);
  if (!row || !nouns.some((hit) => (said.tokens[hit.to - 1]?.to ?? 0) <= row.label.length + 1)) return [];
  const names = row.value
    .split(/,|;|\s(?:and|und|en|y|et|&)\s/)
    .map((name) => name.trim())
    .filter((name) => /^\p{Lu}/u.test(name) && name.split(/\s+/).length <= 4);
  if (names.length <= 1) return [];
  return [{ value: names.length, said, from: wordsBefore(said.text, row.label.length + 1), to: said.tokens.length, marks: { listed: 1 } }];
}

/** “Our second shop”: there are two. */
const seconds = (said: Said, nouns: readonly Hit[]): readonly Candidate[] =>
  nouns.flatMap((hit) =>
    SECOND.test(said.tokens[hit.from - 1]?.folded ?? '')
      ? [{ value: 2, said, from: hit.from - 1, to: hit.from, marks: { ordinal: 1, noun: hit.strength } }]
      : [],
  );

/** “We have no rooms”, and not “no room service”. */
function none(said: Said, nouns: readonly Hit[]): readonly Candidate[] {
  const { folded, tokens } = said;
  const denied = nouns.find((hit) => {
    const near = folded.slice(tokens[Math.max(0, hit.from - 3)]?.from ?? 0, tokens[hit.to - 1]?.to ?? 0);
    const next = tokens[hit.to]?.folded ?? '';
    const leadsOn =
      said.language === 'en' &&
      next.length > 3 &&
      tokens[hit.to]?.clause === tokens[hit.to - 1]?.clause &&
      !isSmall(next, 'en') &&
      !/(?:ed|ing|ly)$/.test(next);
    return NOT.test(near) && !leadsOn;
  });
  return denied ? [{ value: 0, said, from: denied.from, to: denied.to, marks: { zero: 1, noun: denied.strength } }] : [];
}

const WHERE = /^\s(in|im|at|on|am|auf|bei|an|op|bij|te|en|a|dans|chez)\s/;
/** Whether two counts are told of two places in the same way: “… in hall 1 and” before the second, “ in hall 2” behind it. */
function alike(between: string, behind: string): boolean {
  const where = WHERE.exec(behind)?.[1];
  // A breakdown behind a colon is no addition; “hall 1” is no figure.
  if (/[:\d]/.test(between.replace(/\b\w{0,3}\d{1,2}\b/g, ''))) return false;
  return where !== undefined && /\s(?:and|und|en|y|et|sowie)\s$/.test(between) && new RegExp(`\\s${where}\\s`).test(between);
}

const SECOND = /^(?:second|zweite[nrs]?|tweede|segund[oa]|deuxieme|seconde?)$/;
const figureBetween = (folded: string, from: number, to: number): boolean => /\d/.test(folded.slice(from, to));

/** “Of the 12 tonnes …”: a whole, of which something else is said. */
const WHOLE_BEFORE =
  /(?:\b(?:of (?:the|our|these)|von (?:den|unseren|insgesamt)|van (?:de|onze)|de (?:l[oa]s|nuestr[oa]s)|des|sur (?:les|nos)))\s*$/;

/** Quantities in the unit asked for, converted from others of their kind; a bare figure behind one is of its unit: “24 t, of which 20 new”. */
export function amountsIn(said: Said, unit: string): readonly Candidate[] {
  const { folded, tokens } = said;
  const whole = quantitiesIn(folded, unit);
  const placed = (
    found: { readonly value: number; readonly from: number; readonly to: number; readonly end: number },
    elliptic: number,
  ): Candidate => ({
    value: found.value,
    said,
    from: tokenAt(tokens, found.from),
    to: tokenAt(tokens, found.end),
    marks: { ...around(folded, found), elliptic, whole: WHOLE_BEFORE.test(folded.slice(Math.max(0, found.from - 24), found.from)) ? 1 : 0 },
  });
  const [first] = whole;
  const out = whole.map((found) => placed(found, 0));
  if (!first) return unitAbove(said, (text) => quantitiesIn(text, unit)[0]?.value);
  const dates = datesIn(folded, said.date ?? 0);
  for (const figure of figuresIn(folded)) {
    const text = folded.slice(figure.from, figure.to);
    const parted =
      PART_BEFORE.test(folded.slice(Math.max(0, figure.from - 40), figure.from)) ||
      WHOLE_BEFORE.test(folded.slice(Math.max(0, first.from - 24), first.from));
    if (!parted || figure.from < first.end || SMALL_ONE.test(text) || MEASURED.test(folded.slice(figure.to, figure.to + 12))) continue;
    if (whole.some((found) => found.from === figure.from) || dates.some((date) => figure.from < date.to && date.from < figure.to)) continue;
    const size = first.value / (figuresIn(folded.slice(first.from, first.to))[0]?.value ?? Number.NaN);
    if (Number.isFinite(size)) out.push(placed({ ...figure, value: Math.round(figure.value * size * 10_000) / 10_000, end: figure.to }, 1));
  }
  return out;
}

/**
 * The figure of a row whose unit stands in its label or in the heading above: “Hay, tonnes a year: 38.5”. `sizeOf`: what a text of one
 * such unit (“1 tonnes”) comes to in the unit asked for.
 */
function unitAbove(said: Said, sizeOf: (text: string) => number | undefined): readonly Candidate[] {
  const row = rowOf(said);
  if (!row) return [];
  const start = row.label.length + 1;
  const figures = figuresIn(said.folded).filter((figure) => figure.from > start);
  const [figure] = figures;
  if (!figure || MEASURED.test(said.folded.slice(figure.to, figure.to + 12))) return [];
  for (const [i, text] of [row.label, said.under].entries())
    for (const unit of text.match(/[^\s,;:()]+/gu) ?? []) {
      const size = /\d/.test(unit) ? undefined : sizeOf(`1 ${unit}`);
      if (size === undefined) continue;
      return [
        {
          value: Math.round(figure.value * size * 10_000) / 10_000,
          said,
          from: tokenAt(said.tokens, figure.from),
          to: tokenAt(said.tokens, figure.to),
          marks: { ...around(said.folded, figure), unitInLabel: i === 0 ? 1 : 0, unitInHead: i, several: figures.length > 1 ? 1 : 0 },
        },
      ];
    }
  return [];
}

/** Sums of money in the currency asked for. */
export function sumsIn(said: Said, currency: string): readonly Candidate[] {
  const found = moneyIn(said.folded);
  if (found.length === 0)
    return unitAbove(said, (text) => moneyIn(text).find((money) => money.currency === currency && money.value === 1)?.value);
  return found
    .filter((money) => money.currency === currency)
    .map((found) => ({
      value: found.value,
      said,
      from: tokenAt(said.tokens, found.from),
      to: tokenAt(said.tokens, found.to),
      marks: around(said.folded, found),
    }));
}

/** Rows one below the other that count kinds of the same thing, taken together; none where one of them is their total. */
export function sumsOfRows(candidates: readonly Candidate[], hitsOf: (said: Said) => readonly Hit[]): readonly Candidate[] {
  const tables = new Map<string, Candidate[]>();
  const seen = new Set<Said>();
  for (const candidate of candidates) {
    const { said } = candidate;
    const row = rowOf(said);
    if (!row || seen.has(said) || typeof candidate.value !== 'number') continue;
    if ((said.tokens[candidate.from]?.from ?? 0) <= row.label.length) continue;
    if (!hitsOf(said).some((hit) => hit.cue.role === 'head' && (said.tokens[hit.to - 1]?.to ?? 0) <= row.label.length + 1)) continue;
    seen.add(said);
    const key = `${said.url}\n${said.under}`;
    tables.set(key, [...(tables.get(key) ?? []), candidate]);
  }
  return [...tables.values()].flatMap((rows): readonly Candidate[] => {
    const [first] = rows;
    if (
      !first ||
      rows.length < 2 ||
      rows.length > MOST_ROWS ||
      rows.some(({ said }) => TOTAL.test(said.folded) || labelledBarely(said, hitsOf(said)))
    )
      return [];
    return [{ ...first, value: rows.reduce((sum, { value }) => sum + Number(value), 0), marks: { sum: 1, rows: 1 } }];
  });
}
const MOST_ROWS = 12;

/** A row whose label says what is counted and nothing else is the whole and no kind of it. */
function labelledBarely(said: Said, hits: readonly Hit[]): boolean {
  const end = (rowOf(said)?.label ?? '').length;
  return said.tokens.every((token, i) => token.from > end || hits.some((hit) => hit.from <= i && i < hit.to));
}
