/** Whose decision a review is: those it was asked of, who stands in for them, and who may take it over. */
import { DateTime } from 'luxon';
import { askedOf, type Colleague } from '../../core/teams';
import type { Tx } from '../db';
import { colleagues } from '../access/store/people';
import { waitingByHolder } from '../messages/store/messages';
import { openTasksByOwner } from '../messages/store/tasks';
import { openReviewsByWho } from './store/reviews';
import { Refusal, workspace, type Actor, type World } from '../platform/world';

export interface Whose {
  readonly people: readonly string[];
  readonly standIn: boolean;
  readonly yours: boolean;
}

export interface House {
  readonly whose: (who: string) => Whose;
  /** decides what was asked of others: owners and builders, and what runs without anybody */
  readonly mayTakeOver: boolean;
  /** sees what was asked of others: who may take it over, and who only looks */
  readonly seesAll: boolean;
}

/** `tx`: where to read from, on the workspace's day. */
export async function houseOf(world: World, actor: Actor, tx: Tx = world.db): Promise<House> {
  const { zone } = await workspace(tx);
  const today = DateTime.fromMillis(await world.clock.now(), { zone }).toISODate() ?? '';
  const all: readonly Colleague[] = await colleagues(tx, today);
  const me = all.find(({ id }) => id === actor.userId);
  const mayTakeOver = actor.userId === null || me?.role === 'owner' || me?.role === 'builder';
  return {
    mayTakeOver,
    seesAll: mayTakeOver || me?.role === 'viewer',
    whose: (who) => {
      const { people, standIn } = askedOf(who, all);
      return { people: people.map(({ name }) => name), standIn, yours: people.some(({ id }) => id === actor.userId) };
    },
  };
}

/** How many messages to approve, answers and tasks wait for who looks; what others have is theirs. */
export async function waitingFor(world: World, actor: Actor): Promise<number> {
  const { db } = world;
  const [house, reviews, replies, tasks] = await Promise.all([
    houseOf(world, actor),
    openReviewsByWho(db, await world.clock.now()),
    waitingByHolder(db),
    openTasksByOwner(db),
  ]);
  return (
    reviews.reduce((sum, { who, count }) => sum + (house.whose(who).yours ? count : 0), 0) +
    replies.reduce((sum, { holder, count }) => sum + (holder === null || house.whose(holder).yours ? count : 0), 0) +
    tasks.reduce((sum, { owner, count }) => sum + (owner === null || house.whose(owner).yours ? count : 0), 0)
  );
}

export async function mustBeAsked(world: World, actor: Actor, who: string): Promise<void> {
  const house = await houseOf(world, actor);
  const { yours, people } = house.whose(who);
  if (!yours && !house.mayTakeOver)
    throw new Refusal('not allowed', `this was asked of ${who}: ${people.join(', ')} decide, or somebody who builds here takes it over`);
}
