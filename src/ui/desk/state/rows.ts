import { clip, plural } from '../../../core/base';
import type { DeskView, TaskView, FirstView, NoticeView, PairView, ReplyView, ReviewView, StuckView, DoubtView } from './types';

/** One decision on the desk. Rows of one kind at one place are kept apart: each is one decision. */
export type DeskRow =
  | { readonly kind: 'doubt'; readonly id: string; readonly at: number; readonly doubt: DoubtView }
  | { readonly kind: 'reply'; readonly id: string; readonly at: number; readonly reply: ReplyView }
  | { readonly kind: 'pair'; readonly id: string; readonly at: number; readonly pair: PairView }
  | { readonly kind: 'review'; readonly id: string; readonly at: number; readonly review: ReviewView }
  | { readonly kind: 'task'; readonly id: string; readonly at: number; readonly task: TaskView }
  | { readonly kind: 'stuck'; readonly id: string; readonly at: number; readonly group: StuckView }
  | { readonly kind: 'first'; readonly id: string; readonly at: number; readonly first: FirstView }
  | { readonly kind: 'notice'; readonly id: string; readonly at: number; readonly notice: NoticeView };

/** What is urgent first: mail nobody knows of, people who answered, what is to be done today, pairs that hold trips, messages, stuck trips in groups. Oldest first within a kind. */
const URGENCY: Record<DeskRow['kind'], number> = { doubt: 0, reply: 1, task: 2, pair: 3, review: 4, stuck: 5, first: 6, notice: 7 };

export function deskRows(desk: DeskView): readonly DeskRow[] {
  const rows: DeskRow[] = [
    ...desk.doubts.map((doubt): DeskRow => ({ kind: 'doubt', id: doubt.id, at: doubt.startedAt ?? 0, doubt })),
    ...desk.replies.map((reply): DeskRow => ({ kind: 'reply', id: reply.id, at: reply.at, reply })),
    ...desk.pairs.map((pair): DeskRow => ({ kind: 'pair', id: pair.id, at: pair.createdAt, pair })),
    ...desk.reviews.map((review): DeskRow => ({ kind: 'review', id: review.id, at: review.createdAt, review })),
    // Tried again another day, it is another row.
    ...desk.tasks.map((task): DeskRow => ({ kind: 'task', id: `${task.id} ${task.attempts}`, at: task.dueAt, task })),
    ...desk.stuck.map((group): DeskRow => ({ kind: 'stuck', id: group.key, at: group.since, group })),
    ...desk.firsts.map((first): DeskRow => ({ kind: 'first', id: first.versionId, at: first.since, first })),
    ...desk.notices.map((notice): DeskRow => ({ kind: 'notice', id: notice.id, at: notice.at, notice })),
  ];
  return rows.sort(
    (a, b) => Number(isOthers(a)) - Number(isOthers(b)) || URGENCY[a.kind] - URGENCY[b.kind] || a.at - b.at || a.id.localeCompare(b.id),
  );
}

/** Asked of somebody else: to be taken over, not waiting for who looks. */
export const isOthers = (row: DeskRow): boolean =>
  (row.kind === 'review' && !row.review.whose.yours) ||
  (row.kind === 'reply' && row.reply.whose !== null && !row.reply.whose.yours) ||
  (row.kind === 'task' && row.task.whose !== null && !row.task.whose.yours);

const TASK_WORDS: Readonly<Record<TaskView['channel'], string>> = {
  call: 'Call',
  'profile note': 'Leave a note',
  letter: 'Send a letter',
};

const REPLY_WORDS: Readonly<Record<string, string>> = {
  interested: 'Wants to talk',
  objection: 'Objects',
  'not now': 'Not now',
  'wrong person': 'Wrong person',
  'moved job': 'Has moved on',
  'already customer': 'Is with us already',
  'meeting accepted': 'Takes the meeting',
  'meeting declined': 'Cannot come',
  question: 'Asks something',
  decline: 'Declines',
  angry: 'Is angry',
  thanks: 'Says thanks',
  unclear: 'Answered',
};

/** Title, whom it is about, and what is known in one line. */
export function sayRow(row: DeskRow): { readonly title: string; readonly about: string; readonly says: string } {
  switch (row.kind) {
    case 'doubt':
      return { title: 'Did this mail leave?', about: row.doubt.personName, says: row.doubt.says ?? 'nobody knows whether it was taken' };
    case 'reply':
      return {
        title: REPLY_WORDS[row.reply.reading?.kind ?? 'unclear'] ?? 'Answered',
        about: row.reply.personName ?? row.reply.fromAddress ?? '',
        says: `${heldSays(row.reply)}${clip(row.reply.reading?.quote ?? row.reply.body, 120)}`,
      };
    case 'pair':
      return {
        title: row.pair.kind === 'company' ? 'Same firm?' : 'Same person?',
        about: `${row.pair.aName} · ${row.pair.bName}`,
        says: pairSays(row.pair),
      };
    case 'review':
      return {
        title: 'First message',
        about: [row.review.personName, row.review.companyName].filter(Boolean).join(' · '),
        says: row.review.told ?? `${row.review.flowName} · ${askedSays(row.review)}`,
      };
    case 'task': {
      const { channel, personName, companyName, attempts, subject, ownerName, whose } = row.task;
      return {
        title: TASK_WORDS[channel],
        about: [personName, companyName].filter(Boolean).join(' · '),
        says: [
          subject,
          attempts > 0 ? `try ${attempts + 1}` : '',
          whose && !whose.yours ? `${ownerName ?? ''} does it` : whose?.standIn ? `you stand in for ${ownerName ?? ''}` : '',
        ]
          .filter((part) => part !== '')
          .join(' · '),
      };
    }
    case 'stuck':
      return {
        title: `${plural(row.group.count, 'trip')} ${row.group.held ? 'held' : 'stuck'}`,
        about: `${row.group.flowName} · ${row.group.line}`,
        says: row.group.why,
      };
    case 'first':
      return {
        title: `The first ${row.first.firstN} are on their way`,
        about: row.first.flowName,
        says: `${plural(row.first.held, 'record waits', 'records wait')} for your word`,
      };
    case 'notice':
      return {
        title: 'Told to you',
        about: [row.notice.flowName, row.notice.personName].filter(Boolean).join(' · '),
        says: clip(row.notice.text, 120),
      };
  }
}

/** “Tomasz has it · ”, or nothing where nobody in particular has */
const heldSays = ({ holder, whose }: ReplyView): string =>
  holder === null || whose === null
    ? ''
    : whose.yours
      ? whose.standIn
        ? `you stand in for ${holder} · `
        : 'handed to you · '
      : `${holder} has it · `;

/** “asked of north: Tomasz, Lucía” */
function askedSays({ who, whose }: ReviewView): string {
  if (whose.yours) return whose.standIn ? `you stand in for ${who}` : `for ${who}`;
  const people = whose.people.filter((name) => name !== who);
  return `asked of ${who}${people.length === 0 ? '' : whose.standIn ? `, ${people.join(', ')} in their place` : `: ${people.join(', ')}`}`;
}

function pairSays(pair: PairView): string {
  const of = (agrees: 'yes' | 'partly' | 'no') => pair.evidence.filter((entry) => entry.agrees === agrees).map((entry) => entry.field);
  const parts = [`${pair.confidence.toFixed(2)} same`];
  if (of('yes').length > 0) parts.push(`${of('yes').join(', ')} agree`);
  if (of('partly').length > 0) parts.push(`${of('partly').join(', ')} nearly`);
  if (of('no').length > 0) parts.push(`${of('no').join(', ')} differ`);
  return parts.join(' · ');
}

/** Half a minute for a message or a pair, a minute for the rest: what a person needs to read one. */
export function minutesOfWork(rows: readonly DeskRow[]): number {
  return Math.ceil(
    rows.filter((row) => !isOthers(row)).reduce((sum, row) => sum + (row.kind === 'review' || row.kind === 'pair' ? 0.5 : 1), 0),
  );
}

/** “3 things need a person · about 2 minutes · 1 message asked of others” */
export function sayOpen(rows: readonly DeskRow[]): string {
  const others = rows.filter(isOthers).length;
  const own = rows.length - others;
  const needs =
    own === 0
      ? 'nothing needs you'
      : `${own === 1 ? '1 thing needs' : `${own} things need`} a person · about ${plural(minutesOfWork(rows), 'minute')}`;
  if (others === 0) return own === 0 ? 'nothing needs a person' : needs;
  const what = rows.filter(isOthers).every((row) => row.kind === 'review') ? 'message' : 'thing';
  return `${needs} · ${plural(others, what)} asked of others`;
}
