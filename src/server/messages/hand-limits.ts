/** How many calls, notes and letters one person is given a day. Promises: what is more waits for the next working day. */
import { z } from 'zod';
import type { Instant } from '../../core/base';
import { startOfLocalDay } from '../../core/calendar';
import { HAND_CHANNELS, type HandChannel } from '../../core/writer';
import type { Tx } from '../db';
import { insertAudit } from '../access/store/audit';
import { getSetting, putSetting } from '../platform/store/settings';
import { workspace, type Actor, type World } from '../platform/world';
import { laidOutSince, type TaskRow } from './store/tasks';

const SETTING = 'by hand a day';
/** Networks take more notes than this from one person for a machine's. */
const USUAL: HandLimits = { call: null, 'profile note': 20, letter: null };
const schema = z.record(z.enum(HAND_CHANNELS), z.int().min(1).nullable());

/** null: as many as come */
export type HandLimits = Readonly<Record<HandChannel, number | null>>;

export async function handLimits(tx: Tx): Promise<HandLimits> {
  const read = schema.safeParse(await getSetting(tx, SETTING));
  return read.success ? read.data : USUAL;
}

export async function keepHandLimit(
  world: World,
  actor: Actor,
  { channel, aDay }: { readonly channel: HandChannel; readonly aDay: number | null },
): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    await putSetting(tx, SETTING, { ...(await handLimits(tx)), [channel]: aDay });
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'changed what is done by hand in a day', detail: { channel, aDay } });
  });
}

/** Whether whose record it is has been given as many of its kind today as one person is given. */
export async function isEnoughToday(tx: Tx, task: TaskRow, now: Instant): Promise<boolean> {
  const most = (await handLimits(tx))[task.channel];
  if (most === null) return false;
  const { zone } = await workspace(tx);
  return (await laidOutSince(tx, task, startOfLocalDay(now, zone))) >= most;
}
