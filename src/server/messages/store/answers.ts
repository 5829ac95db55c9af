import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export interface AnswerUse {
  readonly messageId: string;
  readonly itemId: string;
  readonly no: number;
  readonly about: string;
}
export async function insertAnswerUses(tx: Tx, uses: readonly AnswerUse[], now: Instant): Promise<void> {
  for (const use of uses)
    await tx`insert into answer_use (message_id, item_id, no, about, at) values (${use.messageId}, ${use.itemId}, ${use.no}, ${use.about}, ${now}) on conflict do nothing`;
}

/** Words that may not be said in a message that is made of agreed answers. */
export async function notSayIn(tx: Tx, messageId: string): Promise<readonly string[]> {
  const rows = await tx<{ words: string }[]>`
    select distinct w.words from answer_use u join library_item i on i.id = u.item_id cross join lateral jsonb_array_elements_text(coalesce(i.body -> 'notSay', '[]')) w(words)
    where u.message_id = ${messageId}`;
  return rows.map(({ words }) => words);
}

export interface AnswerCount {
  readonly itemId: string;
  /** answers that left with it */
  readonly used: number;
  /** of these, how many led on: they were interested or came to a meeting, or a deal of theirs moved, within sixty days */
  readonly led: number;
}
const LED_KINDS = ['interested', 'meeting accepted'];
export async function answerCounts(tx: Tx): Promise<AnswerCount[]> {
  return [
    ...(await tx<AnswerCount[]>`
    select u.item_id, count(*)::int as used, count(*) filter (where led.on_)::int as led
    from answer_use u join message m on m.id = u.message_id and m.state = 'sent'
      cross join lateral (select exists (select from message r where r.thread_id = m.thread_id and r.direction = 'in' and r.at > m.at and r.at < m.at + interval '60 days'
          and r.reading ->> 'kind' = any(${LED_KINDS}))
        or exists (select from deal d where d.person_id = m.person_id and d.stage_since > m.at and d.stage_since < m.at + interval '60 days') as on_) led
    group by u.item_id`),
  ];
}

export interface AnsweredRow {
  readonly messageId: string;
  readonly threadId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly at: Instant;
  /** what they had written */
  readonly theirs: string | null;
  /** what came after it, if anything did */
  readonly then: string | null;
}
/** The last answers that left with an agreed one. */
export async function answeredWith(tx: Tx, itemId: string, limit: number): Promise<AnsweredRow[]> {
  return [
    ...(await tx<AnsweredRow[]>`
    select m.id as message_id, m.thread_id, p.name as person_name, c.name as company_name, m.at,
      (select coalesce(i.reading ->> 'quote', left(i.body, 200)) from message i where i.thread_id = m.thread_id and i.direction = 'in' and i.at <= m.at order by i.at desc limit 1) as theirs,
      (select r.reading ->> 'kind' from message r where r.thread_id = m.thread_id and r.direction = 'in' and r.at > m.at order by r.at limit 1) as then
    from answer_use u join message m on m.id = u.message_id and m.state = 'sent' join person p on p.id = m.person_id left join company c on c.id = p.company_id
    where u.item_id = ${itemId} order by m.at desc limit ${limit}`),
  ];
}

export async function insertQuestions(
  tx: Tx,
  messageId: string,
  personId: string | null,
  words: readonly string[],
  now: Instant,
): Promise<void> {
  for (const asked of words)
    await tx`insert into asked_question (message_id, words, person_id, at) values (${messageId}, ${asked}, ${personId}, ${now}) on conflict do nothing`;
}
export interface AskedRow {
  readonly messageId: string;
  readonly threadId: string | null;
  readonly words: string;
  readonly personName: string | null;
  readonly companyName: string | null;
  readonly at: Instant;
}
/** What was asked since then, newest first. */
export async function askedSince(tx: Tx, since: Instant, limit: number): Promise<AskedRow[]> {
  return [
    ...(await tx<AskedRow[]>`
    select q.message_id, m.thread_id, q.words, p.name as person_name, c.name as company_name, q.at
    from asked_question q join message m on m.id = q.message_id left join person p on p.id = q.person_id left join company c on c.id = p.company_id
    where q.at >= ${since} order by q.at desc limit ${limit}`),
  ];
}
