import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';

/** A named thing as it is kept now. */
export interface ThingRow {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  readonly body: unknown;
  /** of its versions, the present one */
  readonly no: number;
  readonly retired: boolean;
  readonly savedAt: Instant | null;
  readonly savedBy: string | null;
}
export interface ThingVersionRow {
  readonly no: number;
  readonly body: unknown;
  readonly says: string;
  readonly savedAt: Instant | null;
  readonly savedBy: string | null;
}
interface Saved {
  readonly says: string;
  readonly userId: string | null;
  readonly at: Instant | null;
}

const selected = (tx: Tx) => tx`select i.id, i.kind, i.name, i.body, i.no, i.retired, v.saved_at, u.name as saved_by from library_item i
  left join library_version v on v.item_id = i.id and v.no = i.no left join app_user u on u.id = v.saved_by`;

export async function listThings(tx: Tx, kind: string): Promise<ThingRow[]> {
  return [...(await tx<ThingRow[]>`${selected(tx)} where i.kind = ${kind} order by i.retired, i.name`)];
}
export async function findThing(tx: Tx, id: string): Promise<ThingRow | undefined> {
  const [row] = await tx<ThingRow[]>`${selected(tx)} where i.id = ${id}`;
  return row;
}
export async function thingVersions(tx: Tx, id: string, limit: number): Promise<ThingVersionRow[]> {
  return [
    ...(await tx<ThingVersionRow[]>`select v.no, v.body, v.says, v.saved_at, u.name as saved_by from library_version v
      left join app_user u on u.id = v.saved_by where v.item_id = ${id} order by v.no desc limit ${limit}`),
  ];
}

/** False when there is one of this kind and name: it is left as it is. */
export async function insertThing(
  tx: Tx,
  thing: { readonly id: string; readonly kind: string; readonly name: string; readonly body: unknown },
  saved: Saved,
): Promise<boolean> {
  const made =
    await tx`insert into library_item (id, kind, name, body) values (${thing.id}, ${thing.kind}, ${thing.name}, ${tx.json(thing.body as never)})
    on conflict do nothing returning id`;
  if (made.length > 0) await insertVersion(tx, thing.id, 1, thing.body, saved);
  return made.length > 0;
}

/** A new version over the one somebody began from; undefined when there is a newer one. */
export async function keepThing(
  tx: Tx,
  thing: { readonly id: string; readonly name: string; readonly body: unknown; readonly base: number },
  saved: Saved,
): Promise<number | undefined> {
  const [row] = await tx<
    { no: number }[]
  >`update library_item set body = ${tx.json(thing.body as never)}, name = ${thing.name}, no = no + 1 where id = ${thing.id} and no = ${thing.base} returning no`;
  if (row) await insertVersion(tx, thing.id, row.no, thing.body, saved);
  return row?.no;
}

/** A thing that came with a flow or a workspace: made, or a new version of the one of its name. */
export async function putThing(
  tx: Tx,
  thing: { readonly id: string; readonly kind: string; readonly name: string; readonly body: unknown },
  saved: Saved,
): Promise<void> {
  const [row] = await tx<
    { id: string; no: number }[]
  >`insert into library_item (id, kind, name, body) values (${thing.id}, ${thing.kind}, ${thing.name}, ${tx.json(thing.body as never)})
    on conflict (kind, name) do update set body = excluded.body, no = library_item.no + 1, retired = false returning id, no`;
  if (row) await insertVersion(tx, row.id, row.no, thing.body, saved);
}

async function insertVersion(tx: Tx, id: string, no: number, body: unknown, { says, userId, at }: Saved): Promise<void> {
  await tx`insert into library_version (item_id, no, body, says, saved_by, saved_at) values (${id}, ${no}, ${tx.json(body as never)}, ${says}, ${userId}, ${at})`;
}
export async function retireThing(tx: Tx, id: string, retired: boolean): Promise<void> {
  await tx`update library_item set retired = ${retired} where id = ${id}`;
}
export async function thingNameTaken(tx: Tx, kind: string, name: string, except: string): Promise<boolean> {
  return (await tx`select 1 from library_item where kind = ${kind} and name = ${name} and id <> ${except}`).length > 0;
}

/** Companies or people as conditions see them, a sample that is the same every time: by the digest of their ids. */
export async function sampleViews(
  tx: Tx,
  kind: 'person' | 'company',
  limit: number,
): Promise<{ readonly id: string; readonly name: string; readonly person: object; readonly company: object | null }[]> {
  return kind === 'company'
    ? [
        ...(await tx<{ id: string; name: string; person: object; company: object }[]>`
          select c.id, c.name, '{}'::jsonb as person, c.custom || (to_jsonb(c) - '{match_keys,custom,merged_into,created_at}'::text[]) as company
          from company c where c.merged_into is null order by md5(c.id::text) limit ${limit}`),
      ]
    : [
        ...(await tx<{ id: string; name: string; person: object; company: object | null }[]>`
          select p.id, p.name, p.custom || (to_jsonb(p) - '{match_keys,custom,merged_into,company_id,owner_id,created_at}'::text[]) as person,
            case when c.id is null then null else c.custom || (to_jsonb(c) - '{match_keys,custom,merged_into,created_at}'::text[]) end as company
          from person p left join company c on c.id = p.company_id where p.merged_into is null order by md5(p.id::text) limit ${limit}`),
      ];
}

/** People who could be written to, in an order that is the same every time. */
export async function sampleReaders(tx: Tx, limit: number): Promise<{ readonly id: string; readonly companyId: string | null }[]> {
  return [
    ...(await tx<{ id: string; companyId: string | null }[]>`select id, company_id from person
      where merged_into is null and email is not null and email <> '' order by md5(id::text) limit ${limit}`),
  ];
}
