import { stableId, type Instant, type JsonObject } from '../../core/base';
import type { Command } from '../../core/engine';
import type { Tx } from '../db';
import { ITS_OWNER } from '../../core/flow/syntax';
import { insertCall, insertNotices, listWebhooks, openNotices, ownersOf, readNotice, usersNamed, type NoticeRow } from './store/outbox';
import { listMailboxes } from '../messages/store/mailboxes';
import { Refusal, type Actor, type World } from '../platform/world';

/** Puts a notice before everyone a role, team or name stands for; by mail too when asked. A webhook's name makes it a call. */
export async function tellPeople(
  tx: Tx,
  command: Extract<Command, { kind: 'tell' }>,
  about: { readonly tripId: string; readonly personId: string },
  now: Instant,
): Promise<void> {
  if ((await listWebhooks(tx)).some((hook) => hook.name === command.who)) {
    const payload: JsonObject = { webhook: command.who, body: { text: command.text, trip: about.tripId, person: about.personId } };
    await insertCall(tx, { ...about, id: command.noticeId, kind: 'tell', payload }, now);
    return;
  }
  const people = command.who === ITS_OWNER ? await ownersOf(tx, about.tripId) : await usersNamed(tx, command.who);
  await insertNotices(
    tx,
    people.map((user) => ({ ...about, id: stableId(command.noticeId, user.id), userId: user.id, text: command.text })),
    now,
  );
  if (!command.byEmail) return;
  const [mailbox] = await listMailboxes(tx);
  for (const user of people) {
    const id = stableId(command.noticeId, user.id, 'mail');
    const payload: JsonObject = {
      mail: { to: user.email, name: user.name, from: mailbox?.address ?? '', fromName: mailbox?.displayName ?? '' },
      text: command.text,
      ...(command.paper !== null && { dossier: command.paper }),
    };
    await insertCall(tx, { ...about, id, kind: 'tell', payload }, now);
  }
}

/** What a person has been told and has not put aside yet, newest first. */
export async function notices(world: World, actor: Actor): Promise<readonly NoticeRow[]> {
  return actor.userId === null ? [] : openNotices(world.db, actor.userId);
}

export async function putNoticeAside(world: World, actor: Actor, id: string): Promise<void> {
  if (actor.userId === null || !(await readNotice(world.db, id, actor.userId, await world.clock.now())))
    throw new Refusal('not found', 'this notice is not yours, or is put aside already');
}
