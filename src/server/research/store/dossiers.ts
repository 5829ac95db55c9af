import type { Instant } from '../../../core/base';
import type { Tx } from '../../db';
import { assertHeld, type Lease } from '../../platform/store/lease';

export interface DossierRow {
  readonly id: string;
  readonly fence: number;
  readonly recordKind: 'person' | 'company';
  readonly recordId: string;
  readonly state: 'queued' | 'done' | 'failed';
  readonly step: string;
  readonly content: unknown;
  readonly pages: number;
  readonly costMicro: number;
  readonly tookMs: number;
  readonly afresh: boolean;
  readonly mailTo: string | null;
  readonly problem: string | null;
  readonly createdBy: string | null;
  readonly createdByName: string | null;
  readonly createdAt: Instant;
}

const columns = (tx: Tx) =>
  tx`d.id, d.record_kind, d.record_id, d.state, d.step, d.content, d.pages, d.cost_micro::float8 as cost_micro, d.took_ms, d.afresh, d.mail_to, d.problem, d.created_by, d.created_at, d.fence::float8 as fence`;

export async function insertDossier(
  tx: Tx,
  dossier: Pick<DossierRow, 'id' | 'recordKind' | 'recordId' | 'afresh' | 'mailTo' | 'createdBy'>,
  now: Instant,
): Promise<void> {
  await tx`insert into dossier (id, record_kind, record_id, afresh, mail_to, step, ask_at, created_by, created_at)
    values (${dossier.id}, ${dossier.recordKind}, ${dossier.recordId}, ${dossier.afresh}, ${dossier.mailTo}, 'waits for a worker', ${now}, ${dossier.createdBy}, ${now}) on conflict (id) do nothing`;
}

/** Takes a dossier that is due to be worked on; one that its worker left is taken again. */
export async function claimDossier(tx: Tx, now: Instant, leaseMs: number): Promise<DossierRow | undefined> {
  const [row] = await tx<
    DossierRow[]
  >`update dossier d set fence = d.fence + 1, lease_until = clock_timestamp() + make_interval(secs => ${leaseMs / 1000})
    where id = (select id from dossier where state = 'queued' and ask_at <= ${now} and (lease_until is null or lease_until < clock_timestamp()) order by ask_at limit 1 for update skip locked)
    returning ${columns(tx)}, null as created_by_name`;
  return row;
}

/** What is being done now; with a time, the work rests until then. Throws `LeaseLost` when somebody else makes it by now. */
export async function stepDossier(tx: Tx, lease: Lease, step: string, until: Instant | null, tookMs: number): Promise<void> {
  const rows =
    await tx`update dossier set step = ${step}, took_ms = took_ms + ${tookMs}, ask_at = coalesce(${until}, ask_at), lease_until = case when ${until}::timestamptz is null then lease_until end where id = ${lease.id} and fence = ${lease.fence}`;
  assertHeld(rows, 'a dossier');
}

export async function endDossier(
  tx: Tx,
  lease: Lease,
  end: {
    readonly state: 'done' | 'failed';
    readonly content: unknown;
    readonly pages: number;
    readonly costMicro: number;
    readonly tookMs: number;
    readonly problem: string | null;
  },
  now: Instant,
): Promise<void> {
  const rows =
    await tx`update dossier set state = ${end.state}, step = '', content = ${end.content === null ? null : tx.json(end.content as never)}, pages = ${end.pages}, cost_micro = cost_micro + ${end.costMicro},
    took_ms = took_ms + ${end.tookMs}, problem = ${end.problem}, ended_at = ${now}, lease_until = null where id = ${lease.id} and fence = ${lease.fence}`;
  assertHeld(rows, 'a dossier');
}

/** The newest dossiers of a record. */
export async function dossiersOf(tx: Tx, recordId: string, limit: number): Promise<DossierRow[]> {
  return [
    ...(await tx<
      DossierRow[]
    >`select ${columns(tx)}, u.name as created_by_name from dossier d left join app_user u on u.id = d.created_by where d.record_id = ${recordId} order by d.created_at desc, d.id limit ${limit}`),
  ];
}

export async function findDossier(tx: Tx, id: string): Promise<DossierRow | undefined> {
  const [row] = await tx<
    DossierRow[]
  >`select ${columns(tx)}, u.name as created_by_name from dossier d left join app_user u on u.id = d.created_by where d.id = ${id}`;
  return row;
}
