import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

export interface HoldRulesRow {
  readonly mailbox: string;
  readonly no: number;
  readonly rules: string;
  readonly lookedAt: number;
  readonly savedBy: string | null;
  readonly savedAt: Instant;
}
const rulesRows = (tx: Tx, where: ReturnType<Tx>) => tx<HoldRulesRow[]>`
  select r.mailbox, r.no, r.rules, r.looked_at, u.name as saved_by, r.saved_at from hold_rules r left join app_user u on u.id = r.saved_by ${where}`;
/** The rules of a mailbox as they stand; undefined: nobody has written any. */
export async function holdRulesOf(tx: Tx, mailbox: string): Promise<HoldRulesRow | undefined> {
  const [row] = await rulesRows(tx, tx`where r.mailbox = ${mailbox} order by r.no desc limit 1`);
  return row;
}
/** The versions of a mailbox's rules, newest first. */
export async function holdRulesVersions(tx: Tx, mailbox: string, limit: number): Promise<HoldRulesRow[]> {
  return [...(await rulesRows(tx, tx`where r.mailbox = ${mailbox} order by r.no desc limit ${limit}`))];
}
/** Keeps a new version; its number. */
export async function insertHoldRules(
  tx: Tx,
  rules: { readonly mailbox: string; readonly rules: string; readonly lookedAt: number; readonly userId: string | null },
  now: Instant,
): Promise<number> {
  const [row] = await tx<{ no: number }[]>`
    insert into hold_rules (mailbox, no, rules, looked_at, saved_by, saved_at)
    select ${rules.mailbox}, coalesce(max(no), 0) + 1, ${rules.rules}, ${rules.lookedAt}, ${rules.userId}, ${now} from hold_rules where mailbox = ${rules.mailbox}
    returning no`;
  return row?.no ?? 1;
}

export interface DecisionRow {
  readonly messageId: string;
  readonly mailbox: string;
  readonly does: 'hold' | 'send';
  readonly no: number | null;
  readonly line: number | null;
  readonly says: string;
  readonly couldGo: boolean;
  readonly lookedAt: boolean;
  readonly kind: string;
  readonly objection: string | null;
  readonly at: Instant;
  readonly answerId: string | null;
  readonly outcome: Outcome | null;
}
/** What a person made of a draft: sent as it stood, in other words, with another agreed answer, not at all; or what had gone alone was taken back. */
export type Outcome = 'unchanged' | 'changed' | 'other' | 'none' | 'taken back';

/** Keeps a decision; false when there is one on this message already. */
export async function insertDecision(tx: Tx, decision: Omit<DecisionRow, 'outcome'>): Promise<boolean> {
  const rows = await tx`
    insert into reply_decision (message_id, mailbox, does, no, line, says, could_go, looked_at, kind, objection, at, answer_id)
    values (${decision.messageId}, ${decision.mailbox}, ${decision.does}, ${decision.no}, ${decision.line}, ${decision.says}, ${decision.couldGo}, ${decision.lookedAt}, ${decision.kind}, ${decision.objection}, ${decision.at}, ${decision.answerId})
    on conflict do nothing returning 1`;
  return rows.length > 0;
}
export async function setDecisionAnswer(tx: Tx, messageId: string, answerId: string): Promise<void> {
  await tx`update reply_decision set answer_id = ${answerId} where message_id = ${messageId}`;
}
export async function settleDecision(
  tx: Tx,
  messageId: string,
  settled: { readonly outcome: Outcome; readonly answerId: string | null; readonly userId: string | null },
  now: Instant,
): Promise<void> {
  await tx`update reply_decision set outcome = ${settled.outcome}, answer_id = ${settled.answerId}, decided_by = ${settled.userId}, decided_at = ${now} where message_id = ${messageId}`;
}
export async function decisionOn(tx: Tx, messageId: string): Promise<DecisionRow | undefined> {
  const [row] = await tx<
    DecisionRow[]
  >`select message_id, mailbox, does, no, line, says, could_go, looked_at, kind, objection, at, answer_id, outcome from reply_decision where message_id = ${messageId}`;
  return row;
}
/** As if nobody had decided it. */
export async function unsettleDecision(tx: Tx, messageId: string): Promise<void> {
  await tx`update reply_decision set outcome = null, answer_id = null, decided_by = null, decided_at = null, does = 'hold' where message_id = ${messageId}`;
}

/** How many drafts of a mailbox a person has decided. */
export async function decidedByPeople(tx: Tx, mailbox: string): Promise<number> {
  const [row] = await tx<
    { n: number }[]
  >`select count(*)::int as n from reply_decision where mailbox = ${mailbox} and decided_by is not null`;
  return row?.n ?? 0;
}

export interface AgreementRow {
  readonly kind: string;
  readonly objection: string | null;
  readonly decided: number;
  readonly unchanged: number;
  /** went alone and was not taken back */
  readonly alone: number;
}
/** What people made of drafts that could have gone alone, by what was answered: of the last so many of each. */
export async function agreementRows(tx: Tx, mailbox: string, last: number): Promise<AgreementRow[]> {
  return [
    ...(await tx<AgreementRow[]>`
    select kind, objection, count(*) filter (where outcome is not null)::int as decided, count(*) filter (where outcome = 'unchanged')::int as unchanged,
      count(*) filter (where outcome is null)::int as alone
    from (select kind, objection, outcome, row_number() over (partition by kind, objection, outcome is null order by coalesce(decided_at, at) desc) as n
      from reply_decision where mailbox = ${mailbox} and could_go and (outcome is not null or does = 'send')) d
    where n <= ${last} group by kind, objection order by 3 desc, 1, 2`),
  ];
}

export interface UndecidedRow {
  readonly messageId: string;
  readonly threadId: string;
}
/** What came into conversations and no rule has looked at yet, the oldest first. */
export async function undecided(tx: Tx, limit: number): Promise<UndecidedRow[]> {
  return [
    ...(await tx<UndecidedRow[]>`
    select m.id as message_id, m.thread_id from message m join thread h on h.id = m.thread_id
    where m.state = 'received' and m.handled_at is null and h.state <> 'ended' and not exists (select from reply_decision d where d.message_id = m.id) order by m.at limit ${limit}`),
  ];
}
/** The last mails to a mailbox that wanted an answer, newest first. */
export async function lastWanting(tx: Tx, mailbox: string, kinds: readonly string[], limit: number): Promise<UndecidedRow[]> {
  return [
    ...(await tx<UndecidedRow[]>`
    select m.id as message_id, m.thread_id from message m join thread h on h.id = m.thread_id
    where h.mailbox = ${mailbox} and m.direction = 'in' and m.reading ->> 'kind' = any(${[...kinds]}) order by m.at desc limit ${limit}`),
  ];
}
export async function unhandleMessage(tx: Tx, id: string): Promise<void> {
  await tx`update message set handled_at = null where id = ${id}`;
}
/** A mail that was corrected is decided anew, unless a person has decided it. */
export async function dropDecision(tx: Tx, messageId: string): Promise<void> {
  await tx`delete from reply_decision where message_id = ${messageId} and outcome is null`;
}
