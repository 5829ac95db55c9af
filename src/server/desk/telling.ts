/**
 * Tells people, where they are, that something waits on their desk. Promises: only in the hours they chose, of working days; what comes within
 * a quarter of an hour goes together; nothing is told twice.
 */
import { stableId, type Instant } from '../../core/base';
import { intoWorkingTime } from '../../core/calendar';
import { clockText } from '../../core/flow/syntax';
import { sayWaiting, type Fresh } from '../../core/teams';
import { transact, type Tx } from '../db';
import { listMailboxes } from '../messages/store/mailboxes';
import { clockMinutes } from '../messages/touches';
import { insertCall, listWebhooks } from '../trips/store/outbox';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';
import { desk } from './reviews';
import { findTelling, lookedAt, putTelling, setTold, tellingDue, type TellingRow } from './store/telling';

const LOOK_MS = 60_000;
const TOGETHER_MS = 15 * 60_000;

export interface Telling {
  readonly byMail: boolean;
  readonly webhook: string | null;
  /** `08:00`, in the workspace's zone */
  readonly from: string;
  readonly to: string;
  /** webhooks there are to choose from */
  readonly webhooks: readonly string[];
  readonly zone: string;
}

const DAY_ENDS = 1080;
const DAY_BEGINS = 480;

export async function telling(world: World, actor: Actor): Promise<Telling> {
  const { db } = world;
  const [row, hooks, { zone }] = await Promise.all([findTelling(db, mine(actor)), listWebhooks(db), workspace(db)]);
  return {
    byMail: row?.byMail ?? false,
    webhook: row?.webhook ?? null,
    from: clockText(row?.fromMinute ?? DAY_BEGINS),
    to: clockText(row?.toMinute ?? DAY_ENDS),
    webhooks: hooks.map(({ name }) => name),
    zone,
  };
}

export async function setTelling(world: World, actor: Actor, ask: Pick<Telling, 'byMail' | 'webhook' | 'from' | 'to'>): Promise<Telling> {
  const [fromMinute, toMinute] = [clockMinutes(ask.from), clockMinutes(ask.to)];
  if (fromMinute >= toMinute) throw new Refusal('not valid', 'the hours end before they begin');
  if (ask.webhook !== null)
    found(
      (await listWebhooks(world.db)).find(({ name }) => name === ask.webhook),
      `the webhook “${ask.webhook}”`,
    );
  const now = await world.clock.now();
  const userId = mine(actor);
  // What lies there already is seen on the desk: told is what comes from now on.
  const told = idsOf(await waitsFor(world, { userId, name: actor.name }));
  await putTelling(world.db, { userId, byMail: ask.byMail, webhook: ask.webhook, fromMinute, toMinute, told }, now);
  return telling(world, actor);
}

function mine({ userId }: Actor): string {
  if (userId === null) throw new Refusal('not allowed', 'a program has no desk: sign in as a person');
  return userId;
}

/** Looks who has something new before them, and tells them. Returns how many were told. */
export async function tellWaiting(world: World): Promise<number> {
  const now = await world.clock.now();
  const space = await workspace(world.db);
  return transact(world.db, async (tx) => {
    const due = await tellingDue(tx, { lookedBefore: now - LOOK_MS, toldBefore: now - TOGETHER_MS });
    let told = 0;
    for (const row of due) {
      await lookedAt(tx, row.userId, now);
      const hours = { zone: space.zone, fromMinute: row.fromMinute, toMinute: row.toMinute, daysOff: new Set(space.daysOff) };
      if (intoWorkingTime(now, hours) !== now) continue;
      const waits = await waitsFor(world, row);
      const says = sayWaiting(freshOf(waits, new Set(row.told)));
      if (says === undefined) continue;
      await tell(tx, world, row, says, now);
      await setTold(tx, row.userId, idsOf(waits), now);
      told += 1;
    }
    return told;
  });
}

type Waits = Readonly<Record<keyof Fresh, readonly string[]>>;
/** What lies before somebody, by its ids; what is asked of others is not theirs. */
async function waitsFor(world: World, { userId, name }: Pick<TellingRow, 'userId' | 'name'>): Promise<Waits> {
  const { reviews, replies, tasks, notices } = await desk(world, { userId, name });
  return {
    reviews: reviews.filter(({ whose }) => whose.yours).map(({ id }) => id),
    replies: replies.filter(({ whose }) => whose === null || whose.yours).map(({ id }) => id),
    // Tried again another day, it is told again.
    tasks: tasks.filter(({ whose }) => whose?.yours === true).map(({ id, attempts }) => `${id} ${attempts}`),
    notices: notices.map(({ id }) => id),
  };
}
const idsOf = (waits: Waits): readonly string[] => Object.values(waits).flat();
const freshOf = (waits: Waits, told: ReadonlySet<string>): Fresh => {
  const count = (ids: readonly string[]): number => ids.filter((id) => !told.has(id)).length;
  return { reviews: count(waits.reviews), replies: count(waits.replies), tasks: count(waits.tasks), notices: count(waits.notices) };
};

async function tell(tx: Tx, world: World, row: TellingRow, says: string, now: Instant): Promise<void> {
  const key = [row.userId, String(now)];
  const about = { tripId: null, personId: null, kind: 'tell' as const };
  if (row.byMail) {
    const [mailbox] = await listMailboxes(tx);
    const mail = { to: row.email, name: row.name, from: mailbox?.address ?? '', fromName: mailbox?.displayName ?? '' };
    const text = `${says}\n\n${world.publicUrl}/\n\nYou are told between ${clockText(row.fromMinute)} and ${clockText(row.toMinute)} on working days: change it under My account.`;
    await insertCall(tx, { ...about, id: stableId('telling', ...key, 'mail'), payload: { mail, text } }, now);
  }
  if (row.webhook !== null)
    await insertCall(
      tx,
      {
        ...about,
        id: stableId('telling', ...key, 'webhook'),
        payload: { webhook: row.webhook, body: { text: says, who: row.name, desk: `${world.publicUrl}/` } },
      },
      now,
    );
}
