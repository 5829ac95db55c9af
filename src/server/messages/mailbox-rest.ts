/**
 * Mailboxes that rest because too much of what they sent came back. Promises: what was planned keeps its place and leaves when a
 * person lets it; owners and builders are told once. Refuses: resting for what was let go on knowingly - counting begins anew.
 */
import { stableId, type Instant } from '../../core/base';
import { cameBackText, standingOf } from '../../core/reply';
import { insertAudit } from '../access/store/audit';
import { usersNamed, insertNotices } from '../trips/store/outbox';
import type { Tx } from '../db';
import { changed } from '../platform/live';
import { wakeWorkers } from '../platform/store/wake';
import { found, Refusal, type Actor, type World } from '../platform/world';
import { mailboxViews, type MailboxView } from './mailboxes';
import { cameBack, listMailboxes, lockMailbox, putRest, resume } from './store/mailboxes';

/** After a mail came back: whether its mailbox may go on. In the transaction that took the report in. */
export async function restIfTooMany(tx: Tx, mailbox: string, personId: string, now: Instant): Promise<void> {
  const box = await lockMailbox(tx, mailbox);
  if (!box) return;
  const back = await cameBack(tx, mailbox);
  if (standingOf(back) !== 'too many' || !(await putRest(tx, mailbox, cameBackText(back), now))) return;
  const told = [...(await usersNamed(tx, 'owner')), ...(await usersNamed(tx, 'builder'))];
  const text = `“${mailbox}” rests: ${cameBackText(back)}. Nothing of it leaves until somebody lets it, in Settings under Mailboxes.`;
  await insertNotices(
    tx,
    told.map(({ id }) => ({ id: stableId('mailbox rests', mailbox, String(now), id), userId: id, text, tripId: null, personId })),
    now,
  );
  await insertAudit(tx, { at: now, userId: null, what: 'let a mailbox rest', detail: { name: mailbox, why: cameBackText(back) } });
}

/** Lets a resting mailbox send again; what came back until now is not held against it. */
export async function letMailboxSend(world: World, actor: Actor, name: string): Promise<readonly MailboxView[]> {
  const now = await world.clock.now();
  await world.db.begin(async (tx) => {
    found(
      (await listMailboxes(tx)).find((box) => box.name === name),
      `the mailbox “${name}”`,
    );
    if (!(await resume(tx, name, now))) throw new Refusal('conflict', `“${name}” does not rest`);
    await insertAudit(tx, { at: now, userId: actor.userId, what: 'let a mailbox send again', detail: { name } });
    await wakeWorkers(tx);
  });
  changed(world, 'counts', 'messages');
  return mailboxViews(world);
}
