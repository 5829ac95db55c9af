import { DateTime } from 'luxon';
import { openSends, providerFigures, sendsByHour, type ProviderFigures, type SendDay } from '../messages/store/effects';
import {
  answersSince,
  findThread,
  listThreads,
  messagesOfThread,
  pageMessages,
  type MessageRow,
  type ThreadRow,
} from '../messages/store/messages';
import { listMailboxes } from '../messages/store/mailboxes';
import { journalOf, type StoredEntry } from '../trips/store/trips';
import { countStates, listTrips, type TripListRow } from '../trips/store/trip-lists';
import { dayKey, limitOn } from '../../core/calendar';
import { versionsOf } from '../flows/store/flows';
import { decidedPairs, openPairs } from './store/reviews';
import { madeSince } from '../records/store/records';
import type { Page } from '../records/records';
import { found, readCursor, workspace, writeCursor, type World } from '../platform/world';

const DAY_MS = 86_400_000;

export interface TodaysSends {
  readonly hours: readonly SendDay[];
  readonly from: number;
  readonly zone: string;
  readonly limit: number;
}
export async function todaysSends(world: World): Promise<TodaysSends> {
  const { zone } = await workspace(world.db);
  const now = await world.clock.now();
  const day = DateTime.fromMillis(now, { zone }).startOf('day');
  const [hours, boxes] = await Promise.all([
    sendsByHour(world.db, day.toMillis(), day.plus({ days: 1 }).toMillis()),
    listMailboxes(world.db),
  ]);
  return { hours, from: day.toMillis(), zone, limit: boxes.reduce((sum, box) => sum + limitOn(dayKey(now, box.zone), box), 0) };
}

/** What happened in the last 24 hours, in figures. */
export async function lately(world: World) {
  const since = (await world.clock.now()) - DAY_MS;
  const [answers, made] = await Promise.all([answersSince(world.db, since), madeSince(world.db, since)]);
  return { answers, ...made };
}

/** The start of today in the workspace's zone. */
export async function startOfDay(world: World): Promise<number> {
  const { zone } = await workspace(world.db);
  return DateTime.fromMillis(await world.clock.now(), { zone })
    .startOf('day')
    .toMillis();
}

export async function trips(
  world: World,
  ask: {
    readonly flowId?: string | undefined;
    readonly state?: string | undefined;
    readonly mark?: string | undefined;
    readonly cursor?: string | undefined;
    readonly limit?: number | undefined;
  },
): Promise<Page<TripListRow>> {
  const limit = Math.min(200, ask.limit ?? 50);
  const rows = await listTrips(world.db, {
    flowId: ask.flowId,
    state: ask.state,
    mark: ask.mark,
    before: readCursor(ask.cursor),
    limit: limit + 1,
  });
  const last = rows[limit - 1];
  return { items: rows.slice(0, limit), next: rows.length > limit && last ? writeCursor({ id: last.id, at: last.createdAt }) : null };
}

/** Trips of a flow by state; those under way, and of them those on other versions than the live one. */
export async function tripCounts(world: World, flowId: string, liveVersionId: string | null) {
  const rows = await countStates(world.db, flowId);
  const by: Record<string, number> = {};
  let [underWay, older] = [0, 0];
  for (const row of rows) {
    by[row.state] = (by[row.state] ?? 0) + row.trips;
    if (row.state === 'done' || row.state === 'stopped') continue;
    underWay += row.trips;
    if (row.versionId !== liveVersionId) older += row.trips;
  }
  return { by, underWay, older };
}

export interface TripPage {
  readonly trip: TripListRow;
  readonly journal: readonly StoredEntry[];
  readonly text: string;
}
/** One trip with its journal and the text of the version it runs on. */
export async function trip(world: World, id: string): Promise<TripPage> {
  const [row] = await listTrips(world.db, { id, limit: 1 });
  const held = found(row, 'this trip');
  const journal = await journalOf(world.db, [id]);
  const [version] = held.versionId === null ? [] : await versionsOf(world.db, [held.versionId]);
  return { trip: held, journal, text: version?.text ?? '' };
}

export async function messages(
  world: World,
  ask: { readonly state?: string | undefined; readonly cursor?: string | undefined; readonly limit?: number | undefined },
): Promise<Page<MessageRow>> {
  const limit = Math.min(200, ask.limit ?? 50);
  const rows = await pageMessages(world.db, { state: ask.state, before: readCursor(ask.cursor), limit: limit + 1 });
  const last = rows[limit - 1];
  return { items: rows.slice(0, limit), next: rows.length > limit && last ? writeCursor({ id: last.id, at: last.at }) : null };
}

export async function threads(world: World): Promise<readonly ThreadRow[]> {
  return listThreads(world.db, 300);
}
export async function thread(
  world: World,
  id: string,
): Promise<{ readonly thread: ThreadRow; readonly messages: readonly MessageRow[]; readonly open: number }> {
  const row = found(await findThread(world.db, id), 'this conversation');
  return { thread: row, messages: await messagesOfThread(world.db, id), open: await openSends(world.db, id) };
}
export async function lookups(world: World): Promise<readonly ProviderFigures[]> {
  return providerFigures(world.db);
}
export async function mailboxes(world: World) {
  return listMailboxes(world.db);
}
export async function pairs(world: World) {
  const now = await world.clock.now();
  return { open: await openPairs(world.db, now), decided: await decidedPairs(world.db, 100) };
}
