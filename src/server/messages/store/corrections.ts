import type { Instant } from '../../../core/base';
import type { Objection, ReplyExample, ReplyKind, ReplyReading } from '../../../core/reply';
import type { Tx } from '../../db';

export interface ExampleRow {
  readonly messageId: string;
  readonly threadId: string | null;
  readonly words: string;
  readonly kind: ReplyKind;
  readonly objection: Objection | null;
  readonly wasKind: ReplyKind;
  readonly wasObjection: Objection | null;
  readonly personName: string | null;
  readonly madeBy: string | null;
  readonly at: Instant;
  /** mails that were understood by it since */
  readonly used: number;
}
/** So many, the newest, are read by. */
const MOST = 500;
/** What people have corrected, the newest first, as the reader takes it. */
export async function examplesToReadBy(tx: Tx): Promise<ReplyExample[]> {
  return [...(await tx<ReplyExample[]>`select message_id as id, words, kind, objection from reply_example order by at desc limit ${MOST}`)];
}
/** What people have corrected, the newest first, and how often it was read by since. */
export async function replyExamples(tx: Tx): Promise<ExampleRow[]> {
  return [
    ...(await tx<ExampleRow[]>`
    select e.message_id, m.thread_id, e.words, e.kind, e.objection, e.was_kind, e.was_objection, p.name as person_name, u.name as made_by, e.at,
      (select count(*)::int from message x where x.reading ->> 'taughtBy' = e.message_id::text) as used
    from reply_example e join message m on m.id = e.message_id left join person p on p.id = m.person_id left join app_user u on u.id = e.made_by
    order by e.at desc limit ${MOST}`),
  ];
}
export async function putExample(
  tx: Tx,
  example: Pick<ExampleRow, 'messageId' | 'words' | 'kind' | 'objection' | 'wasKind' | 'wasObjection'> & { readonly userId: string | null },
  now: Instant,
): Promise<void> {
  const { messageId, words, kind, objection, wasKind, wasObjection, userId } = example;
  await tx`insert into reply_example (message_id, words, kind, objection, was_kind, was_objection, made_by, at)
    values (${messageId}, ${words}, ${kind}, ${objection}, ${wasKind}, ${wasObjection}, ${userId}, ${now})
    on conflict (message_id) do update set words = excluded.words, kind = excluded.kind, objection = excluded.objection, made_by = excluded.made_by, at = excluded.at`;
}
/** Forgets one; whether there was one. */
export async function dropExample(tx: Tx, messageId: string): Promise<boolean> {
  return (await tx`delete from reply_example where message_id = ${messageId} returning 1`).length > 0;
}
export async function setReading(tx: Tx, messageId: string, reading: ReplyReading): Promise<void> {
  await tx`update message set reading = ${tx.json(reading as never)} where id = ${messageId}`;
}

export interface ReadMail {
  readonly id: string;
  readonly threadId: string | null;
  readonly personName: string | null;
  readonly subject: string;
  readonly body: string;
  readonly reading: ReplyReading;
  readonly at: Instant;
}
/** The last mails that came and were understood, but for one. */
export async function lastRead(tx: Tx, but: string, limit: number): Promise<ReadMail[]> {
  return [
    ...(await tx<ReadMail[]>`
    select m.id, m.thread_id, p.name as person_name, m.subject, m.body, m.reading, m.at from message m left join person p on p.id = m.person_id
    where m.direction = 'in' and m.state = 'received' and m.reading is not null and m.id <> ${but} order by m.at desc limit ${limit}`),
  ];
}
