/** Everything that is kept, as plain rows. */
import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';
import { standardColumns } from '../../records/store/records';

export type PlainRow = Readonly<Record<string, unknown>>;

/** By the name of the file they become; heavy ones apart. */
export async function allTables(tx: Tx): Promise<Readonly<Record<string, readonly PlainRow[]>>> {
  const [people, companies, deals, applications, facts, barred] = await Promise.all([
    tx<
      PlainRow[]
    >`select p.id, ${tx(standardColumns('person').map((column) => `p.${column}`))}, c.name as company, u.email as owner, p.custom, p.created_at
      from person p left join company c on c.id = p.company_id left join app_user u on u.id = p.owner_id where p.merged_into is null order by p.created_at, p.id`,
    tx<
      PlainRow[]
    >`select id, ${tx(standardColumns('company'))}, custom, created_at from company where merged_into is null order by created_at, id`,
    tx<
      PlainRow[]
    >`select d.id, d.title, d.pipeline, d.stage, d.amount, c.name as company, p.name as person, u.email as owner, d.stage_since, d.custom, d.created_at
      from deal d left join company c on c.id = d.company_id left join person p on p.id = d.person_id left join app_user u on u.id = d.owner_id order by d.created_at, d.id`,
    tx<PlainRow[]>`select a.id, o.name as opening, p.name as person, a.stage, a.stage_since, a.custom, a.created_at
      from application a join opening o on o.id = a.opening_id join person p on p.id = a.person_id order by a.created_at, a.id`,
    tx<
      PlainRow[]
    >`select record_kind, record_id, field, value, source, source_ref, url, quote, confidence, observed_at from fact order by id`,
    tx<PlainRow[]>`select email, why, at from do_not_contact order by at`,
  ]);
  return { people, companies, deals, applications, facts, 'do-not-contact': barred };
}

/** What a workspace has made and named. */
export async function allMade(tx: Tx): Promise<Readonly<Record<string, readonly PlainRow[]>>> {
  const [library, fields, openings, holdRules, corrections] = await Promise.all([
    tx<PlainRow[]>`select kind, name, body, retired from library_item order by kind, name`,
    tx<PlainRow[]>`select record_kind, key, body from field order by record_kind, place`,
    tx<PlainRow[]>`select name, place, description, criteria, stages, is_open, custom from opening order by name`,
    tx<PlainRow[]>`select distinct on (mailbox) mailbox, no, rules, looked_at from hold_rules order by mailbox, no desc`,
    tx<PlainRow[]>`select words, kind, objection, was_kind, was_objection from reply_example order by at`,
  ]);
  return { library, fields, openings, 'hold-rules': holdRules, corrections };
}
export const allFlows = async (tx: Tx): Promise<{ readonly name: string; readonly draftText: string }[]> => [
  ...(await tx<{ name: string; draftText: string }[]>`select name, draft_text from flow order by name`),
];
export const allFiles = async (tx: Tx): Promise<{ readonly id: string; readonly name: string; readonly bytes: Uint8Array }[]> => [
  ...(await tx<{ id: string; name: string; bytes: Uint8Array }[]>`select id, name, bytes from stored_file order by created_at, id`),
];

export interface KeptMessage {
  readonly direction: 'in' | 'out';
  readonly subject: string;
  readonly body: string;
  readonly at: Instant;
  readonly fromAddress: string | null;
  readonly toAddress: string | null;
  readonly rfcId: string | null;
  readonly raw: Uint8Array | null;
}
/** What came and went; of some people only, or of all. */
export async function keptMessages(tx: Tx, ids: readonly string[] | null): Promise<KeptMessage[]> {
  return [
    ...(await tx<KeptMessage[]>`select direction, subject, body, at, from_address, to_address, rfc_id, raw from message
      where state in ('sent', 'received') ${ids === null ? tx`` : tx`and person_id = any(${[...ids]}::uuid[])`} order by at, id`),
  ];
}

/** What is kept of some people, by kind. */
export async function keptOf(tx: Tx, ids: readonly string[]): Promise<Readonly<Record<string, readonly PlainRow[]>>> {
  const people = [...ids];
  const [records, facts, happened, entries, applications, trips] = await Promise.all([
    tx<
      PlainRow[]
    >`select id, ${tx(standardColumns('person'))}, custom, merged_into, created_at from person where id = any(${people}::uuid[])`,
    tx<
      PlainRow[]
    >`select field, value, source, source_ref, url, quote, confidence, observed_at from fact where record_id = any(${people}::uuid[])
      or record_id in (select id from application where person_id = any(${people}::uuid[])) order by id`,
    tx<PlainRow[]>`select at, kind, says from timeline where record_id = any(${people}::uuid[]) order by at`,
    tx<
      PlainRow[]
    >`select e.received_at, i.name as intake, e.raw, e.answers from intake_entry e join intake i on i.id = e.intake_id where e.person_id = any(${people}::uuid[]) order by e.received_at`,
    tx<
      PlainRow[]
    >`select o.name as opening, a.stage, a.stage_since, a.custom, a.created_at from application a join opening o on o.id = a.opening_id where a.person_id = any(${people}::uuid[]) order by a.created_at`,
    tx<
      PlainRow[]
    >`select f.name as flow, t.state, t.created_at, t.ended_at from trip t join flow f on f.id = t.flow_id where t.person_id = any(${people}::uuid[]) and t.trial_id is null order by t.created_at`,
  ]);
  return { records, facts, happened, entries, applications, trips };
}
