/** Teams that take turns: made, changed and taken apart by hand, with whose turn it is next and why. */
import { dayKey } from '../../core/calendar';
import { turnAfter } from '../../core/teams';
import { putTeam } from '../flows/store/flows';
import { peopleHere, removeTeam, teamsOn } from '../access/store/people';
import { insertAudit } from '../access/store/audit';
import { flowsNaming } from '../flows/naming';
import { Refusal, workspace, type Actor, type World } from '../platform/world';

export interface TeamView {
  readonly name: string;
  readonly members: readonly { readonly id: string; readonly name: string; readonly weight: number; readonly isAway: boolean }[];
  /** whose turn is next; null: nobody is there */
  readonly next: { readonly name: string; readonly passed: readonly string[] } | null;
  /** flows that name it */
  readonly flows: readonly string[];
}

export async function teams(world: World): Promise<readonly TeamView[]> {
  const today = dayKey(await world.clock.now(), (await workspace(world.db)).zone);
  const [rows, naming] = await Promise.all([teamsOn(world.db, today), flowsNaming(world)]);
  return rows.map(({ name, members, turn }) => {
    const next = turnAfter(members, turn);
    return {
      name,
      members,
      next: next ? { name: next.member.name, passed: next.passed.map((member) => member.name) } : null,
      flows: naming('team', name),
    };
  });
}

/** Makes a team, or gives one other members, in their order. */
export async function keepTeam(
  world: World,
  actor: Actor,
  name: string,
  ask: { readonly isNew: boolean; readonly members: readonly { readonly id: string; readonly weight: number }[] },
): Promise<readonly TeamView[]> {
  const known = (await teamsOn(world.db, '1970-01-01')).some((team) => team.name === name);
  if (ask.isNew && known) throw new Refusal('conflict', `there is a team “${name}” already`);
  if (!ask.isNew && !known) throw new Refusal('not found', `there is no team “${name}”`);
  const here = new Map(
    (await peopleHere(world.db, '9999-12-31')).filter((person) => person.endedAt === null).map((person) => [person.id, person.name]),
  );
  if (ask.members.some(({ id }) => !here.has(id))) throw new Refusal('not valid', 'only people who work here can be in a team');
  if (new Set(ask.members.map(({ id }) => id)).size < ask.members.length) throw new Refusal('not valid', 'somebody stands in it twice');
  await world.db.begin(async (tx) => {
    await putTeam(tx, name, ask.members);
    await insertAudit(tx, {
      at: await world.clock.now(),
      userId: actor.userId,
      what: ask.isNew ? 'made a team' : 'changed a team',
      detail: {
        team: name,
        members: ask.members.map(({ id, weight }) => `${here.get(id) ?? ''}${weight > 1 ? ` × ${weight}` : ''}`).join(', '),
      },
    });
  });
  return teams(world);
}

export async function dropTeam(world: World, actor: Actor, name: string): Promise<readonly TeamView[]> {
  const users = (await flowsNaming(world))('team', name);
  if (users.length > 0)
    throw new Refusal('conflict', `${users.join(', ')} ${users.length === 1 ? 'names' : 'name'} this team: change that first`);
  await world.db.begin(async (tx) => {
    if (!(await removeTeam(tx, name))) throw new Refusal('not found', `there is no team “${name}”`);
    await insertAudit(tx, { at: await world.clock.now(), userId: actor.userId, what: 'removed a team', detail: { team: name } });
  });
  return teams(world);
}
