/** What stands around every page: how much waits where, what time it is here, and what does not answer. */
import { DateTime } from 'luxon';
import type { Instant } from '../../core/base';
import { may, type Role } from '../access/may';
import { counts } from '../records/records';
import { readClock } from '../trips/clock';
import { countStuck } from '../trips/stuck';
import { workspace, type Actor, type World } from '../platform/world';
import { openCounts } from './store/overview';
import { troubles, type Trouble } from './troubles';
import { waitingFor } from './whose';

export interface Rail {
  readonly desk: number;
  readonly sources: number;
  readonly flows: number;
  readonly records: number;
  readonly deals: number;
  readonly pairs: number;
  readonly sentToday: number;
  readonly now: Instant;
  /** where the demo's clock is on its way to */
  readonly target: Instant | null;
  readonly zone: string;
  readonly movable: boolean;
  readonly troubles: readonly Trouble[];
}

/** The rail for the one who looks: what was told to them counts for them alone. */
export async function rail(world: World, actor: Actor, role: Role): Promise<Rail> {
  const { db } = world;
  const clock = await readClock(world);
  const { zone } = await workspace(db);
  const day = DateTime.fromMillis(clock.now, { zone }).startOf('day');
  const [open, waiting, groups, records, away] = await Promise.all([
    openCounts(db, { now: clock.now, userId: actor.userId, dayFrom: day.toMillis(), dayTo: day.plus({ days: 1 }).toMillis() }),
    waitingFor(world, actor),
    countStuck(world),
    counts(world),
    troubles(world),
  ]);
  return {
    desk: waiting + open.pairs + groups + open.doubts + open.firsts + open.told,
    sources: open.listsToday,
    flows: open.liveFlows,
    records: records.people + records.companies,
    deals: records.deals,
    pairs: open.pairs,
    sentToday: open.sentToday,
    now: clock.now,
    target: clock.target,
    zone,
    movable: clock.movable && may(role, 'move the clock'),
    troubles: away,
  };
}
