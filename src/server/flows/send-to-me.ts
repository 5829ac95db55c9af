/** A text as one reader would get it, sent to who is writing it: by the real way, marked, and to nobody else. */
import { withSignature } from '../../core/sending';
import type { MessageTemplate } from '../../core/writer';
import { insertAudit } from '../access/store/audit';
import { userById } from '../access/store/access';
import { routeOf } from '../messages/mailboxes';
import { listMailboxes, mailboxRoutes } from '../messages/store/mailboxes';
import { findPerson } from '../records/store/records';
import { readBy } from './try-things';
import { found, Refusal, type World } from '../platform/world';

const WITHIN_MS = 30_000;

/** Sends it; gives the address it went to. Refused where a mail cannot leave, with what the server said. */
export async function sendToMe(
  world: World,
  me: { readonly userId: string; readonly name: string },
  ask: { readonly text: MessageTemplate; readonly personId: string },
): Promise<{ readonly to: string }> {
  const person = found(await findPerson(world.db, ask.personId), 'this person');
  const { email } = found(await userById(world.db, me.userId), 'this account');
  const [box] = await listMailboxes(world.db);
  if (!box) throw new Refusal('conflict', 'there is no mailbox to write from yet: make one in Settings');
  const [read] = await readBy(world, ask.text, [{ id: person.id, companyId: person.companyId }]);
  const { composed } = found(read, 'this person');
  const failed = composed.checks.filter((check) => !check.ok).map((check) => check.says);
  const note = [
    `A trial, sent to you alone: ${person.name} would get the text above.`,
    ...(composed.fallback === null ? [] : [composed.fallback]),
    ...(failed.length === 0 ? [] : [`It would be held: ${failed.join('; ')}.`]),
  ].join('\n');
  const now = await world.clock.now();
  const raw = await world.mail.compose({
    from: { name: box.displayName, address: box.address },
    to: { name: me.name, address: email },
    replyTo: (await mailboxRoutes(world.db)).find((entry) => entry.name === box.name)?.replyTo ?? null,
    subject: `[for ${person.name}] ${composed.subject}`,
    text: `${withSignature(composed.body, box.signature)}\n\n-- \n${note}\n`,
    messageId: `<trial-${world.newId()}@millrace>`,
    inReplyTo: null,
    references: [],
    unsubscribeUrl: null,
    date: now,
  });
  const route = await routeOf(world, { name: box.name });
  const outcome = await world.mail.deliver(raw, { from: box.address, to: email }, world.mail.deadline(WITHIN_MS), route);
  if (outcome.kind !== 'accepted') throw new Refusal('conflict', `it did not leave: ${outcome.says}`);
  const detail = { text: ask.text.name, about: person.name };
  await insertAudit(world.db, { at: now, userId: me.userId, what: 'sent themselves a trial of a text', detail });
  return { to: email };
}
