import type { Instant } from '../../../core/base';
import type { HandChannel } from '../../../core/writer';
import type { Tx } from '../../db';
import { isBarred } from './do-not-contact';

/** A touch that a person does. */
export interface TaskRow {
  readonly id: string;
  readonly messageId: string;
  readonly personId: string;
  readonly personName: string;
  readonly companyName: string | null;
  readonly threadId: string | null;
  readonly tripId: string | null;
  readonly flowId: string | null;
  readonly flowName: string | null;
  readonly channel: HandChannel;
  readonly subject: string;
  readonly body: string;
  readonly onlyWhen: string | null;
  readonly dueAt: Instant;
  /** tries so far */
  readonly attempts: number;
  /** whose record it is; null: nobody's */
  readonly ownerName: string | null;
}

const taskRows = (tx: Tx, where: ReturnType<Tx>) => tx<TaskRow[]>`
  select e.id, e.message_id, e.person_id, p.name as person_name, c.name as company_name, m.thread_id, e.trip_id, f.id as flow_id, f.name as flow_name,
    m.channel, m.subject, m.body, m.only_when, e.due_at, e.attempts, u.name as owner_name
  from effect e join message m on m.id = e.message_id join person p on p.id = e.person_id
    left join company c on c.id = p.company_id left join app_user u on u.id = p.owner_id
    left join trip t on t.id = e.trip_id left join flow f on f.id = t.flow_id
  where e.kind = 'task' and ${where}`;

/** Tasks that are laid out: due, looked at, and waiting for a person. */
export async function openTasks(tx: Tx): Promise<TaskRow[]> {
  return [
    ...(await taskRows(
      tx,
      tx`e.state = 'planned' and e.started_at is not null and f.paused_at is null and not ${isBarred(tx)} order by e.due_at, e.id limit 200`,
    )),
  ];
}
/** The same, counted by whose they are. */
export async function openTasksByOwner(tx: Tx): Promise<{ readonly owner: string | null; readonly count: number }[]> {
  return [
    ...(await tx<{ owner: string | null; count: number }[]>`
      select u.name as owner, count(*)::int as count from effect e join person p on p.id = e.person_id left join app_user u on u.id = p.owner_id
        left join trip t on t.id = e.trip_id left join flow f on f.id = t.flow_id
      where e.kind = 'task' and e.state = 'planned' and e.started_at is not null and f.paused_at is null and not ${isBarred(tx)} group by u.name`),
  ];
}

/** Due tasks that are to be looked at: those nobody has laid out, and those of people who are barred since; locked until the transaction ends. */
export async function dueTasks(tx: Tx, now: Instant, limit: number): Promise<TaskRow[]> {
  return [
    ...(await taskRows(
      tx,
      tx`e.state = 'planned' and e.due_at <= ${now} and (e.started_at is null or ${isBarred(tx)}) and f.paused_at is null order by e.due_at limit ${limit} for update of e skip locked`,
    )),
  ];
}

export async function findTask(tx: Tx, id: string): Promise<TaskRow | undefined> {
  const [row] = await taskRows(tx, tx`e.id = ${id}`);
  return row;
}

/** An open task, locked until the transaction ends; undefined when it is done or dropped. */
export async function lockTask(tx: Tx, id: string): Promise<TaskRow | undefined> {
  const [row] = await taskRows(tx, tx`e.id = ${id} and e.state = 'planned' for update of e`);
  return row;
}

/** How many tasks of the same kind the same person has been given since then; tasks of nobody count together. */
export async function laidOutSince(tx: Tx, task: Pick<TaskRow, 'channel' | 'ownerName'>, since: Instant): Promise<number> {
  const [row] = await tx<{ n: number }[]>`
    select count(*)::int as n from effect e join message m on m.id = e.message_id join person p on p.id = e.person_id left join app_user u on u.id = p.owner_id
    where e.kind = 'task' and e.started_at >= ${since} and m.channel = ${task.channel} and u.name is not distinct from ${task.ownerName}`;
  return row?.n ?? 0;
}

export async function layOut(tx: Tx, id: string, now: Instant): Promise<void> {
  await tx`update effect set started_at = ${now} where id = ${id} and state = 'planned'`;
}

/** Ends a task, with what came of it. */
export async function settleTask(
  tx: Tx,
  id: string,
  to: { readonly state: 'done' | 'failed' | 'dropped'; readonly says: string },
  now: Instant,
): Promise<void> {
  await tx`update effect set state = ${to.state}, says = ${to.says}, attempts = attempts + ${to.state === 'dropped' ? 0 : 1}, ended_at = ${now} where id = ${id} and state = 'planned'`;
}

/** Tried without anybody being reached: laid out again when it is due then. */
export async function tryAgain(tx: Tx, id: string, says: string, dueAt: Instant): Promise<void> {
  await tx`update effect set says = ${says}, attempts = attempts + 1, due_at = ${dueAt}, started_at = null where id = ${id} and state = 'planned'`;
}

/** How often each was done in a conversation: what a touch's condition may look at. */
export async function doneInThread(
  tx: Tx,
  threadId: string,
): Promise<{ readonly mails: number; readonly calls: number; readonly talked: number }> {
  const [row] = await tx<{ mails: number; calls: number; talked: number }[]>`
    select count(*) filter (where m.channel = 'e-mail')::int as mails, count(*) filter (where m.channel = 'call')::int as calls,
      count(*) filter (where m.channel = 'call' and e.says like 'talked%')::int as talked
    from message m join effect e on e.message_id = m.id and e.kind in ('send', 'task') and e.state = 'done' where m.thread_id = ${threadId}`;
  return row ?? { mails: 0, calls: 0, talked: 0 };
}
