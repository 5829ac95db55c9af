import { STANDARD_FIELDS, type Catalogue } from '../../../core/fields';
import { scalarText } from '../../kit/format';
import type { Tone } from '../../kit/tone';
import { replyTone } from '../../client/replies';
import type { Happening, KnownField, KnownOf, MessageItem } from './types';

/** Shown in the page's head, so not again below. */
const IN_HEAD = new Set([
  'person.name',
  'person.first_name',
  'person.last_name',
  'company.name',
  'person.status',
  'company.status',
  'deal.title',
  'deal.stage',
]);
/** Standard fields of candidates: their papers fill them. */
const OF_PAPERS = 'Candidate';

export interface FactGroup {
  readonly name: string;
  readonly fields: readonly KnownField[];
}

/** Known fields by group, in the order of the catalogue, the workspace's own groups first. */
export function factGroups(known: readonly KnownField[], fields: Catalogue): readonly FactGroup[] {
  const standard = STANDARD_FIELDS.map((field) => field.group);
  const every = [...fields.own, ...STANDARD_FIELDS];
  // What only this business asks leads; what everybody has follows.
  const groups = [...new Set([...fields.own.map((field) => field.group).filter((name) => !standard.includes(name)), ...standard])];
  const places = new Map(every.map((field, i) => [`${field.record}.${field.key}`, i]));
  const order = (field: KnownField): number => places.get(`${field.record}.${field.key}`) ?? 999;
  return groups
    .map((name) => ({
      name,
      fields: known
        .filter((field) => field.group === name && !IN_HEAD.has(`${field.record}.${field.key}`))
        .sort((a, b) => order(a) - order(b)),
    }))
    .filter((group) => group.fields.length > 0);
}

/** Fields of the workspace that nobody has said anything of on these records, as empty values that can be set. */
export function notKnown(known: readonly KnownField[], of: readonly KnownOf[], fields: Catalogue): readonly KnownField[] {
  const said = new Set(known.map((field) => `${field.recordId} ${field.key}`));
  return of.flatMap(({ record, id, name }) =>
    fields
      .all(record)
      .filter(
        (field) =>
          !field.isComputed &&
          !(field.isStandard && field.group === OF_PAPERS) &&
          !IN_HEAD.has(`${record}.${field.key}`) &&
          !said.has(`${id} ${field.key}`),
      )
      .map((field): KnownField => ({
        record,
        recordId: id,
        key: field.key,
        label: name === undefined ? field.label : `${field.label}, ${name}`,
        group: field.group,
        unit: field.unit ?? null,
        fact: null,
        others: [],
      })),
  );
}

export interface TimelineItem {
  readonly id: string;
  readonly at: number;
  readonly kind: string;
  readonly title: string;
  readonly tags: readonly { readonly text: string; readonly tone: Tone }[];
  readonly text: string | null;
  readonly href: string | null;
  readonly class: 'messages' | 'notes' | 'trips';
}

const CLASS: Readonly<Record<string, TimelineItem['class']>> = {
  note: 'notes',
  change: 'notes',
  reply: 'messages',
  sent: 'messages',
  review: 'messages',
  task: 'messages',
};
const text = (value: unknown): string | null => (typeof value === 'string' && value !== '' ? value : null);

/**
 * One timeline of what happened: the record's own, and the messages that left or came in (told from the messages
 * themselves, so that the words stand there). Newest first.
 */
export function timeline(happened: readonly Happening[], messages: readonly MessageItem[], firstName: string): readonly TimelineItem[] {
  const told = new Set(['sent', 'reply']);
  const own = happened
    .filter((entry) => !told.has(entry.kind) || messages.length === 0 || entry.detail.kind === 'unsubscribe')
    .map((entry, i): TimelineItem => ({
      id: `h${i}`,
      at: entry.at,
      kind: entry.kind,
      title: titleOf(entry),
      tags: [],
      text: detailOf(entry),
      href: hrefOf(entry),
      class: CLASS[entry.kind] ?? 'trips',
    }));
  const mail = messages
    // What people did is told by how it went.
    .filter(({ state, channel }) => channel === 'e-mail' && (state === 'sent' || state === 'received'))
    .map((message): TimelineItem => {
      const incoming = message.direction === 'in';
      const { reading } = message;
      return {
        id: message.id,
        at: message.at,
        kind: incoming ? 'reply' : 'sent',
        title: incoming ? (reading?.kind === 'bounce' ? 'The mail came back' : `${firstName} answered`) : message.subject,
        tags: [
          ...(reading
            ? [
                {
                  text: reading.objection ? `${reading.kind} · ${reading.objection}` : reading.kind,
                  tone: replyTone(reading.kind),
                },
              ]
            : []),
          ...(reading?.when ? [{ text: `asks: ${reading.when}`, tone: 'plain' as const }] : []),
        ],
        text: incoming
          ? (reading?.quote ?? firstWords(message.body))
          : `touch ${(message.touch ?? 0) + 1}${message.approvedByName ? ` · approved by ${message.approvedByName}` : ''}`,
        href: message.threadId ? `/messages/${message.threadId}` : null,
        class: 'messages',
      };
    });
  return [...own, ...mail].sort((a, b) => b.at - a.at);
}

const hrefOf = ({ kind, detail }: Happening): string | null =>
  text(detail.tripId)
    ? `/trips/${scalarText(detail.tripId)}`
    : kind === 'task' && text(detail.threadId)
      ? `/messages/${scalarText(detail.threadId)}`
      : null;

/** “Touch 2 · call”, of what is still to come. */
export function nextWords({ touch, channel }: Pick<MessageItem, 'touch' | 'channel'>): string {
  const what = touch === null ? (channel === 'e-mail' ? 'Our answer' : 'To be done') : touch === 0 ? 'First message' : `Touch ${touch + 1}`;
  return channel === 'e-mail' ? what : `${what} · ${channel}`;
}

const firstWords = (body: string): string =>
  body
    .split(/\nOn .+ wrote:/)[0]
    ?.trim()
    .slice(0, 200) ?? '';

function titleOf(entry: Happening): string {
  if (entry.kind === 'score')
    return entry.detail.out === true ? 'Scored: out' : `Fit ${scalarText(entry.detail.points)}, ${scalarText(entry.detail.band)}`;
  if (entry.kind === 'read') return entry.says;
  if (entry.kind === 'note') return typeof entry.detail.by === 'string' ? `Note by ${entry.detail.by}` : 'Note';
  return entry.says;
}

function detailOf(entry: Happening): string | null {
  if (entry.kind === 'note') return entry.says;
  if (entry.kind === 'score') return text(entry.detail.why);
  if (entry.kind === 'intake') {
    const row = typeof entry.detail.row === 'number' ? `row ${entry.detail.row}` : null;
    const note = text(entry.detail.note);
    return [row, note ? `“${note}”` : null].filter((part) => part !== null).join(' · ') || null;
  }
  return null;
}

/** Confidence in words, for who reads no bars. */
export const sureness = (confidence: number): string => (confidence >= 0.9 ? 'sure' : confidence >= 0.6 ? 'fairly sure' : 'not sure');
