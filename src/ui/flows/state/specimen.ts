import { printValue } from '../../../core/fields';
import type { Json, JsonObject } from '../../../core/base';
import type { Entry, ShownFact, SpecimenTrip, Trial } from './types';

/** What happened to a specimen at a line: its last word there. */
export function entryAt(trip: SpecimenTrip | undefined, mark: string): Entry | undefined {
  return trip?.journal.filter((entry) => entry.mark === mark).at(-1);
}

export interface Working {
  readonly text: string;
  readonly points: number;
  readonly of: number;
  readonly state: 'holds' | 'part' | 'fails' | 'unknown';
  readonly reads: readonly string[];
}

const list = (value: Json | undefined): readonly JsonObject[] =>
  Array.isArray(value)
    ? (value as readonly Json[]).filter((item): item is JsonObject => typeof item === 'object' && item !== null && !Array.isArray(item))
    : [];
const text = (value: Json | undefined): string => (typeof value === 'string' ? value : '');
const number = (value: Json | undefined): number => (typeof value === 'number' ? value : 0);
const scalar = (value: Json | undefined): string | number | boolean | null =>
  typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' ? value : null;

export function workingOf(entry: Entry): readonly Working[] {
  return list(entry.detail.working).map((item) => ({
    text: text(item.text),
    points: number(item.points),
    of: number(item.of),
    state: text(item.state) as Working['state'],
    reads: Array.isArray(item.reads) ? (item.reads as readonly Json[]).map((read) => text(read)) : [],
  }));
}

export interface FindingView {
  readonly id: string;
  readonly found: boolean;
  readonly value: string | number | boolean | null;
  readonly unit: string | undefined;
  readonly quote: string | null;
  readonly url: string | null;
  readonly says: string;
}
export function findingsOf(entry: Entry): readonly FindingView[] {
  return list(entry.detail.findings).map((item) => ({
    id: text(item.id),
    found: item.found === true,
    value: scalar(item.value),
    unit: text(item.unit) || undefined,
    quote: text(item.quote) || null,
    url: text(item.url) || null,
    says: text(item.says),
  }));
}

export interface AskedView {
  readonly provider: string;
  readonly outcome: string;
  readonly value: string | null;
  readonly why: string;
  readonly costMicro: number;
}
export function askedOf(entry: Entry): readonly AskedView[] {
  return list(entry.detail.asked).map((item) => ({
    provider: text(item.provider),
    outcome: text(item.outcome),
    value: text(item.value) || null,
    why: text(item.why),
    costMicro: number(item.costMicro),
  }));
}

export interface EvidenceView {
  readonly field: string;
  readonly ours: string;
  readonly theirs: string;
  readonly agrees: string;
}
export function evidenceOf(entry: Entry): readonly EvidenceView[] {
  return list(entry.detail.evidence).map((item) => ({
    field: text(item.field),
    ours: text(item.ours),
    theirs: text(item.theirs),
    agrees: text(item.agrees),
  }));
}

export interface WrittenView {
  readonly subject: string;
  readonly body: string;
  readonly personalLine: string | null;
  readonly language: string | null;
  readonly fallback: string | null;
  readonly checks: readonly { readonly id: string; readonly ok: boolean; readonly says: string }[];
  readonly facts: readonly {
    readonly field: string;
    readonly value: string | number | boolean | null;
    readonly quote: string | null;
    readonly url: string | null;
  }[];
}
export function writtenOf(entry: Entry): WrittenView | undefined {
  const { detail } = entry;
  if (typeof detail.body !== 'string') return undefined;
  return {
    subject: text(detail.subject),
    body: detail.body,
    personalLine: text(detail.personalLine) || null,
    language: text(detail.language) || null,
    fallback: text(detail.fallback) || null,
    checks: list(detail.checks).map((item) => ({ id: text(item.id), ok: item.ok === true, says: text(item.says) })),
    facts: list(detail.facts).map((item) => ({
      field: text(item.field),
      value: scalar(item.value),
      quote: text(item.quote) || null,
      url: text(item.url) || null,
    })),
  };
}

export interface TouchView {
  readonly day: number;
  /** what a person does; empty: a mail */
  readonly byHand: string;
  readonly subject: string;
  readonly body: string;
}
export function touchesOf(entry: Entry): readonly TouchView[] {
  return list(entry.detail.touches).map((item) => ({
    day: number(item.day),
    byHand: item.channel === 'e-mail' ? '' : text(item.channel),
    subject: text(item.subject),
    body: text(item.body),
  }));
}

/** The fact of the specimen that a condition such as `company.founded` reads, best first as the server ordered them. */
export function factFor(trip: SpecimenTrip, path: string): ShownFact | undefined {
  const [first = '', second] = path.split('.');
  const kind = second === undefined ? 'person' : first;
  return trip.facts.find((fact) => fact.record.kind === kind && fact.field === (second ?? first) && fact.value !== null);
}

/** What the record said about a field before this trial. */
export function valueBefore(trip: SpecimenTrip, field: string): ShownFact | undefined {
  return trip.facts.find(
    (fact) => fact.record.kind === 'company' && fact.field === field && fact.value !== null && !fact.id.startsWith('trial-'),
  );
}

export interface TableCell {
  readonly text: string;
  readonly right?: boolean;
  readonly tone?: 'brick' | 'brass' | 'moss';
}
export interface LineTable {
  readonly columns: readonly { readonly label: string; readonly right?: boolean }[];
  readonly rows: readonly {
    readonly trip: SpecimenTrip;
    readonly cells: readonly TableCell[];
    readonly was: string | null;
    readonly order: number;
  }[];
  readonly differ: number;
}

const BAND_GLYPH: Readonly<Record<string, string>> = { hot: '▲', warm: '●', cold: '○', out: '✕' };
export const bandText = (band: string): string => `${BAND_GLYPH[band] ?? '◆'} ${band}`;
const OUTCOME_TONE: Readonly<Partial<Record<Entry['outcome'], TableCell['tone']>>> = {
  stopped: 'brick',
  stuck: 'brick',
  asked: 'brass',
  retry: 'brass',
};

/** The columns that matter at a line of that verb, for every specimen that got there, with what the trial before said. */
export function lineTable(verb: string, mark: string, trial: Trial, before: Trial | undefined): LineTable {
  const columns = COLUMNS[verb] ?? OTHER;
  const rows = trial.trips.flatMap((trip) => {
    const entry = entryAt(trip, mark);
    if (!entry) return [];
    const earlier = entryAt(
      before?.trips.find((other) => other.personId === trip.personId),
      mark,
    );
    return [
      { trip, cells: columns.cells(entry), was: earlier ? difference(verb, entry, earlier) : null, order: columns.order?.(entry) ?? 0 },
    ];
  });
  return { columns: columns.columns, rows: rows.sort((a, b) => b.order - a.order), differ: rows.filter((row) => row.was !== null).length };
}

function difference(verb: string, now: Entry, before: Entry): string | null {
  if (verb === 'score')
    return now.detail.points === before.detail.points && now.detail.band === before.detail.band
      ? null
      : `was ${before.detail.out === true ? 'out' : number(before.detail.points)}`;
  if (verb === 'write' || verb === 'reply') return now.detail.body === before.detail.body ? null : 'was other words';
  if (verb === 'split') return now.detail.arm === before.detail.arm ? null : 'took another arm';
  return now.outcome === before.outcome && now.says === before.says ? null : `was ${before.says}`;
}

interface Columns {
  readonly columns: LineTable['columns'];
  readonly cells: (entry: Entry) => readonly TableCell[];
  readonly order?: (entry: Entry) => number;
}

const tone = (entry: Entry): Pick<TableCell, 'tone'> => {
  const found = OUTCOME_TONE[entry.outcome];
  return found ? { tone: found } : {};
};
const OTHER: Columns = { columns: [{ label: 'what happened' }], cells: (entry) => [{ text: entry.says, ...tone(entry) }] };
const COLUMNS: Readonly<Record<string, Columns>> = {
  score: {
    columns: [{ label: 'points', right: true }, { label: 'band' }, { label: 'weakest' }],
    cells: ({ detail }) => [
      { text: detail.out === true ? '–' : String(number(detail.points)), right: true },
      { text: bandText(text(detail.band)), ...(detail.out === true ? { tone: 'brick' as const } : {}) },
      {
        text:
          detail.out === true
            ? Array.isArray(detail.disqualifiedBy)
              ? (detail.disqualifiedBy as readonly Json[]).map(text).join(', ')
              : ''
            : text(detail.weakest),
      },
    ],
    order: ({ detail }) => (detail.out === true ? -1 : number(detail.points)),
  },
  read: {
    columns: [{ label: 'found', right: true }, { label: 'answers' }],
    cells: (entry) => {
      const findings = findingsOf(entry);
      const found = findings.filter((finding) => finding.found);
      return [
        { text: `${found.length} of ${findings.length}`, right: true },
        found.length === 0
          ? { text: entry.says, tone: 'brass' }
          : { text: found.map((finding) => printValue(finding.value, finding.unit)).join(' · ') },
      ];
    },
    order: (entry) => findingsOf(entry).filter((finding) => finding.found).length,
  },
  'look up': {
    columns: [{ label: 'found' }, { label: 'asked', right: true }],
    cells: (entry) => [
      typeof entry.detail.value === 'string' ? { text: entry.detail.value } : { text: 'nothing usable', tone: 'brass' },
      { text: String(askedOf(entry).length), right: true },
    ],
  },
  match: {
    columns: [{ label: 'result' }, { label: 'sure', right: true }],
    cells: (entry) => [
      { text: entry.says, ...tone(entry) },
      { text: number(entry.detail.confidence) > 0 ? number(entry.detail.confidence).toFixed(2) : '–', right: true },
    ],
    order: ({ detail }) => number(detail.confidence),
  },
  write: {
    columns: [{ label: 'personal line' }, { label: 'checks' }],
    cells: (entry) => {
      const written = writtenOf(entry);
      const failed = written?.checks.filter((check) => !check.ok) ?? [];
      return [
        { text: written?.personalLine ?? '–' },
        failed.length === 0 ? { text: '✓ pass', tone: 'moss' } : { text: failed.map((check) => check.id).join(', '), tone: 'brick' },
      ];
    },
  },
  reply: {
    columns: [{ label: 'made of' }, { label: 'nobody has agreed' }],
    cells: ({ detail }) => [
      { text: textsIn(detail.answers).join(', ') || 'no agreed answer' },
      detail.covered === true
        ? { text: '✓ all of it is agreed', tone: 'moss' }
        : { text: textsIn(detail.open).join(' ') || '–', tone: 'brass' },
    ],
    order: ({ detail }) => (detail.covered === true ? 1 : 0),
  },
};
/** What a drafted reply says of itself: agreed answers, or what nobody has agreed on. */
export const textsIn = (value: Json | undefined): readonly string[] => (Array.isArray(value) ? value.map(text).filter(Boolean) : []);

/** Glyphs of the trial sheet. */
export const OUTCOME_GLYPH: Readonly<Record<Entry['outcome'], { readonly glyph: string; readonly tone: string }>> = {
  passed: { glyph: '●', tone: 'in-river' },
  stopped: { glyph: '◂', tone: 'quiet' },
  asked: { glyph: '○', tone: 'in-brass' },
  waiting: { glyph: '◷', tone: 'in-river' },
  stuck: { glyph: '■', tone: 'in-brick' },
  retry: { glyph: '↻', tone: 'in-brass' },
  sent: { glyph: '→', tone: 'in-moss' },
  off: { glyph: '–', tone: 'quiet' },
};
