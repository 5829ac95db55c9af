/**
 * Who has a conversation. Promises: what is handed to somebody stands on their desk, is told to them, and is decided by them, by who
 * stands in for them, or by who may take it over. Refuses: handing it to who may not decide.
 */
import type { HandOverView } from '../../api';
import { DateTime } from 'luxon';
import type { Tx } from '../db';
import { insertNotices } from '../trips/store/outbox';
import { colleagues } from '../access/store/people';
import { findThread, setHolder, type ThreadRow } from './store/messages';
import { findPerson } from '../records/store/records';
import { insertAudit } from '../access/store/audit';
import { insertHappenings } from '../records/store/timeline';
import { houseOf } from '../desk/whose';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

/** Who may look only decides nothing. */
const DECIDES: ReadonlySet<string> = new Set(['owner', 'builder', 'rep', 'reviewer']);

async function here(world: World, tx: Tx) {
  const { zone } = await workspace(tx);
  return colleagues(tx, DateTime.fromMillis(await world.clock.now(), { zone }).toISODate() ?? '');
}

/** Who has a conversation, and to whom it can be handed: whose record it is first, who is away last. */
export async function handOverTo(world: World, actor: Actor, thread: ThreadRow): Promise<HandOverView> {
  const [all, house, person] = await Promise.all([here(world, world.db), houseOf(world, actor), findPerson(world.db, thread.personId)]);
  const to = all
    .filter(({ id, role }) => DECIDES.has(role) && id !== actor.userId && id !== thread.holderId)
    .map(({ id, name, isAway, role }) => ({
      id,
      name,
      says: [name === person?.ownerName ? 'has their record' : '', isAway ? 'away' : '', role].filter(Boolean).join(', '),
      isAway,
      isOwner: name === person?.ownerName,
    }))
    .sort((a, b) => Number(a.isAway) - Number(b.isAway) || Number(b.isOwner) - Number(a.isOwner) || a.name.localeCompare(b.name));
  const whose = thread.holderName === null ? null : house.whose(thread.holderName);
  return {
    holder: thread.holderName,
    inPlace: whose?.standIn ? [...whose.people] : [],
    yours: whose?.yours ?? false,
    mayAnswer: whose === null || whose.yours || house.mayTakeOver,
    to: to.map(({ id, name, says }) => ({ id, name, says })),
  };
}

/** The same of a conversation by its id. */
export const holderOf = async (world: World, actor: Actor, threadId: string): Promise<HandOverView> =>
  handOverTo(world, actor, found(await findThread(world.db, threadId), 'this conversation'));

/** Refuses who does not have a conversation that somebody has. */
export async function mustHave(world: World, actor: Actor, { holderName }: ThreadRow): Promise<void> {
  if (holderName === null) return;
  const house = await houseOf(world, actor);
  const { yours, people } = house.whose(holderName);
  if (!yours && !house.mayTakeOver)
    throw new Refusal(
      'not allowed',
      `${holderName} has this conversation: ${people.join(', ')} answer it, or somebody who builds here takes it over`,
    );
}

/** Hands a conversation to somebody, with a word; `userId` null: to nobody, so that everybody has it. */
export async function handOver(
  world: World,
  actor: Actor,
  threadId: string,
  ask: { readonly userId: string | null; readonly word: string },
): Promise<void> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    const thread = found(await findThread(tx, threadId), 'this conversation');
    await mustHave(world, actor, thread);
    const to =
      ask.userId === null
        ? null
        : found(
            (await here(world, tx)).find(({ id }) => id === ask.userId),
            'this colleague',
          );
    if (to && !DECIDES.has(to.role)) throw new Refusal('not valid', `${to.name} may look here, not decide`);
    await setHolder(tx, threadId, to?.id ?? null);
    const word = ask.word.trim();
    const says = to
      ? `${actor.name} handed the conversation “${thread.subject}” to ${to.name}`
      : `${actor.name} gave the conversation “${thread.subject}” back to everybody`;
    if (to && to.id !== actor.userId)
      await insertNotices(
        tx,
        [
          {
            id: world.newId(),
            userId: to.id,
            text: `${actor.name} hands you the conversation with ${thread.personName}: ${thread.subject}${word === '' ? '' : `. ${word}`}`,
            tripId: thread.tripId,
            personId: thread.personId,
          },
        ],
        now,
      );
    await insertHappenings(tx, [
      {
        recordKind: 'person',
        recordId: thread.personId,
        at: now,
        kind: 'review',
        says: word === '' ? says : `${says}: ${word}`,
        detail: { threadId },
      },
    ]);
    await insertAudit(tx, {
      at: now,
      userId: actor.userId,
      what: 'handed a conversation over',
      detail: { threadId, to: to?.name ?? null },
    });
  });
}
