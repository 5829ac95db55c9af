/** A conversation on a real database: the demo's workspace, one firm, one of our mails, and whatever they write back. */
import { createCompany, createPerson } from '../server/records/records';
import { receiveMail } from '../server/messages/receive-mail';
import type { Actor } from '../server/platform/world';
import { insertMessage, insertThread, setMessageState } from '../server/messages/store/messages';
import { demoWorkspace, testWorld, type TestWorld } from './world';

const OURS = 'Hello Nuria,\n\nIs there a page in the proposal you would like explained?\n\nLucía';

export interface Conversation {
  readonly world: TestWorld;
  readonly ines: Actor;
  readonly threadId: string;
  /** a mail of theirs in it, a minute later */
  readonly theyWrite: (text: string) => Promise<void>;
}
export async function conversation(): Promise<Conversation> {
  const world = await testWorld();
  const { ines } = await demoWorkspace(world);
  const firm = await createCompany(world, ines, {
    values: { name: 'Viveros Almenara', heated_area: 1.1, country: 'ES' },
    source: 'api',
  });
  const nuria = await createPerson(world, ines, {
    values: { name: 'Nuria Peralta', first_name: 'Nuria', email: 'n.peralta@viveros-almenara.example' },
    companyId: firm.id,
    source: 'api',
  });
  const threadId = world.newId();
  const id = world.newId();
  const subject = 'Your proposal';
  await insertThread(world.db, { id: threadId, personId: nuria.id, tripId: null, mailbox: 'Sales mailbox', subject }, world.now);
  await insertMessage(
    world.db,
    {
      id,
      threadId,
      tripId: null,
      personId: nuria.id,
      template: null,
      touch: 0,
      composed: { subject, body: OURS, personalLine: null, factsUsed: [], checks: [] },
      state: 'sent',
      rfcId: '<first@thornwick.example>',
      inReplyTo: null,
      refs: [],
    },
    world.now - 86_400_000,
  );
  await setMessageState(world.db, id, 'sent', world.now - 86_400_000);
  let n = 0;
  const theyWrite = (text: string): Promise<void> => {
    n += 1;
    world.now += 60_000;
    return receiveMail(world, {
      messageId: `<theirs-${n}@viveros-almenara.example>`,
      inReplyTo: '<first@thornwick.example>',
      references: ['<first@thornwick.example>'],
      from: 'n.peralta@viveros-almenara.example',
      fromName: 'Nuria Peralta',
      to: ['sales@thornwick.example'],
      subject: `Re: ${subject}`,
      text: `${text}\n\nOn Mon, Lucía wrote:\n> ${OURS.replace(/\n/g, '\n> ')}`,
      html: null,
      autoSubmitted: false,
      sentAt: world.now,
    } as never);
  };
  return { world, ines, threadId, theyWrite };
}
