/** Mailboxes that rest because too much came back, on a real database with a worker. */
import { madeFlow, peopleWithFirms } from '../../testing/flows';
import { demoWorld, replyTo, testWorker, type SentMail, type TestWorld } from '../../testing/world';
import { readMail } from '../box/mail';
import { messages } from '../desk/overview';
import { troubles } from '../desk/troubles';
import { decideReview, desk } from '../desk/reviews';
import { startOn } from '../flows/flows';
import type { Actor } from '../platform/world';
import { notices } from '../trips/tell';
import { doNotContactList } from './do-not-contact';
import { letMailboxSend } from './mailbox-rest';
import { mailboxViews } from './mailboxes';
import { receiveMail } from './receive-mail';

const HOUR = 3_600_000;
let world: TestWorld;
let ines: Actor;
let flowId: string;
beforeEach(async () => {
  ({ world, ines } = await demoWorld());
  flowId = await madeFlow(world, ines, 'keep when email != null\nwrite email "First contact" as m\nask "north" to approve m\nsend m\n');
});
afterEach(() => world.close());

let made = 0;
/** So many get a mail that somebody approved. */
async function writeTo(count: number): Promise<void> {
  const from = (made += count) - count;
  await startOn(world, ines, flowId, await peopleWithFirms(world, ines, count, (i) => ({ email: `p${from + i}@firm${from + i}.example` })));
  await testWorker(world).drain();
  for (const review of (await desk(world)).reviews) await decideReview(world, ines, review.id, { does: 'approve' });
  await pass(2);
}
async function pass(hours: number): Promise<void> {
  for (const until = world.now + hours * HOUR; world.now < until; world.now += HOUR / 12) await testWorker(world).drain();
}
const comeBack = (mail: SentMail) =>
  receiveMail(
    world,
    replyTo(mail, 'could not be delivered', {
      from: 'postmaster@relay.example',
      inReplyTo: null,
      references: [],
      deliveryStatus: {
        status: `Final-Recipient: rfc822; ${mail.to.address}\r\nAction: failed\r\nStatus: 5.1.1`,
        original: `Message-ID: ${mail.messageId}`,
      },
    }),
  );
const box = async () => (await mailboxViews(world))[0]!;

test('when too much comes back, nothing more leaves until a person lets it; owners are told once', async () => {
  await writeTo(12);
  expect(world.outside.mails).toHaveLength(12);
  expect(await box()).toMatchObject({ back: { sent: 12, bounced: 0, standing: 'good' }, rests: null });
  for (const mail of world.outside.mails.slice(0, 4)) await comeBack(mail);
  expect(await box()).toMatchObject({ back: { sent: 12, bounced: 4, standing: 'doubtful' }, rests: null });
  for (const mail of world.outside.mails.slice(4, 6)) await comeBack(mail);
  const why = '5 of the last 12 mails came back';
  expect(await box()).toMatchObject({ back: { bounced: 6, standing: 'too many' }, rests: { since: world.now, why } });
  expect((await notices(world, ines)).map(({ text }) => text)).toEqual([expect.stringContaining(`rests: ${why}`)]);
  expect(await troubles(world)).toEqual([expect.objectContaining({ says: expect.stringContaining(why), href: '/settings/mailboxes' })]);

  await writeTo(2);
  expect(world.outside.mails).toHaveLength(12);
  await letMailboxSend(world, ines, (await box()).name);
  await pass(24);
  expect(world.outside.mails).toHaveLength(14);
  expect(await troubles(world)).toEqual([]);
  // What came back before is not held against it.
  expect(await box()).toMatchObject({ back: { sent: 2, bounced: 0, standing: 'good' }, rests: null });
  await comeBack(world.outside.mails[6]!);
  expect((await box()).rests).toBeNull();
  await expect(letMailboxSend(world, ines, (await box()).name)).rejects.toThrow('does not rest');
});

/** As a provider sends it when a reader marks a mail as unwanted. */
const complain = async (mail: SentMail): Promise<void> => {
  const raw = [
    'From: Feedback <feedback@provider.example>',
    `To: ${mail.from.address}`,
    'Subject: FW: a mail',
    `Message-ID: <report-${mail.to.address}>`,
    'MIME-Version: 1.0',
    'Content-Type: multipart/report; report-type=feedback-report; boundary="b"',
    '',
    '--b',
    'Content-Type: text/plain',
    '',
    'Yes, please call me: these words are the provider’s and mean nothing.',
    '--b',
    'Content-Type: message/feedback-report',
    '',
    'Feedback-Type: abuse',
    `Original-Rcpt-To: ${mail.to.address}`,
    '--b',
    'Content-Type: message/rfc822',
    '',
    `To: ${mail.to.address}`,
    `Message-ID: ${mail.messageId}`,
    '',
    'Hello',
    '--b--',
    '',
  ].join('\r\n');
  await receiveMail(world, await readMail(Buffer.from(raw)));
};

test('who complains to their provider is never written to again; two complaints stop the mailbox', async () => {
  await writeTo(3);
  const [first, second] = world.outside.mails as [SentMail, SentMail];
  await complain(first);
  await complain(first);
  expect(await box()).toMatchObject({ back: { bounced: 0, complained: 1, standing: 'doubtful' }, rests: null });
  expect((await doNotContactList(world)).filter(({ email }) => email === first.to.address)).toMatchObject([{ why: 'complained' }]);
  const [message] = (await messages(world, { state: 'received' })).items;
  expect(message?.reading).toMatchObject({ kind: 'complaint', plan: 'stop', quote: 'their provider reports: abuse' });
  expect(message?.handledAt).not.toBeNull();
  await complain(second);
  expect(await box()).toMatchObject({
    back: { complained: 2, standing: 'too many' },
    rests: { why: '0 of the last 3 mails came back, 2 were reported as unwanted' },
  });
});
