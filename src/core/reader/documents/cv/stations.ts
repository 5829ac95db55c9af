/** The stations of a life on paper: what somebody was, where, from when to when. */
import type { Instant } from '../../../base';
import { plainFold, type DocumentLine } from '../lines';
import { momentOf, periodsIn, singleIn, type Moment, type Period } from '../periods';
import { APPRENTICE, BORN, BREAK, FIRM, ROLE, SCHOOL, UNFINISHED } from './words';

export interface Station {
  readonly kind: 'job' | 'training' | 'break';
  /** what they were or learned; of a break what it was for */
  readonly title: string;
  /** with whom; '' when it is not said */
  readonly at: string;
  readonly place: string;
  readonly from: Moment | null;
  /** null: it goes on */
  readonly to: Moment | null;
  readonly period: Period;
  readonly asWritten: string;
  readonly finished: boolean;
  readonly quote: string;
  /** what else is said of it, line by line */
  readonly about: readonly string[];
}

/** A line that says the time of a station, and what stands beside the time. */
interface Timed {
  readonly at: number;
  readonly period: Period;
  readonly beside: string;
}

const HEAD_MAX = 110;
type Section = 'jobs' | 'education';

/** The stations of a section of a CV in the order they are written. */
export function stationsOf(lines: readonly DocumentLine[], section: Section, now: Instant): readonly Station[] {
  const own = lines.filter((line) => line.section === section);
  const timed = timedIn(own, now);
  if (timed.length === 0) return [];
  const drafts = draftsOf(own, timed, section);
  const order = orderOf(drafts, section);
  return drafts.map((draft) => stationOf(draft, section, order));
}

/** Stations under a heading nobody knew, or under none: by their times, and by whether a school is among them. */
export function withStations(lines: readonly DocumentLine[], now: Instant): readonly DocumentLine[] {
  const heads = (line: DocumentLine | undefined): boolean =>
    line !== undefined &&
    /^(?:|other)$/.test(line.section) &&
    !line.bullet &&
    line.text.length <= HEAD_MAX &&
    !/[@:]|\d{3}/.test(line.text);
  const out = [...lines];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i];
    if (!line || !/^(?:|other)$/.test(line.section)) continue;
    const period = periodsIn(line.even, now).find((one) => opens(line.text, one));
    if (!period) continue;
    const bare = tidy(`${line.text.slice(0, period.from)} ${line.text.slice(period.to)}`) === '';
    let from = i;
    while (bare && from > i - 2 && from > 1 && heads(lines[from - 1])) from--;
    let to = i + 1;
    while (to < lines.length && lines[to]?.section === line.section) to++;
    const own = lines.slice(from, to);
    const schools = own.filter((one) => SCHOOL.test(one.folded)).length;
    const section = schools > own.filter((one) => ROLE.test(one.folded)).length ? 'education' : 'jobs';
    for (let at = from; at < to; at++) out[at] = { ...(lines[at] ?? line), section };
    i = to;
  }
  return out;
}

function timedIn(lines: readonly DocumentLine[], now: Instant): readonly Timed[] {
  const usual = lines.some((line) => periodsIn(line.even, now).some((period) => opens(line.text, period)));
  return lines.flatMap((line, at): readonly Timed[] => {
    const periods = periodsIn(line.even, now).filter((period) => opens(line.text, period));
    const [period] =
      periods.length > 0
        ? periods
        : singleIn(line.even, now).filter((one) => usual && !line.loose && !BORN.test(line.folded) && opensAlone(line.text, one));
    return period ? [{ at, period, beside: tidy(`${line.text.slice(0, period.from)} ${line.text.slice(period.to)}`) }] : [];
  });
}

/** A time that heads a station stands at the beginning or the end of its line or in brackets, not within a sentence. */
const opens = (text: string, period: Period): boolean => {
  const before = text.slice(0, period.from).trim();
  const behind = text.slice(period.to).trim();
  if (before === '' || /^[:\-–—|•(]+$/.test(before)) return true;
  if (
    !/^(?:[).,;]{0,2})$/.test(behind) &&
    !/[(|\t,–—-]$/.test(text.slice(0, period.from).trimEnd()) &&
    !text.slice(0, period.from).endsWith('\t')
  )
    return false;
  return before.length <= HEAD_MAX && !/[.!?]\s/.test(before);
};
const opensAlone = (text: string, period: Period): boolean =>
  text.slice(0, period.from).trim() === ''
    ? text.length > period.to
    : text.slice(period.to).trim().replace(/[).]/g, '') === '' && text.length <= 80;

interface Draft {
  readonly timed: Timed;
  /** lines of what it is and where, as they stand */
  readonly head: readonly string[];
  readonly about: readonly string[];
  readonly asWritten: string;
  readonly quote: string;
}

function draftsOf(lines: readonly DocumentLine[], timed: readonly Timed[], section: Section): readonly Draft[] {
  const times = new Set(timed.map(({ at }) => at));
  const first = timed[0]?.at ?? 0;
  const isHead = (at: number): boolean => {
    const line = lines[at];
    return (
      line !== undefined &&
      !times.has(at) &&
      !line.bullet &&
      line.text.length <= HEAD_MAX &&
      !/[.!;]$/.test(line.text.replace(/\b(?:b\.v|n\.v|s\.l|s\.a|ltd|inc|co|e\.k)\.$/i, ''))
    );
  };
  const bare = timed.filter(({ beside }) => beside === '').length > timed.length / 2;
  const above = first > 0 && isHead(first - 1) && (bare || timed.every(({ at }) => isHead(at - 1)));
  const isSchoolOrFirm = (at: number): boolean => isPlaceOf(section, lines[at]?.text ?? '');
  const heads = above ? linesAbove(timed, isHead) : linesBelow(timed, isHead, lines.length, bare, section, isSchoolOrFirm);
  return timed.map(({ at, period, beside }, i) => {
    const around = heads[i] ?? [];
    const next = timed[i + 1]?.at ?? lines.length;
    const until = above && i + 1 < timed.length ? next - (heads[i + 1]?.length ?? 0) : next;
    const about = lines.slice(at + 1, until).flatMap((line, step) => (around.includes(at + 1 + step) ? [] : [line.text]));
    const said = around.map((no) => lines[no]?.text ?? '');
    // What stands beside a time: the head, and behind a full stop what it was about.
    const [own = '', ...rest] = sentencesAfterHead(beside);
    const head = [...(above ? said : []), own, ...(above ? [] : said)].filter((text) => text !== '');
    const all = [...around, at].sort((a, b) => a - b).map((no) => lines[no]?.text ?? '');
    const line = lines[at]?.text ?? '';
    return {
      timed: { at, period, beside },
      head,
      about: [...rest, ...about],
      asWritten: tidy(line.slice(period.from, period.to)),
      quote: all.join(' … '),
    };
  });
}

/** As many lines above each time as above the first, which has nothing else above it. */
function linesAbove(timed: readonly Timed[], isHead: (at: number) => boolean): readonly (readonly number[])[] {
  const first = timed[0]?.at ?? 0;
  const count = Math.min(first, 3);
  return timed.map(({ at }) => {
    const out: number[] = [];
    for (let step = 1; step <= count && isHead(at - step); step++) out.unshift(at - step);
    return out;
  });
}

/** Below each time as many lines as every station has there, at most two. */
function linesBelow(
  timed: readonly Timed[],
  isHead: (at: number) => boolean,
  end: number,
  bare: boolean,
  section: Section,
  isSchoolOrFirm: (at: number) => boolean,
): readonly (readonly number[])[] {
  const runs = timed.map(({ at }, i) => {
    const out: number[] = [];
    for (let no = at + 1; no < (timed[i + 1]?.at ?? end) && isHead(no) && out.length < 2; no++) out.push(no);
    return out;
  });
  const few = Math.min(...runs.map((run) => run.length));
  return timed.map(({ beside }, i) => {
    const run = runs[i] ?? [];
    const [next] = run;
    // “Chemistry, doctorate” above “University of …”
    if (beside !== '' && next !== undefined && isSchoolOrFirm(next) && !piecesOf(beside).some((piece) => isPlaceOf(section, piece)))
      return [next];
    if (!bare || beside !== '')
      return piecesOf(beside).length > 1 || sentencesAfterHead(beside).length > 1 ? [] : run.slice(0, Math.min(1, few));
    return run.slice(0, Math.max(1, few));
  });
}

const sentencesAfterHead = (text: string): readonly string[] => {
  const [first = '', ...rest] = text.split(/(?<=\p{L}{3}\)?[.!?])\s+(?=\p{Lu})/u);
  return rest.length > 0 ? [first.replace(/[.!?]$/, ''), ...rest] : [text];
};

export const tidy = (text: string): string =>
  text
    .replace(/\(\s*\)/g, '')
    .replace(/^[\s,;:|()–—-]+|[\s,;:|(–—-]{1,40}$/g, '')
    .replace(/[^\S\t]+/g, ' ')
    .replace(/ ?\t\s*/g, '\t')
    .trim();

/** “Field technician at Larkfield Pumps, Hessle” in its parts; a comma inside brackets parts nothing. */
export const piecesOf = (text: string): readonly string[] => {
  const out: string[] = [];
  let depth = 0;
  let piece = '';
  for (const part of text.split(/(\s(?:at|bei|beim|bij|chez)\s(?=\p{Lu})|\s[|·–—-]\s|\t|[,;]\s|[()])/u)) {
    if (part === '(') depth++;
    if (part === ')') depth = Math.max(0, depth - 1);
    const parts = depth === 0 && /^(?:\s(?:at|bei|beim|bij|chez)\s|\s[|·–—-]\s|\t|[,;]\s)$/.test(part);
    if (parts) {
      out.push(piece);
      piece = '';
    } else piece += part;
  }
  return [...out, piece].map(tidy).filter((entry) => entry !== '');
};

/** Whether what they were stands before where they were, or behind it: as most stations of the section have it. */
type Order = 'title first' | 'place first';
const isRole = (text: string): boolean => ROLE.test(plainFold(text));
const isPlaceOf = (section: Section, text: string): boolean =>
  section === 'education' ? SCHOOL.test(plainFold(text)) : FIRM.test(plainFold(text));

function orderOf(drafts: readonly Draft[], section: Section): Order {
  let score = 0;
  for (const { head } of drafts) {
    const parts = head.length > 1 ? head : piecesOf(head[0] ?? '');
    const [first, second] = [parts[0] ?? '', parts[1] ?? ''];
    if (second === '') continue;
    if (section === 'jobs') score += Number(isRole(first)) - Number(isRole(second));
    score += Number(isPlaceOf(section, second)) - Number(isPlaceOf(section, first));
  }
  return score < 0 ? 'place first' : 'title first';
}

function stationOf(draft: Draft, section: Section, order: Order): Station {
  const { period } = draft.timed;
  const whole = plainFold(draft.head.join(' '));
  const isBreak =
    BREAK.test(whole) &&
    !(section === 'jobs' && draft.head.some((line) => piecesOf(line).some((piece) => isRole(piece)) && piecesOf(line).length > 1));
  const parts = isBreak ? { title: draft.head.join(', '), at: '', place: '' } : partsOf(draft.head, section, order);
  const all = plainFold([...draft.head, ...draft.about].join(' '));
  return {
    kind: isBreak ? 'break' : section === 'education' || APPRENTICE.test(plainFold(parts.title)) ? 'training' : 'job',
    ...parts,
    from: momentOf(period.first),
    to: period.ongoing || !period.last ? null : momentOf(period.last),
    period,
    asWritten: draft.asWritten,
    finished: section === 'education' && !period.ongoing && !UNFINISHED.test(all),
    quote: draft.quote,
    about: draft.about,
  };
}

type Parts = Pick<Station, 'title' | 'at' | 'place'>;

function partsOf(head: readonly string[], section: Section, order: Order): Parts {
  const [first = '', second = ''] = head;
  if (head.length > 1) {
    // A line each: the one of the employer may name the place behind it.
    const swapped = swaps(first, second, section, order);
    const [title, where] = swapped ? [second, first] : [first, second];
    const inTitle = piecesOf(title);
    // “Technician, Firm, Town” above a line that says something else of it.
    if (!swapped && inTitle.length > 1 && isPlaceOf(section, title) && !isPlaceOf(section, where))
      return inOneLine(inTitle, section, order);
    const [at = '', ...place] = piecesOf(where);
    return { title: tidy(title), ...bracketed(at, place.join(', ')) };
  }
  return inOneLine(piecesOf(first), section, order);
}

function swaps(first: string, second: string, section: Section, order: Order): boolean {
  const [a, b] = section === 'jobs' ? [isRole(first), isRole(second)] : [isPlaceOf(section, second), isPlaceOf(section, first)];
  if (a !== b && order === 'title first') return b && !a;
  return order === 'place first' && (b || !a);
}

/** “Graduate engineer, Controls, Severn Process Systems, Worcester”: the last is the place, the one before it the employer. */
function inOneLine(pieces: readonly string[], section: Section, order: Order): Parts {
  const [only = ''] = pieces;
  if (pieces.length < 2) return { title: only, at: '', place: '' };
  if (order === 'place first') {
    const at = pieces.slice(1).findIndex((piece) => (section === 'jobs' ? isRole(piece) : !isPlaceOf(section, piece)));
    const from = at < 0 ? 1 : at + 1;
    return { title: pieces.slice(from).join(', '), ...bracketed(only, pieces.slice(1, from).join(', ')) };
  }
  if (pieces.length === 2) return { title: only, ...bracketed(pieces[1] ?? '', '') };
  const firm = pieces.findIndex(
    (piece, i) => i > 0 && isPlaceOf(section, piece) && !(section === 'jobs' && isRole(piece) && !FIRM.test(plainFold(piece))),
  );
  const at =
    firm > 0
      ? firm
      : pieces.length === 3 && pieces.slice(1).some(isRole) && !isRole(pieces[2] ?? '') && isRole(pieces[1] ?? '')
        ? 2
        : pieces.length - 2;
  return { title: pieces.slice(0, at).join(', '), ...bracketed(pieces[at] ?? '', pieces.slice(at + 1).join(', ')) };
}

/** “Airedale Works (Bradford)” */
function bracketed(at: string, place: string): Pick<Station, 'at' | 'place'> {
  const found = /^([^()]{2,80})\((\p{Lu}[\p{L} .'-]{2,40})\)$/u.exec(at);
  return found && place === '' ? { at: (found[1] ?? at).trim(), place: found[2] ?? '' } : { at, place };
}
