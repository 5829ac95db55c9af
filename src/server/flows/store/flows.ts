import type { Instant } from '../../../core/base';
import { turnAfter } from '../../../core/teams';
import type { Tx } from '../../db';
import { teamsOn } from '../../access/store/people';

export interface FlowRow {
  readonly id: string;
  readonly name: string;
  readonly draftText: string;
  readonly draftNo: number;
  readonly liveVersionId: string | null;
  readonly liveNo: number | null;
  readonly liveSince: Instant | null;
  readonly pausedAt: Instant | null;
  readonly updatedAt: Instant;
}
export interface VersionRow {
  readonly id: string;
  readonly flowId: string;
  readonly no: number;
  readonly text: string;
  readonly library: unknown;
  readonly releasedAt: Instant;
  readonly releasedByName: string | null;
  /** so many begin, then a person is asked */
  readonly firstN: number | null;
  /** trips that may begin a day */
  readonly dailyLimit: number | null;
  readonly dayBudgetMicro: number | null;
  readonly startAt: Instant | null;
  /** what was expected when it was released */
  readonly forecast: unknown;
}
export type ReleaseLimits = Pick<VersionRow, 'firstN' | 'dailyLimit' | 'dayBudgetMicro' | 'startAt' | 'forecast'>;
export const NO_LIMITS: ReleaseLimits = { firstN: null, dailyLimit: null, dayBudgetMicro: null, startAt: null, forecast: null };

export async function listFlows(tx: Tx): Promise<FlowRow[]> {
  return [
    ...(await tx<
      FlowRow[]
    >`select f.id, f.name, f.draft_text, f.draft_no, f.live_version_id, v.no as live_no, v.released_at as live_since, f.paused_at, f.updated_at from flow f left join flow_version v on v.id = f.live_version_id order by f.created_at`),
  ];
}

export async function findFlow(tx: Tx, id: string): Promise<FlowRow | undefined> {
  const [row] = await tx<
    FlowRow[]
  >`select f.id, f.name, f.draft_text, f.draft_no, f.live_version_id, v.no as live_no, v.released_at as live_since, f.paused_at, f.updated_at from flow f left join flow_version v on v.id = f.live_version_id where f.id = ${id}`;
  return row;
}

export async function insertFlow(
  tx: Tx,
  flow: { readonly id: string; readonly name: string; readonly text: string },
  now: Instant,
): Promise<boolean> {
  const rows =
    await tx`insert into flow (id, name, draft_text, updated_at, created_at) values (${flow.id}, ${flow.name}, ${flow.text}, ${now}, ${now}) on conflict (name) do nothing returning id`;
  return rows.length > 0;
}

/** Saves the draft if it is still the one the writer began from; false when somebody else saved in between. */
export async function saveDraft(
  tx: Tx,
  flow: { readonly id: string; readonly name: string; readonly text: string; readonly base: number },
  now: Instant,
): Promise<number | undefined> {
  const [row] = await tx<
    { draftNo: number }[]
  >`update flow set draft_text = ${flow.text}, name = ${flow.name}, draft_no = draft_no + 1, updated_at = ${now} where id = ${flow.id} and draft_no = ${flow.base} returning draft_no`;
  return row?.draftNo;
}

/** Keeps a saved draft; of older ones the newest `keep`. */
export async function insertDraft(
  tx: Tx,
  draft: { readonly flowId: string; readonly no: number; readonly text: string; readonly userId: string | null; readonly keep: number },
  now: Instant,
): Promise<void> {
  await tx`insert into flow_draft (flow_id, no, text, saved_by, saved_at) values (${draft.flowId}, ${draft.no}, ${draft.text}, ${draft.userId}, ${now})`;
  await tx`delete from flow_draft where flow_id = ${draft.flowId} and no <= ${draft.no - draft.keep}`;
}

/** Texts of saved drafts, oldest first; the last one is the draft as it is. */
export async function draftTexts(tx: Tx, flowId: string): Promise<string[]> {
  return (await tx<{ text: string }[]>`select text from flow_draft where flow_id = ${flowId} order by no`).map((row) => row.text);
}

export async function flowNameTaken(tx: Tx, name: string, besides: string): Promise<boolean> {
  return (await tx`select 1 from flow where name = ${name} and id <> ${besides}`).length > 0;
}

export async function insertVersion(
  tx: Tx,
  version: {
    readonly id: string;
    readonly flowId: string;
    readonly text: string;
    readonly library: unknown;
    readonly userId: string | null;
    readonly limits?: ReleaseLimits;
  },
  now: Instant,
): Promise<number> {
  const limits = version.limits ?? NO_LIMITS;
  await tx`select 1 from flow where id = ${version.flowId} for update`;
  const [row] = await tx<
    { no: number }[]
  >`insert into flow_version (id, flow_id, no, text, library, released_by, released_at, first_n, daily_limit, day_budget_micro, start_at, forecast)
    select ${version.id}, ${version.flowId}, coalesce(max(no), 0) + 1, ${version.text}, ${tx.json(version.library as never)}, ${version.userId}, ${now}, ${limits.firstN}, ${limits.dailyLimit}, ${limits.dayBudgetMicro}, ${limits.startAt}, ${limits.forecast === null ? null : tx.json(limits.forecast as never)} from flow_version where flow_id = ${version.flowId} returning no`;
  await tx`update flow set live_version_id = ${version.id} where id = ${version.flowId}`;
  return row?.no ?? 1;
}

export async function versionsOf(tx: Tx, ids: readonly string[]): Promise<VersionRow[]> {
  return [
    ...(await tx<
      VersionRow[]
    >`select v.id, v.flow_id, v.no, v.text, v.library, v.released_at, v.first_n, v.daily_limit, v.day_budget_micro, v.start_at, v.forecast, u.name as released_by_name from flow_version v left join app_user u on u.id = v.released_by where v.id = any(${[...ids]})`),
  ];
}

export async function flowVersions(tx: Tx, flowId: string): Promise<VersionRow[]> {
  return [
    ...(await tx<
      VersionRow[]
    >`select v.id, v.flow_id, v.no, v.text, v.library, v.released_at, v.first_n, v.daily_limit, v.day_budget_micro, v.start_at, v.forecast, u.name as released_by_name from flow_version v left join app_user u on u.id = v.released_by where v.flow_id = ${flowId} order by v.no desc`),
  ];
}

export interface TrialRow {
  readonly id: string;
  readonly flowId: string;
  readonly text: string;
  readonly library: unknown;
  readonly createdAt: Instant;
  readonly limitMicro: number;
  /** nothing is answered from earlier trials */
  readonly afresh: boolean;
}
export async function insertTrial(
  tx: Tx,
  trial: Omit<TrialRow, 'createdAt'> & { readonly userId: string | null },
  now: Instant,
): Promise<void> {
  await tx`insert into trial (id, flow_id, text, library, limit_micro, afresh, created_by, created_at) values (${trial.id}, ${trial.flowId}, ${trial.text}, ${tx.json(trial.library as never)}, ${trial.limitMicro}, ${trial.afresh}, ${trial.userId}, ${now})`;
}

export async function trialsOf(tx: Tx, ids: readonly string[]): Promise<TrialRow[]> {
  return [
    ...(await tx<TrialRow[]>`select id, flow_id, text, library, limit_micro, afresh, created_at from trial where id = any(${[...ids]})`),
  ];
}

export async function lastTrials(tx: Tx, flowId: string, limit: number): Promise<TrialRow[]> {
  return [
    ...(await tx<
      TrialRow[]
    >`select id, flow_id, text, library, limit_micro, afresh, created_at from trial where flow_id = ${flowId} order by created_at desc, id desc limit ${limit}`),
  ];
}

/** What an earlier trial of the flow has read under this key since then. */
export async function trialReading(
  tx: Tx,
  ask: { readonly flowId: string; readonly key: string; readonly since: Instant },
): Promise<{ readonly answer: unknown; readonly readAt: Instant } | undefined> {
  const [row] = await tx<
    { answer: unknown; readAt: Instant }[]
  >`select answer, read_at from trial_reading where flow_id = ${ask.flowId} and key = ${ask.key} and read_at >= ${ask.since}`;
  return row;
}

export async function putTrialReading(
  tx: Tx,
  reading: { readonly flowId: string; readonly key: string; readonly answer: unknown },
  now: Instant,
): Promise<void> {
  await tx`insert into trial_reading (flow_id, key, answer, read_at) values (${reading.flowId}, ${reading.key}, ${tx.json(reading.answer as never)}, ${now})
    on conflict (flow_id, key) do update set answer = excluded.answer, read_at = excluded.read_at`;
}

/** What an intake is to flows; its own versions are kept where it is. */
export async function putLibrary(tx: Tx, kind: 'intake', name: string, body: unknown): Promise<void> {
  await tx`insert into library_item (kind, name, body) values (${kind}, ${name}, ${tx.json(body as never)}) on conflict (kind, name) do update set body = excluded.body`;
}

/** Named things that flows may use: retired ones are not among them. */
export async function listLibrary(
  tx: Tx,
): Promise<{ readonly id: string; readonly kind: string; readonly name: string; readonly body: unknown }[]> {
  return [
    ...(await tx<
      { id: string; kind: string; name: string; body: unknown }[]
    >`select id, kind, name, body from library_item where not retired order by kind, name`),
  ];
}

export async function listTeams(tx: Tx): Promise<{ readonly name: string; readonly members: readonly string[] }[]> {
  return [
    ...(await tx<
      { name: string; members: string[] }[]
    >`select t.name, coalesce(array_agg(m.user_id::text order by m.position) filter (where m.user_id is not null), '{}') as members from team t left join team_member m on m.team = t.name group by t.name order by t.name`),
  ];
}

export async function putTeam(tx: Tx, name: string, members: readonly { readonly id: string; readonly weight: number }[]): Promise<void> {
  await tx`insert into team (name) values (${name}) on conflict do nothing`;
  await tx`delete from team_member where team = ${name}`;
  await tx`insert into team_member (team, user_id, position, weight)
    select ${name}, m.id::uuid, m.n, m.weight from unnest(${members.map((member) => member.id)}::text[], ${members.map((member) => member.weight)}::int[]) with ordinality as m(id, weight, n)`;
}

/** Whose turn it is on that day; who is away is passed by. Fair when many ask at once: who finds the turn taken looks again. */
export async function takeTurn(tx: Tx, name: string, today: string): Promise<{ readonly id: string; readonly name: string } | undefined> {
  for (;;) {
    const [team] = await teamsOn(tx, today, name);
    const turn = team && turnAfter(team.members, team.turn);
    if (!team || !turn) return undefined;
    const taken = await tx`update team set turn = turn + ${turn.used} where name = ${name} and turn = ${team.turn}`;
    if (taken.count > 0) return { id: turn.member.id, name: turn.member.name };
  }
}

/** When a flow's clock next strikes; null takes it away. */
export async function putFlowClock(tx: Tx, flowId: string, at: Instant | null): Promise<void> {
  if (at === null) await tx`delete from flow_clock where flow_id = ${flowId}`;
  else
    await tx`insert into flow_clock (flow_id, next_at) values (${flowId}, ${at}) on conflict (flow_id) do update set next_at = excluded.next_at`;
}
/** Clocks that have struck, each held by one worker until its transaction ends. */
export async function claimFlowClocks(tx: Tx, now: Instant): Promise<{ readonly flowId: string; readonly versionId: string }[]> {
  return [
    ...(await tx<
      { flowId: string; versionId: string }[]
    >`select k.flow_id, f.live_version_id as version_id from flow_clock k join flow f on f.id = k.flow_id where k.next_at <= ${now} and f.live_version_id is not null order by k.next_at for update of k skip locked`),
  ];
}
export async function nextFlowClock(tx: Tx, after: Instant): Promise<Instant | null> {
  const [row] = await tx<{ at: Instant | null }[]>`select min(next_at) as at from flow_clock where next_at > ${after}`;
  return row?.at ?? null;
}
